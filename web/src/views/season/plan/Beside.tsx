import styled from "styled-components";
import type { MadePlan } from "../../../api/plans";
import { t } from "../../../app/theme";
import { Hint } from "../../../parts/Field";
import { Ledger } from "../../../parts/Ledger";
import { Section } from "../../../parts/Section";

const Bare = styled.span`
  display: block;
  height: 5px;
  margin-top: 3px;
  background: ${t.hair};
  i {
    display: block;
    height: 100%;
    background: ${t.caution};
  }
`;

/** The plan beside other ways to go about the year, under the same rules. */
export function Beside({ rivals }: { rivals: MadePlan["rivals"] }) {
  return (
    <Section title="Beside other plans">
      <Ledger>
        <thead>
          <tr>
            <th>Plan</th>
            <th className="figure">Times</th>
            <th className="figure wide">Outings</th>
            <th className="figure">Cost</th>
            <th className="figure wide">What acts</th>
            <th className="figure">Bare risk days</th>
          </tr>
        </thead>
        <tbody>
          {rivals.map((r) => (
            <tr key={r.key} data-rival={r.key}>
              <td>
                {r.key === "plan" ? <strong>{r.name}</strong> : r.name}
                <Hint>{r.told}</Hint>
              </td>
              <td className="figure">{r.applications}</td>
              <td className="figure wide">{r.outings}</td>
              <td className="figure">{r.cost}</td>
              <td className="figure wide">{r.product}</td>
              <td className="figure">
                {r.bare}
                <Bare aria-hidden>
                  <i style={{ width: `${Math.min(1, r.bare_share) * 100}%` }} />
                </Bare>
              </td>
            </tr>
          ))}
        </tbody>
      </Ledger>
      <Hint style={{ marginTop: 8 }}>
        By what the years before lead to expect. Cost is product and work, without going out.
      </Hint>
    </Section>
  );
}
