import type { RefObject } from "react";
import { Dialog, Popover } from "react-aria-components";
import styled from "styled-components";
import type { Entry } from "../app/glossary";
import { t } from "../app/theme";

const Pop = styled(Popover)`
  max-width: min(340px, 90vw);
  padding: 12px 14px;
  background: ${t.sheet};
  border: 1px solid ${t.rule};
  font-size: ${t.s15};
  strong {
    display: block;
  }
`;

interface Props {
  entry: Entry;
  at: RefObject<HTMLElement | null>;
  onClose: () => void;
}

/** What a term means, laid beside the button that asked. */
export default function Meaning({ entry, at, onClose }: Props) {
  return (
    <Pop isOpen triggerRef={at} onOpenChange={(open) => !open && onClose()} placement="top start">
      <Dialog aria-label={entry.term}>
        <strong>{entry.term}</strong>
        {entry.text}
      </Dialog>
    </Pop>
  );
}
