import { useEffect } from "react";
import { useLocation } from "react-router";
import { places } from "./places";

/** What the window is called: the place, and what stands at the head of the page there. */
export function useTitle(sentence: string) {
  const { pathname } = useLocation();
  const part = pathname.split("/")[3];
  const place = part === "account" ? "Account" : places.find((p) => p.to === part)?.name;
  useEffect(() => {
    const here = [place, sentence].filter(Boolean).join(": ");
    document.title = here ? `${here} · Green Measure` : "Green Measure";
  }, [place, sentence]);
}
