import {
  UNSTABLE_Toast as Toast,
  UNSTABLE_ToastContent as Content,
  UNSTABLE_ToastQueue as ToastQueue,
  UNSTABLE_ToastRegion as Region,
} from "react-aria-components";
import styled from "styled-components";
import { Button } from "../parts/Button";
import { t } from "./theme";
import { showBy, type Said } from "./toast";

const toasts = new ToastQueue<Said>({ maxVisibleToasts: 3 });
showBy((said) => toasts.add(said, { timeout: said.undo ? 10_000 : 5_000 }));

const Stack = styled(Region<Said>)`
  position: fixed;
  z-index: 30;
  left: 50%;
  bottom: 24px;
  transform: translateX(-50%);
  display: grid;
  gap: 8px;
  outline: none;
  ${t.phone} {
    bottom: 76px;
    width: calc(100% - 24px);
  }
  @media print {
    display: none;
  }
`;
const Slip = styled(Toast<Said>)`
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
export default function Toasts() {
  return (
    <Stack queue={toasts} aria-label="What was just done">
      {({ toast }) => (
        <Slip toast={toast}>
          <Content>{toast.content.text}</Content>
          {toast.content.undo && (
            <Button
              look="quiet"
              onPress={() => {
                toast.content.undo?.();
                toasts.close(toast.key);
              }}
            >
              Undo
            </Button>
          )}
        </Slip>
      )}
    </Stack>
  );
}
