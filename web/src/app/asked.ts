import { useCallback } from "react";
import { useSearchParams } from "react-router";

/** What the address asks for behind its “?”; nothing, or an empty text, takes a name out. */
export type Change = Record<string, string | undefined>;

/**
 * What the address asks for, and a way to change some of it in place.
 * A change builds on the address itself, not on what is drawn: of two in one moment both are kept.
 */
export function useAsked(): [URLSearchParams, (to: Change) => void] {
  const [asked, set] = useSearchParams();
  const change = useCallback(
    (to: Change) => {
      const next = new URLSearchParams(window.location.search);
      for (const [name, value] of Object.entries(to)) {
        if (value) next.set(name, value);
        else next.delete(name);
      }
      set(next, { replace: true, flushSync: true });
    },
    [set],
  );
  return [asked, change];
}
