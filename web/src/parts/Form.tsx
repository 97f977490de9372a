import { useEffect, useRef, type FormEvent, type ReactNode } from "react";
import { FaultsContext, faultsOf } from "./faults";

interface Props {
  error: Error | null | undefined;
  onSubmit: () => void;
  children: ReactNode;
  label: string;
}

/** A form whose fields find their own faults; after a refusal the first field at fault gets the focus. */
export function Form({ error, onSubmit, children, label }: Props) {
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
    <FaultsContext.Provider value={faultsOf(error)}>
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
