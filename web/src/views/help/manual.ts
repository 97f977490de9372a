import { holds } from "../../parts/searching";
import type { Chapter } from "./chapter";

const files = import.meta.glob<Chapter>("../../../../docs/manual/[0-9]*.md", {
  eager: true,
  import: "default",
});

/** The chapters of the manual, in the order of work, by their keys in the address. */
export const chapters = Object.entries(files)
  .sort(([a], [b]) => a.localeCompare(b))
  .map(([path, chapter]) => ({ key: /\d+-(.+)\.md$/.exec(path)![1]!, ...chapter }));

export interface Hit {
  title: string;
  text: string;
  to: string;
}

const words = (text: string) =>
  text
    .toLowerCase()
    .split(/\s+/)
    .filter((w) => w.length > 1);

/** The text around the first of some words. */
function around(text: string, sought: string[]): string {
  const at = Math.min(...sought.map((w) => text.toLowerCase().indexOf(w)).filter((i) => i >= 0), text.length);
  const from = at > 60 ? text.lastIndexOf(" ", at - 40) + 1 : 0;
  const cut = text.slice(from, from + 160).replace(from + 160 < text.length ? /\s\S*$/ : /$/, "");
  return `${from ? "… " : ""}${cut}${from + 160 < text.length ? " …" : ""}`;
}

/** The sections in which all the words stand, those with one in their title first. */
export function search(typed: string): Hit[] {
  const sought = words(typed);
  if (!sought.length) return [];
  return chapters
    .flatMap((c) =>
      c.sections
        .filter((s) => s.title)
        .map((s) => {
          const title = `${c.title}: ${s.title}`;
          const named = sought.filter((w) => title.toLowerCase().includes(w)).length;
          const met = holds([title, s.text], sought.join(" "));
          return { title, text: around(s.text, sought), to: `${c.key}#${s.id}`, weight: met ? 1 + named : 0 };
        }),
    )
    .filter((h) => h.weight)
    .sort((a, b) => b.weight - a.weight);
}
