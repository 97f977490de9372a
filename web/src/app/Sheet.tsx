import type { ReactNode } from "react";
import { Dialog, Modal, ModalOverlay } from "react-aria-components";
import styled from "styled-components";
import { t } from "./theme";

const Veil = styled(ModalOverlay)<{ $top: boolean }>`
  position: fixed;
  inset: 0;
  z-index: 20;
  background: color-mix(in srgb, ${t.ink} 28%, transparent);
  display: flex;
  justify-content: center;
  align-items: ${({ $top }) => ($top ? "start" : "center")};
  padding: ${({ $top }) => ($top ? "0" : "24px")};
`;
const Paper = styled(Modal)`
  background: ${t.paper};
  border: 1px solid ${t.rule};
  width: min(860px, 100%);
  max-height: calc(100vh - 24px);
  overflow: auto;
`;
const Inside = styled(Dialog)`
  padding: 24px 28px;
  outline: none;
  ${t.phone} {
    padding: 16px;
  }
`;

interface Props {
  label: string;
  onClose: () => void;
  top?: boolean;
  children: ReactNode;
}

/** A sheet laid over the view; Escape or a press outside puts it away. */
export function Sheet({ label, onClose, top = false, children }: Props) {
  return (
    <Veil isOpen isDismissable onOpenChange={(open) => !open && onClose()} $top={top}>
      <Paper>
        <Inside aria-label={label}>{children}</Inside>
      </Paper>
    </Veil>
  );
}
