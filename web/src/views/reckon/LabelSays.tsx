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

/** The label's rules for this product, in sentences. */
export function LabelSays({ job }: { job: Pick<Schemas["JobOut"], "label_rules"> }) {
  if (!job.label_rules.length) return null;
  return (
    <Section title="The label also says">
      <List>
        {job.label_rules.map((r) => (
          <li key={`${r.key} ${r.text}`}>{r.text}</li>
        ))}
      </List>
    </Section>
  );
}
