import type { ReactNode } from "react";
import { useParams } from "react-router";
import type { Schemas } from "../../api/client";
import { useMachine } from "../../api/kit";
import { Waiting } from "../../parts/Waiting";

/** What is shown of the machine in the address, once it is there. */
export function OfMachine({ children }: { children: (whole: Schemas["MachineWholeOut"]) => ReactNode }) {
  const { id } = useParams();
  return <Waiting of={useMachine(Number(id))}>{children}</Waiting>;
}
