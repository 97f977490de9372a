import { useState } from "react";
import styled from "styled-components";
import type { MadePlan, PlannedOuting } from "../../../api/plans";
import { t } from "../../../app/theme";
import { Button } from "../../../parts/Button";
import { Facts } from "../../../parts/Facts";
import { Findings } from "../../../parts/Findings";
import { Hint } from "../../../parts/Field";
import { Ledger } from "../../../parts/Ledger";
import { shortDay } from "../../../parts/days";

const Root = styled.div`
  position: relative;
  height: 62px;
  margin: 18px 12px 10px;
  border-bottom: 1px solid ${t.rule};
`;
const Stem = styled.button`
  position: absolute;
  bottom: 0;
  width: 24px;
  height: 100%;
  margin-left: -12px;
  padding: 0;
  border: 0;
  background: transparent;
  cursor: pointer;
  i {
    position: absolute;
    bottom: 0;
    left: 9px;
    width: 6px;
    background: ${t.accent};
  }
  &[aria-pressed="true"] {
    background: ${t.wash};
  }
`;
const Ends = styled.div`
  display: flex;
  justify-content: space-between;
  margin-bottom: 10px;
  font-size: ${t.s13};
  color: ${t.soft};
`;
const Choice = styled.section`
  padding: 10px 0;
  & + & {
    border-top: 1px solid ${t.hair};
  }
  h4 {
    margin-bottom: 2px;
    font-size: ${t.s15};
  }
  ul {
    margin: 6px 0;
    font-size: ${t.s13};
    color: ${t.soft};
  }
`;

const keyOf = (o: PlannedOuting) => `${o.on} ${o.machine}`;

/** A plan's outings over its time, as stems as tall as what goes down, and as a list; one of them opened with its reasons. */
export function Outings({ plan }: { plan: MadePlan }) {
  const [open, setOpen] = useState<string | null>(null);
  const most = Math.max(1, ...plan.outings.map((o) => o.choices.length));
  const turn = (key: string) => setOpen(open === key ? null : key);
  if (!plan.outings.length) return null;
  return (
    <>
      <Root role="group" aria-label="Outings over the time that is planned">
        {plan.outings.map((o) => (
          <Stem
            key={keyOf(o)}
            type="button"
            style={{ left: `${o.position * 100}%` }}
            aria-pressed={open === keyOf(o)}
            aria-label={`${o.day}, ${o.machine || "by hand"}: ${o.choices.length} applications`}
            onClick={() => turn(keyOf(o))}
          >
            <i style={{ height: `${(o.choices.length / most) * 100}%` }} />
          </Stem>
        ))}
      </Root>
      <Ends aria-hidden>
        <span>{shortDay(plan.first)}</span>
        <span>{shortDay(plan.last)}</span>
      </Ends>
      <Ledger>
        <thead>
          <tr>
            <th>Outing</th>
            <th>What goes down</th>
            <th aria-label="Reasons" />
          </tr>
        </thead>
        <tbody>
          {plan.outings.map((o) => (
            <Row key={keyOf(o)} of={o} open={open === keyOf(o)} onTurn={() => turn(keyOf(o))} />
          ))}
        </tbody>
      </Ledger>
    </>
  );
}

function Row({ of: o, open, onTurn }: { of: PlannedOuting; open: boolean; onTurn: () => void }) {
  const products = new Map<string, string[]>();
  for (const c of o.choices) products.set(c.product, [...(products.get(c.product) ?? []), c.area]);
  return (
    <>
      <tr data-outing={o.on}>
        <td style={{ whiteSpace: "nowrap" }}>
          {o.day}
          <Hint>{o.machine || "By hand"}</Hint>
          <Hint>{o.text}</Hint>
        </td>
        <td>
          {[...products].map(([product, areas]) => (
            <div key={product}>
              {product}
              <Hint>{areas.join(", ")}</Hint>
            </div>
          ))}
        </td>
        <td className="figure">
          <Button
            look="quiet"
            aria-expanded={open}
            aria-label={`Why on ${o.day}, ${o.machine || "by hand"}?`}
            onPress={onTurn}
          >
            Why?
          </Button>
        </td>
      </tr>
      {open && (
        <tr>
          <td colSpan={3}>
            {o.choices.map((c) => (
              <Choice key={`${c.area_id} ${c.product_id}`} aria-label={`${c.product} on ${c.area}`}>
                <h4>{`${c.product} on ${c.area}`}</h4>
                <Facts
                  of={[
                    ["How much", `${c.amount}, at ${c.rate}; ${c.cost}`],
                    ["Why", c.why],
                  ]}
                />
                {c.others.length > 0 && (
                  <ul aria-label="What else could have been">
                    {c.others.map((other) => (
                      <li key={other.name}>{`${other.name}: ${other.text}`}</li>
                    ))}
                  </ul>
                )}
                {c.warns.length > 0 && <Findings of={c.warns} />}
              </Choice>
            ))}
          </td>
        </tr>
      )}
    </>
  );
}
