import { useEffect } from "react";
import { places } from "./places";
import { useSettings } from "./settings";

interface Acts {
  /** Whether a sheet is on its way or open: keys are its own, but for the one that puts it away. */
  busy: boolean;
  go: (to: string) => void;
  reckon: () => void;
  help: () => void;
}

/** The key of a place: 1 to 9, and 0 for the tenth. */
export const placeKey = (i: number) => String((i + 1) % 10);

export const shortcuts: [string, string][] = [
  ...places.map((p, i): [string, string] => [placeKey(i), `Go to ${p.name}`]),
  ["=", "Open the reckon line"],
  ["n", "Begin something new in this place"],
  ["/", "Search the book"],
  ["?", "Help: the manual, the glossary and these keys"],
  ["F1", "In a field: what its name means"],
  ["Esc", "Close what is open"],
  ["← → on a rate rule", "Step the rate; Home and End go to the label's ends"],
];

function typing(target: EventTarget | null): boolean {
  return (
    target instanceof HTMLElement &&
    !!target.closest("input, textarea, select, [contenteditable], [role=listbox]")
  );
}

/** Single keys as shortcuts, never while typing, and only where this device wants them. */
export function useShortcuts({ busy, go, reckon, help }: Acts) {
  const { singleKeys } = useSettings();
  useEffect(() => {
    if (!singleKeys) return;
    const press = (e: KeyboardEvent) => {
      if (e.ctrlKey || e.metaKey || e.altKey || e.defaultPrevented || typing(e.target)) return;
      if ((busy || document.querySelector("[role=dialog]")) && e.key !== "?") return;
      const place = places.find((_, i) => placeKey(i) === e.key);
      const here = places.find((p) => location.pathname.split("/")[3] === p.to);
      if (place) go(place.to);
      else if (e.key === "=") reckon();
      else if (e.key === "?") help();
      else if (e.key === "n") go(here?.begin ?? "reckon");
      else if (e.key === "/") go("book?search");
      else return;
      e.preventDefault();
    };
    window.addEventListener("keydown", press);
    return () => window.removeEventListener("keydown", press);
  }, [busy, go, reckon, help, singleKeys]);
}
