import styled from "styled-components";
import type { ExamRow } from "../../../api/plans";
import { t } from "../../../app/theme";
import { Hint } from "../../../parts/Field";
import { Ledger } from "../../../parts/Ledger";
import { Section } from "../../../parts/Section";

const Range = styled.span`
  position: relative;
  display: block;
  min-width: 90px;
  height: 10px;
  margin-top: 3px;
  background: ${t.hair};
  i {
    position: absolute;
    top: 2px;
    height: 6px;
    background: ${t.caution};
  }
  b {
    position: absolute;
    top: 0;
    width: 2px;
    height: 10px;
    background: ${t.ink};
  }
`;

/** How the schools would have fared over ten made-up years: the middle year, and from the least to the most. */
export function Exam({ rows }: { rows: ExamRow[] }) {
  const most = Math.max(1, ...rows.map((r) => r.high));
  const at = (days: number) => `${(days / most) * 100}%`;
  return (
    <Section title="In ten made-up years">
      <Ledger>
        <thead>
          <tr>
            <th>Plan</th>
            <th className="figure">Times</th>
            <th className="figure wide">Cost</th>
            <th className="figure">Bare risk days</th>
          </tr>
        </thead>
        <tbody>
          {rows.map((r) => (
            <tr key={r.key} data-exam={r.key}>
              <td>{r.name}</td>
              <td className="figure">{r.applications}</td>
              <td className="figure wide">{r.cost}</td>
              <td className="figure">
                {r.bare}
                <Range aria-hidden>
                  <i style={{ left: at(r.low), width: at(r.high - r.low) }} />
                  <b style={{ left: at(r.middle) }} />
                </Range>
              </td>
            </tr>
          ))}
        </tbody>
      </Ledger>
      <Hint style={{ marginTop: 8 }}>
        The middle year, and the least and the most. The years are made up, the same for everybody: they show
        how schools fare in wet and dry years, not what your ground will get.
      </Hint>
    </Section>
  );
}
