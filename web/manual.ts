import MarkdownIt from "markdown-it";
import type { Plugin } from "vite";

/** What is read in a chapter of the manual: its title, and its sections with their words for the search. */
interface Section {
  id: string;
  title: string;
  html: string;
  text: string;
}

const markdown = new MarkdownIt();
const slug = (title: string) =>
  title
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, "-")
    .replace(/^-|-$/g, "");
const plain = (text: string) =>
  text
    .replace(/!\[[^\]]*\]\([^)]*\)/g, "")
    .replace(/[*`_]/g, "")
    .replace(/\s+/g, " ")
    .trim();

function chapter(source: string): { title: string; sections: Section[] } {
  const [head = "", ...parts] = source.split(/^## /m);
  const [, title = "", lead = ""] = /^# (.*)\n([\s\S]*)$/.exec(head) ?? [];
  const sections = parts.map((part) => {
    const [name = "", ...lines] = part.split("\n");
    const body = lines.join("\n");
    return { id: slug(name), title: name, html: markdown.render(body), text: plain(body) };
  });
  const first = { id: "", title: "", html: markdown.render(lead), text: "" };
  return { title, sections: lead.trim() ? [first, ...sections] : sections };
}

function glossary(source: string) {
  return [...source.matchAll(/^- \*\*(.+?)\*\*(?: \((.+?)\))?: (.+)$/gm)].map(([, term, also, text]) => ({
    term,
    also: also?.split("; ") ?? [],
    text: text![0]!.toUpperCase() + text!.slice(1),
  }));
}

/** Chapters of docs/manual become modules: read and set at build, so that the browser only shows them. Pictures come with them. */
export function manual(): Plugin {
  return {
    name: "manual",
    enforce: "pre",
    transform(source, id) {
      if (!id.endsWith(".md")) return null;
      if (id.endsWith("glossary.md")) return `export default ${JSON.stringify(glossary(source))};`;
      const found = chapter(source);
      const pictures: string[] = [];
      for (const section of found.sections)
        section.html = section.html.replace(/<img src="([^"]+)"/g, (_, name: string) => {
          if (!pictures.includes(name)) pictures.push(name);
          return `<img loading="lazy" src="{{${pictures.indexOf(name)}}}"`;
        });
      const imports = pictures.map((name, i) => `import p${i} from "../screenshots/${name}?url";`).join("\n");
      const list = pictures.map((_, i) => `p${i}`).join(", ");
      return `${imports}
const pictures = [${list}];
const found = ${JSON.stringify(found)};
for (const s of found.sections) s.html = s.html.replace(/\\{\\{(\\d+)\\}\\}/g, (_, i) => pictures[i]);
export default found;`;
    },
  };
}
