import type { Schemas } from "../../api/client";
import { Budget } from "../../parts/Budget";
import { Hint } from "../../parts/Field";
import { Section } from "../../parts/Section";

/** What the doses do to the season's totals, area by area, product by product. */
export function Season({ job }: { job: Schemas["JobOut"] }) {
  const told = job.parts.flatMap((p) =>
    p.doses.flatMap((d) => (d && (d.budget.length || d.times || d.again) ? [{ part: p, dose: d }] : [])),
  );
  if (!told.length) return null;
  const name = (part: string, product: string) =>
    [job.mix.length > 1 && product, job.parts.length > 1 && part].filter(Boolean).join(" on ");
  return (
    <Section title="This season">
      {told.map(({ part, dose }) => (
        <div key={`${part.name} ${dose.product}`} style={{ marginBottom: 18 }}>
          {name(part.name, dose.product) && (
            <h3 style={{ marginBottom: 8 }}>{name(part.name, dose.product)}</h3>
          )}
          <Budget lines={dose.budget} />
          {(dose.times || dose.again) && (
            <Hint style={{ marginTop: 10 }}>{[dose.times, dose.again].filter(Boolean).join(" ")}</Hint>
          )}
        </div>
      ))}
    </Section>
  );
}
