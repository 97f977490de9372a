import { useSyncExternalStore } from "react";

const PHONE = "(max-width: 720px)";
const watch = (changed: () => void) => {
  const media = window.matchMedia(PHONE);
  media.addEventListener("change", changed);
  return () => media.removeEventListener("change", changed);
};

/** Whether the window is a phone's: for drawings that place things by its width. */
export function useNarrow(): boolean {
  return useSyncExternalStore(watch, () => window.matchMedia(PHONE).matches);
}
