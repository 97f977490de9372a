import styled from "styled-components";
import { Button } from "../parts/Button";
import { t } from "./theme";
import { dismiss, useToasts } from "./toast";

const Stack = styled.div`
  position: fixed;
  z-index: 30;
  left: 50%;
  bottom: 24px;
  transform: translateX(-50%);
  display: grid;
  gap: 8px;
  ${t.phone} {
    bottom: 76px;
    width: calc(100% - 24px);
  }
  @media print {
    display: none;
  }
`;
const Slip = styled.div`
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 16px;
  padding: 8px 16px;
  background: ${t.ink};
  color: ${t.paper};
  border-radius: 3px;
  button {
    color: ${t.paper};
  }
`;

/** Short words on what was just done, with the way back where there is one. */
export function Toasts() {
  const toasts = useToasts();
  return (
    <Stack role="status" aria-live="polite">
      {toasts.map((toast) => (
        <Slip key={toast.id}>
          {toast.text}
          {toast.undo && (
            <Button
              look="quiet"
              onPress={() => {
                toast.undo?.();
                dismiss(toast.id);
              }}
            >
              Undo
            </Button>
          )}
        </Slip>
      ))}
    </Stack>
  );
}
