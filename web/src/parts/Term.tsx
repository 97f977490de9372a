import { lazy, Suspense, useEffect, useRef, useState } from "react";
import { Button } from "react-aria-components";
import styled from "styled-components";
import { entryOf, useGlossary } from "../app/glossary";
import { t } from "../app/theme";

const Ask = styled(Button)`
  position: relative;
  flex: none;
  width: 18px;
  height: 18px;
  padding: 0;
  margin-block: -1px;
  border: 1px solid ${t.rule};
  border-radius: 50%;
  background: none;
  color: ${t.soft};
  font: 600 12px/1 ${t.text};
  cursor: pointer;
  &::after {
    content: "";
    position: absolute;
    inset: -5px;
  }
  ${t.phone} {
    &::after {
      inset: -13px;
    }
  }
  @media print {
    display: none;
  }
`;
const Meaning = lazy(() => import("./Meaning"));

/** Opens on F1 in the field that the button stands in. */
function useF1(open: () => void) {
  const button = useRef<HTMLButtonElement>(null);
  useEffect(() => {
    const field = button.current?.closest<HTMLElement>("[data-field]");
    const press = (e: KeyboardEvent) => {
      if (e.key !== "F1") return;
      e.preventDefault();
      open();
    };
    field?.addEventListener("keydown", press);
    return () => field?.removeEventListener("keydown", press);
  });
  return button;
}

/** What a term of the trade means, one press away, and by F1 in its field; nothing where the glossary does not have it. */
export function Term({ of }: { of: string }) {
  const entry = entryOf(useGlossary(), of);
  const [open, setOpen] = useState(false);
  const button = useF1(() => setOpen(true));
  if (!entry) return null;
  return (
    <>
      <Ask
        ref={button}
        excludeFromTabOrder
        aria-label={`What does “${entry.term}” mean?`}
        data-term
        onPress={() => setOpen(!open)}
      >
        ?
      </Ask>
      {open && (
        <Suspense>
          <Meaning entry={entry} at={button} onClose={() => setOpen(false)} />
        </Suspense>
      )}
    </>
  );
}
