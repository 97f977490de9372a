import styled from "styled-components";
import type { Schemas } from "../../api/client";
import { t } from "../../app/theme";
import { Section } from "../../parts/Section";

const List = styled.ul`
  display: grid;
  gap: 4px;
  li {
    padding-left: 14px;
    text-indent: -14px;
  }
  li::before {
    content: "–";
    display: inline-block;
    width: 14px;
    text-indent: 0;
    color: ${t.soft};
  }
`;
const Whose = styled.h3`
  font-size: ${t.s15};
  margin: 12px 0 4px;
`;

/** The labels' rules in sentences: of a mix what holds for all of it first, then each product's own. */
export function LabelSays({ job }: { job: Pick<Schemas["JobOut"], "label_rules"> }) {
  if (!job.label_rules.length) return null;
  const names = [...new Set(job.label_rules.map((r) => r.product ?? ""))];
  const mixed = names.some(Boolean);
  return (
    <Section title={mixed ? "The labels also say" : "The label also says"}>
      {names.map((name) => (
        <div key={name}>
          {mixed && <Whose>{name || "For the whole mix"}</Whose>}
          <List>
            {job.label_rules
              .filter((r) => (r.product ?? "") === name)
              .map((r) => (
                <li key={`${r.key} ${r.text}`}>{r.text}</li>
              ))}
          </List>
        </div>
      ))}
    </Section>
  );
}
