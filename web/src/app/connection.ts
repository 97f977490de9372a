import { useSyncExternalStore } from "react";

let online = true;
const listeners = new Set<() => void>();
let timer: ReturnType<typeof setTimeout> | undefined;

function set(next: boolean) {
  if (online === next) return;
  online = next;
  listeners.forEach((tell) => tell());
}

/** Ask whether the server answers again, until it does. */
function probe() {
  clearTimeout(timer);
  timer = setTimeout(() => {
    fetch("/api/health").then(
      () => set(true),
      () => probe(),
    );
  }, 2000);
}

/** Whether the server was reached by the last request. */
export const connection = {
  lost() {
    set(false);
    probe();
  },
  found() {
    set(true);
  },
};

export function useOnline(): boolean {
  return useSyncExternalStore(
    (tell) => {
      listeners.add(tell);
      return () => listeners.delete(tell);
    },
    () => online,
  );
}
