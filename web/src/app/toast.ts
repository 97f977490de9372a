import { useSyncExternalStore } from "react";

export interface Toast {
  id: number;
  text: string;
  undo?: () => void;
}

let toasts: Toast[] = [];
let last = 0;
const listeners = new Set<() => void>();

function set(next: Toast[]) {
  toasts = next;
  listeners.forEach((tell) => tell());
}

export function dismiss(id: number) {
  set(toasts.filter((x) => x.id !== id));
}

/** Say that something was done; with `undo`, offer the way back for ten seconds. */
export function say(text: string, undo?: () => void) {
  const id = ++last;
  set([...toasts.slice(-2), { id, text, undo }]);
  setTimeout(() => dismiss(id), undo ? 10_000 : 5_000);
}

export function useToasts(): Toast[] {
  return useSyncExternalStore(
    (tell) => {
      listeners.add(tell);
      return () => listeners.delete(tell);
    },
    () => toasts,
  );
}
