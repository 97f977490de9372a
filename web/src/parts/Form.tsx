import { useEffect, useRef, type FormEvent, type ReactNode } from "react";
import { FaultsContext, faultsOf } from "./faults";

interface Props {
  /** What the server refused when the form was sent. */
  error: Error | null | undefined;
  /** What it says of the form while it is typed: shown beside the fields, without moving the focus. */
  live?: Error | null;
  onSubmit: () => void;
  children: ReactNode;
  label: string;
}

/** A form whose fields find their own faults; after a refusal the first field at fault gets the focus. */
export function Form({ error, live, onSubmit, children, label }: Props) {
  const form = useRef<HTMLFormElement>(null);
  useEffect(() => {
    if (!error) return;
    const box = form.current?.querySelector("[aria-invalid='true'], [data-invalid]");
    (box?.matches("input, textarea, button")
      ? (box as HTMLElement)
      : box?.querySelector<HTMLElement>("button, input")
    )?.focus();
  }, [error]);
  return (
    <FaultsContext.Provider value={faultsOf(error, live)}>
      <form
        ref={form}
        aria-label={label}
        noValidate
        onSubmit={(e: FormEvent) => {
          e.preventDefault();
          onSubmit();
        }}
      >
        {children}
      </form>
    </FaultsContext.Provider>
  );
}
