import { createContext, useContext, useState } from "react";
import { ApiError, type FieldFault } from "../api/client";

interface Faults {
  fields: FieldFault[];
  /** Whether they are of what stands in the fields now, and not of what was sent before. */
  live: boolean;
}

/** The faults of the form around, so that each field can find its own. */
export const FaultsContext = createContext<Faults>({ fields: [], live: false });

export function faultsOf(error: Error | null | undefined, live?: Error | null): Faults {
  const told = error ?? live;
  return { fields: told instanceof ApiError ? told.fields : [], live: !error };
}

/** The fault of a field; once what stands in it is another than what was refused, there is none until it is sent again. */
export function useFault(name: string, value?: string): FieldFault | undefined {
  const { fields, live } = useContext(FaultsContext);
  const fault = fields.find((f) => f.field === name);
  const [refused, setRefused] = useState<{ fault: FieldFault; value?: string }>();
  if (fault && refused?.fault !== fault) setRefused({ fault, value });
  return fault && !live && refused?.fault === fault && refused.value !== value ? undefined : fault;
}
