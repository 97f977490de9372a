import { useState } from "react";
import styled from "styled-components";
import type { Schemas } from "../../api/client";
import { t } from "../../app/theme";
import { Hint } from "../../parts/Field";
import { Ledger } from "../../parts/Ledger";
import { Section } from "../../parts/Section";
import { Switch } from "../../parts/Switch";
import { Tank } from "../../parts/Tank";
import { Vessel } from "../../parts/Vessel";
import { alike } from "./state";

const Drawn = styled.div`
  display: grid;
  grid-template-columns: 210px 250px minmax(0, 1fr);
  gap: 20px;
  align-items: center;
  margin-top: 14px;
  ${t.phone} {
    grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  }
`;
const Say = styled.div`
  strong {
    display: block;
    font-size: ${t.s24};
    line-height: 1.2;
    margin-bottom: 2px;
  }
  p + p {
    margin-top: 8px;
  }
  .ways {
    color: ${t.soft};
    font-size: ${t.s13};
  }
  ${t.phone} {
    grid-column: 1 / -1;
  }
`;
const Pick = styled.button`
  background: none;
  border: 0;
  padding: 0;
  min-height: 28px;
  color: ${t.accent};
  text-decoration: underline;
  text-underline-offset: 0.18em;
  cursor: pointer;
  text-align: left;
  &[aria-pressed="true"] {
    color: ${t.ink};
    font-weight: 600;
    text-decoration: none;
  }
  ${t.phone} {
    min-height: 44px;
  }
`;

interface Props {
  job: Schemas["JobOut"];
  even: boolean;
  onEven: (even: boolean) => void;
}

/** How the job divides into loads, and how the one in hand is measured and filled. */
export function Loads({ job, even, onEven }: Props) {
  const [chosen, choose] = useState(1);
  const groups = alike(job.loads);
  const group = groups.find((g) => g.first.number === chosen) ?? groups[0];
  const load = group?.first;
  const measure = load?.measure ?? job.whole;
  const names = (g: (typeof groups)[number]) =>
    g.count > 1
      ? `${g.first.name} to ${g.last.name.charAt(0).toLowerCase()}${g.last.name.slice(1)}`
      : g.first.name;
  return (
    <Section title={load ? "Loads" : "Measuring"}>
      {groups.length > 0 && (
        <Ledger>
          <thead>
            <tr>
              <th>Load</th>
              <th className="figure">Product in each</th>
              {job.spray && <th className="figure">Fill to</th>}
              {job.spray && <th className="figure wide">of it water</th>}
              <th className="figure">Covers</th>
            </tr>
          </thead>
          <tbody>
            {groups.map((g) => (
              <tr key={g.first.number}>
                <td>
                  <Pick aria-pressed={g === group} onClick={() => choose(g.first.number)}>
                    {names(g)}
                  </Pick>{" "}
                  {g.first.odd && job.loads.length > 1 && <span className="soft">not full</span>}
                  {g.first.where && <div className="soft">{g.first.where}</div>}
                </td>
                <td className="figure">{g.first.product}</td>
                {job.spray && <td className="figure">{g.first.volume}</td>}
                {job.spray && <td className="figure wide">{g.first.water}</td>}
                <td className="figure">{g.first.covers}</td>
              </tr>
            ))}
          </tbody>
        </Ledger>
      )}
      {job.loads.length > 1 && (
        <Switch value={even} onChange={onEven}>
          All loads alike, in place of full ones and an odd last one
        </Switch>
      )}
      <Drawn>
        <Vessel measure={measure} />
        {load ? <Tank load={load} capacity={job.capacity} /> : <span />}
        <Say>
          <Hint>
            {load ? `${group && group.count > 1 ? "Each of " : ""}${names(group!)}` : "The whole dose"}
          </Hint>
          <strong data-answer="measure">{measure.instruction}</strong>
          <p>{`in the ${measure.vessel.name}, exactly ${measure.exact}.`}</p>
          <p>
            {measure.rounding === "0 %" ? "The mark is exact" : `The mark is ${measure.rounding} off`};
            reading it can be {measure.reading} out.
            {job.parts.length === 1 && ` Over all loads the rate comes to ${job.parts[0]!.measured_rate}.`}
          </p>
          {measure.note && <p>{measure.note}</p>}
          {job.stock_dilution && <p>{job.stock_dilution}</p>}
          <p className="ways">{`By other measures: ${job.ways.map((w) => w.text).join(", ")}.`}</p>
        </Say>
      </Drawn>
    </Section>
  );
}
