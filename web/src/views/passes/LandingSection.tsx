import { useState } from "react";
import type { Schemas } from "../../api/client";
import { useProducts } from "../../api/hooks";
import { useLanding } from "../../api/passes";
import { useAccount } from "../../app/session";
import { useSettled } from "../../app/useSettled";
import { Button } from "../../parts/Button";
import { Facts } from "../../parts/Facts";
import { Hint } from "../../parts/Field";
import { FaultsContext, faultsOf } from "../../parts/faults";
import { LandingBars, LandingMap } from "../../parts/LandingMap";
import { Fault } from "../../parts/Notice";
import { PickField } from "../../parts/PickField";
import { QuantityField } from "../../parts/QuantityField";
import { Bar, Fields, Section } from "../../parts/Section";
import { TextField } from "../../parts/TextField";
import { lengthUnits } from "../../parts/units";
import { asWalked, type Typed } from "./state";

const hands = [
  { key: "steady", text: "Like a machine", note: "No wander: the pattern alone" },
  { key: "by_eye", text: "By eye", note: "The line and the pace wander a little" },
  { key: "tired", text: "Tired", note: "More wander, the gate opens late" },
  { key: "slow_ends", text: "Slow at the ends", note: "Slower along the boundary, so more falls there" },
];

interface Props {
  plan: Schemas["PassesOut"];
  asked: Schemas["PlanIn"];
  typed: Typed;
  change: (part: Partial<Typed>) => void;
}

/** What each piece of ground gets when the plan is walked so. */
export function LandingSection({ plan, asked, typed, change }: Props) {
  const account = useAccount();
  const us = account.units === "us";
  const products = useProducts().data ?? [];
  const [more, setMore] = useState(false);
  const key = useSettled(JSON.stringify({ plan: asked, walked: typed.walked }), 150);
  const body = JSON.parse(key) as Schemas["LandIn"];
  const found = useLanding(body);
  const landed = found.error ? undefined : found.data;
  const product = products.find((p) => p.id === typed.product);
  const row = product?.rates.find((r) => r.id === typed.row);
  const set = (part: Partial<Typed["walked"]>) => change({ walked: { ...typed.walked, ...part } });
  return (
    <Section title="What lands where">
      <FaultsContext.Provider value={faultsOf(found.error)}>
        <Fields $columns={4}>
          <PickField
            label="It is walked"
            name="hand"
            value={
              hands.find((h) => JSON.stringify(asWalked(us, h.key)) === JSON.stringify(typed.walked))?.key ??
              null
            }
            placeholder="In its own way"
            options={hands}
            onChange={(how) => change({ walked: asWalked(us, how) })}
          />
          <PickField
            label="Product, for grams"
            name="product"
            value={typed.product === null ? "" : `${typed.product}`}
            options={[
              { key: "", text: "None in mind" },
              ...products.map((p) => ({ key: `${p.id}`, text: p.name })),
            ]}
            onChange={(id) => {
              const picked = products.find((p) => `${p.id}` === id);
              const first = picked?.rates[0];
              change({
                product: picked?.id ?? null,
                row: first?.id ?? null,
                rate: { value: first?.rule.high ? `${first.rule.high}` : "", unit: first?.high.unit ?? "" },
              });
            }}
          />
          {product && row && (
            <TextField
              label={`Rate in all, ${row.rule.symbol}`}
              name="rate"
              value={typed.rate.value}
              onChange={(value) => change({ rate: { ...typed.rate, value } })}
              hint={`The label: ${row.rule.low} to ${row.rule.high}`}
              input={{ inputMode: "decimal" }}
            />
          )}
        </Fields>
        {more && (
          <Fields $columns={4} style={{ marginTop: 12 }}>
            <QuantityField
              label="The line wanders by"
              name="line"
              value={typed.walked.line}
              units={lengthUnits(account.units)}
              onChange={(line) => set({ line })}
            />
            <TextField
              label="The pace wanders by, %"
              name="pace"
              value={typed.walked.pace}
              onChange={(pace) => set({ pace })}
              input={{ inputMode: "decimal" }}
            />
            <QuantityField
              label="The gate is late by"
              name="late"
              value={typed.walked.late}
              units={lengthUnits(account.units)}
              onChange={(late) => set({ late })}
            />
            <QuantityField
              label="Slow over the last"
              name="slow_over"
              value={typed.walked.slow_over}
              units={lengthUnits(account.units)}
              onChange={(slow_over) => set({ slow_over })}
            />
            <TextField
              label="There at this % of the pace"
              name="slow"
              value={typed.walked.slow}
              onChange={(slow) => set({ slow })}
              input={{ inputMode: "decimal" }}
            />
          </Fields>
        )}
        <Bar style={{ marginTop: 4, marginBottom: 12 }}>
          <Button look="quiet" onPress={() => setMore(!more)}>
            {more ? "Fewer choices" : "Wander, gate and slow ends in figures"}
          </Button>
        </Bar>
        <Fault error={found.error} besides={["line", "pace", "late", "slow_over", "slow"]} />
        {landed ? (
          <>
            <p data-answer="landed" style={{ marginBottom: 10 }}>
              {landed.sentence}
            </p>
            <LandingMap landed={landed} plan={plan} us={us} />
            <LandingBars landed={landed} />
            <Facts of={landed.facts.map((f) => [f.name, f.text])} />
            {landed.notes.map((n) => (
              <Hint key={n} style={{ marginTop: 6 }}>
                {n}
              </Hint>
            ))}
          </>
        ) : (
          !found.error && <Hint>Laying it out …</Hint>
        )}
      </FaultsContext.Provider>
    </Section>
  );
}
