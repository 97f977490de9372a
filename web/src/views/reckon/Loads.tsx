import { useState } from "react";
import styled from "styled-components";
import type { Schemas } from "../../api/client";
import { t } from "../../app/theme";
import { Button } from "../../parts/Button";
import { Hint } from "../../parts/Field";
import { Ledger } from "../../parts/Ledger";
import { Notice } from "../../parts/Notice";
import { Section } from "../../parts/Section";
import { Switch } from "../../parts/Switch";
import { Tank } from "../../parts/Tank";
import { Vessel } from "../../parts/Vessel";
import { alike, type Picked } from "./state";

const Drawn = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) 270px;
  gap: 20px;
  align-items: start;
  margin-top: 14px;
  ${t.phone} {
    grid-template-columns: minmax(0, 1fr);
  }
`;
const Poured = styled.li`
  display: grid;
  grid-template-columns: 190px minmax(0, 1fr);
  gap: 16px;
  align-items: center;
  padding: 6px 0;
  & + & {
    border-top: 1px solid ${t.hair};
  }
  ${t.phone} {
    grid-template-columns: 120px minmax(0, 1fr);
  }
  strong {
    display: block;
    font-size: ${t.s24};
    line-height: 1.2;
    margin-bottom: 2px;
  }
  p + p {
    margin-top: 6px;
  }
  .ways {
    color: ${t.soft};
    font-size: ${t.s13};
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
  picked: Picked;
  change: (part: Partial<Picked>) => void;
}

/** How the job divides into loads, and how what goes into the one in hand is measured and filled. */
export function Loads({ job, picked, change }: Props) {
  const [chosen, choose] = useState(1);
  const groups = alike(job.loads);
  const group = groups.find((g) => g.first.number === chosen) ?? groups[0];
  const load = group?.first;
  const only = job.mix.length === 1;
  const bottle = job.vessel === "bottle";
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
              {only && <th className="figure">Product in each</th>}
              {job.spray && <th className="figure">Fill to</th>}
              {job.spray && <th className="figure wide">{bottle ? "becomes" : "of it water"}</th>}
              {bottle && <th className="figure">Lasts</th>}
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
                {only && <td className="figure">{g.first.pours[0]?.amount}</td>}
                {job.spray && <td className="figure">{g.first.volume}</td>}
                {job.spray && <td className="figure wide">{bottle ? g.first.spray : g.first.water}</td>}
                {bottle && <td className="figure">{g.first.time || "not timed"}</td>}
                <td className="figure">{g.first.covers}</td>
              </tr>
            ))}
          </tbody>
        </Ledger>
      )}
      {job.share_out && !picked.even && (
        <Notice tone="caution" word="An odd last one">
          {job.share_out}{" "}
          <Button look="quiet" onPress={() => change({ even: true })}>
            Share it out
          </Button>
        </Notice>
      )}
      {(job.loads.length > 1 || picked.even) && (
        <Switch value={picked.even} onChange={(even) => change({ even })}>
          All loads alike, in place of full ones and an odd last one
        </Switch>
      )}
      {job.spray && job.passes > 1 && (
        <Switch value={picked.by_pass} onChange={(by_pass) => change({ by_pass })}>
          {`Fill for each pass, in place of ${job.vessel}s that run on through the passes`}
        </Switch>
      )}
      <Drawn>
        <div>
          <Hint>
            {load ? `${group && group.count > 1 ? "Each of " : ""}${names(group!)}` : "The whole dose"}
          </Hint>
          <ul>
            {job.mix.map((c, i) => {
              const measure = load ? load.pours[i]?.measure : c.whole;
              const rates = job.parts.map((p) => p.doses[i]?.measured_rate).filter(Boolean);
              return (
                <Pouring
                  key={c.product_id}
                  component={c}
                  measure={measure ?? null}
                  named={!only}
                  rate={new Set(rates).size === 1 ? rates[0]! : ""}
                />
              );
            })}
          </ul>
        </div>
        {load && <Tank load={load} capacity={job.capacity} />}
      </Drawn>
    </Section>
  );
}

interface PouringProps {
  component: Schemas["ComponentOut"];
  measure: Schemas["MeasureOut"] | null;
  named: boolean;
  rate: string;
}

/** How one product of a load is measured: in its vessel, to its mark, with its errors. */
function Pouring({ component, measure, named, rate }: PouringProps) {
  if (!measure)
    return (
      <Poured>
        <span />
        <p>{`${component.product}: to taste.`}</p>
      </Poured>
    );
  return (
    <Poured>
      <Vessel measure={measure} />
      <div>
        {named && <h3>{component.product}</h3>}
        <strong data-answer="measure">{measure.instruction}</strong>
        <p>{`in the ${measure.vessel.name}, exactly ${measure.exact}.`}</p>
        <p>
          {measure.rounding === "0 %" ? "The mark is exact" : `The mark is ${measure.rounding} off`}; reading
          it can be {measure.reading} out.
          {rate && ` Over all loads the rate comes to ${rate}.`}
        </p>
        {measure.note && <p>{measure.note}</p>}
        {component.stock_dilution && <p>{component.stock_dilution}</p>}
        <p className="ways">{`By other measures: ${component.ways.map((w) => w.text).join(", ")}.`}</p>
      </div>
    </Poured>
  );
}
