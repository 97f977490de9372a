import { useParams } from "react-router";
import { useMachines } from "../../api/hooks";
import { NothingHere } from "../../app/ErrorPage";
import { Waiting } from "../../parts/Waiting";
import { MachineForm } from "./MachineForm";

/** Add a machine, or change one. */
export function MachinePage() {
  const { id } = useParams();
  const machines = useMachines();
  if (id === "new") return <MachineForm key="new" />;
  return (
    <Waiting of={machines}>
      {(list) => {
        const machine = list.find((m) => m.id === Number(id));
        return machine ? <MachineForm key={machine.id} machine={machine} /> : <NothingHere />;
      }}
    </Waiting>
  );
}
