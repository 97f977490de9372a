import { useParams } from "react-router";
import { MachineForm } from "./MachineForm";
import { OfMachine } from "./OfMachine";

/** Add a machine, or change one. */
export function MachineFormPage() {
  const { id } = useParams();
  if (!id) return <MachineForm key="new" />;
  return <OfMachine>{({ machine }) => <MachineForm key={machine.id} machine={machine} />}</OfMachine>;
}
