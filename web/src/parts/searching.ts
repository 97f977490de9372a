/** Whether every word that is searched for stands somewhere in the texts of a thing. */
export function holds(texts: (string | undefined)[], words: string): boolean {
  const text = texts.join(" ").toLowerCase();
  return words
    .toLowerCase()
    .split(/\s+/)
    .every((w) => text.includes(w));
}
