import type { Schemas } from "../../api/client";
import { Ledger } from "../../parts/Ledger";
import { Section } from "../../parts/Section";

/** What the dose brings of each active and nutrient. */
export function Delivered({ job }: { job: Schemas["JobOut"] }) {
  if (!job.delivered.length) return null;
  return (
    <Section title="What it brings">
      <Ledger>
        <thead>
          <tr>
            <th>Active or nutrient</th>
            <th className="figure">Per area</th>
            <th className="figure">In all</th>
          </tr>
        </thead>
        <tbody>
          {job.delivered.map((d) => (
            <tr key={d.name}>
              <td>{d.name}</td>
              <td className="figure">{d.per_foot}</td>
              <td className="figure">{d.total}</td>
            </tr>
          ))}
        </tbody>
      </Ledger>
    </Section>
  );
}
