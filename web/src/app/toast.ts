import { UNSTABLE_ToastQueue as ToastQueue } from "react-aria-components";

export interface Said {
  text: string;
  undo?: () => void;
}

export const toasts = new ToastQueue<Said>({ maxVisibleToasts: 3 });

/** Say that something was done; with `undo`, offer the way back for ten seconds. */
export function say(text: string, undo?: () => void) {
  toasts.add({ text, undo }, { timeout: undo ? 10_000 : 5_000 });
}
