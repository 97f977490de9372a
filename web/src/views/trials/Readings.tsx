import styled from "styled-components";
import type { Schemas } from "../../api/client";
import type { Trial } from "../../api/trials";
import { t } from "../../app/theme";
import { Facts } from "../../parts/Facts";
import { Ledger } from "../../parts/Ledger";
import { Section } from "../../parts/Section";
import { letters } from "./TrialMap";

type Difference = Schemas["DifferenceOut"];
const WIDTH = 260;
const ROW = 26;

const Drawn = styled.svg`
  display: block;
  width: 100%;
  max-width: 420px;
  margin: 10px 0 4px;
  .zero {
    stroke: ${t.rule};
    stroke-dasharray: 3 3;
  }
  .span {
    stroke: ${t.ink};
    stroke-width: 1.5;
  }
  circle {
    fill: ${t.sheet};
    stroke: ${t.ink};
    stroke-width: 1.5;
  }
  circle[data-shown] {
    fill: ${t.accent};
    stroke: ${t.accent};
  }
  text {
    font: 500 11px ${t.text};
    fill: ${t.ink};
  }
`;
const Texts = styled.ul`
  display: grid;
  gap: 4px;
  margin-bottom: 10px;
`;

/** Differences to the untreated, each with its interval around it; filled where one is shown. */
function Intervals({ of }: { of: Difference[] }) {
  const known = of.filter((d) => d.low !== null && d.high !== null);
  if (!known.length) return null;
  const ends = [0, ...known.flatMap((d) => [d.low!, d.high!])];
  const [least, most] = [Math.min(...ends), Math.max(...ends)];
  const x = (v: number) => 24 + ((v - least) / (most - least || 1)) * (WIDTH - 40);
  const high = known.length * ROW + 18;
  return (
    <Drawn viewBox={`0 0 ${WIDTH} ${high}`} role="img" aria-label={known.map((d) => d.text).join(" ")}>
      <line className="zero" x1={x(0)} x2={x(0)} y1={4} y2={high - 14} />
      <text x={x(0)} y={high - 2} textAnchor="middle">
        as untreated
      </text>
      {known.map((d, i) => (
        <g key={d.treatment} transform={`translate(0 ${i * ROW + 14})`}>
          <text x={4} y={4}>
            {letters[d.treatment]}
          </text>
          <line className="span" x1={x(d.low!)} x2={x(d.high!)} y1={0} y2={0} />
          <circle cx={x(d.mean)} cy={0} r={5} data-shown={d.shown || undefined} />
        </g>
      ))}
    </Drawn>
  );
}

/** What was scored, the latest day whole, those of before as a table. */
export function Readings({ trial }: { trial: Trial }) {
  const latest = trial.readings[trial.readings.length - 1];
  if (!latest) return null;
  return (
    <>
      <Section title={latest.day}>
        <p>{latest.text}</p>
        <Intervals of={latest.differences} />
        <Texts>
          {latest.differences.map((d) => (
            <li key={d.treatment}>{d.text}</li>
          ))}
        </Texts>
        <Facts
          of={[...latest.facts.map((x): [string, string] => [x.name, x.text]), ["Scored by", latest.by]]}
        />
      </Section>
      <Section title="Day by day">
        <Ledger>
          <caption>{`Means by treatment: ${trial.scored.toLowerCase()}, ${trial.per}.`}</caption>
          <thead>
            <tr>
              <th>Day</th>
              {trial.treatments.map((x, i) => (
                <th key={x.id} className="figure" title={x.name}>
                  {letters[i] === "–" ? "Untreated" : letters[i]}
                </th>
              ))}
              <th className="wide">What it shows</th>
            </tr>
          </thead>
          <tbody>
            {trial.readings.map((r) => (
              <tr key={r.on}>
                <td className="day">{r.day}</td>
                {r.marks.map((m, i) => (
                  <td key={i} className="figure">
                    {m || "–"}
                    {r.differences.some((d) => d.treatment === i && d.shown) ? " *" : ""}
                  </td>
                ))}
                <td className="wide">{r.text}</td>
              </tr>
            ))}
          </tbody>
        </Ledger>
        <p style={{ marginTop: 8 }}>
          <small>* a difference to the untreated is shown</small>
        </p>
      </Section>
    </>
  );
}
