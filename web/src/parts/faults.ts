import { createContext, useContext } from "react";
import { ApiError, type FieldFault } from "../api/client";

interface Faults {
  fields: FieldFault[];
}

/** The faults of the form around, so that each field can find its own. */
export const FaultsContext = createContext<Faults>({ fields: [] });

export function faultsOf(error: Error | null | undefined): Faults {
  return { fields: error instanceof ApiError ? error.fields : [] };
}

export function useFault(name: string): FieldFault | undefined {
  return useContext(FaultsContext).fields.find((f) => f.field === name);
}
