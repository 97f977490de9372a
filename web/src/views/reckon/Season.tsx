import type { Schemas } from "../../api/client";
import { Budget } from "../../parts/Budget";
import { Hint } from "../../parts/Field";
import { Section } from "../../parts/Section";

/** What the dose does to the season's totals, area by area. */
export function Season({ job }: { job: Schemas["JobOut"] }) {
  const parts = job.parts.filter((p) => p.budget.length || p.times || p.again);
  if (!parts.length) return null;
  return (
    <Section title="This season">
      {parts.map((p) => (
        <div key={`${p.area_id} ${p.name}`} style={{ marginBottom: 18 }}>
          {job.parts.length > 1 && <h3 style={{ marginBottom: 8 }}>{p.name}</h3>}
          <Budget lines={p.budget} />
          {(p.times || p.again) && (
            <Hint style={{ marginTop: 10 }}>{[p.times, p.again].filter(Boolean).join(" ")}</Hint>
          )}
        </div>
      ))}
    </Section>
  );
}
