export interface Said {
  text: string;
  undo?: () => void;
}

type Hear = (said: Said) => void;

const before: Said[] = [];
const heard = new Set<() => void>();
let hear: Hear | null = null;

/** Say that something was done; with `undo`, offer the way back for ten seconds. */
export function say(text: string, undo?: () => void) {
  if (hear) hear({ text, undo });
  else {
    before.push({ text, undo });
    heard.forEach((tell) => tell());
  }
}

/** What shows words takes over here, with those that were said before it had come. */
export function showBy(show: Hear) {
  hear = show;
  before.splice(0).forEach(show);
}

export const hearSaid = (tell: () => void) => {
  heard.add(tell);
  return () => heard.delete(tell);
};

/** Whether anything was ever said: what shows it is fetched with the first word. */
export const anythingSaid = () => hear !== null || before.length > 0;
