import type { Schemas } from "../api/client";
import { Facts } from "./Facts";
import { Hint } from "./Field";
import { Section } from "./Section";
import { Working } from "./Working";

interface Props {
  title: string;
  facts?: Schemas["FactOut"][];
  notes?: string[];
  working?: Schemas["StepOut"][];
}

/** What stands beside an answer: what it rests on, what should be known about it, and the sum. */
export function MarginNotes({ title, facts = [], notes = [], working = [] }: Props) {
  return (
    <>
      <Section title={title}>
        <Facts of={facts.map((f) => [f.name, f.text])} />
        {notes.map((n) => (
          <Hint key={n} style={{ marginTop: 8 }}>
            {n}
          </Hint>
        ))}
      </Section>
      {working.length > 0 && (
        <Section title="The working">
          <Working steps={working} />
        </Section>
      )}
    </>
  );
}
