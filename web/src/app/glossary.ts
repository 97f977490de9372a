import { useSyncExternalStore } from "react";

export interface Entry {
  term: string;
  also: string[];
  text: string;
}

let entries: Entry[] = [];
let asked = false;
const heard = new Set<() => void>();

function ask() {
  if (asked) return;
  asked = true;
  void import("../../../docs/manual/glossary.md").then((found: { default: Entry[] }) => {
    entries = found.default;
    heard.forEach((tell) => tell());
  });
}

function listen(tell: () => void) {
  heard.add(tell);
  ask();
  return () => heard.delete(tell);
}

/** The glossary, once it has come: it is not part of what a page waits for. */
export const useGlossary = (): Entry[] => useSyncExternalStore(listen, () => entries);

const plain = (text: string) => text.toLowerCase().trim();

/** The entry of a word, by its term or another word for it. */
export function entryOf(of: Entry[], word: string): Entry | undefined {
  const sought = plain(word);
  return of.find((e) => plain(e.term) === sought || e.also.some((a) => plain(a) === sought));
}
