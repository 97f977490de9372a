import { useState } from "react";
import { Link, useParams } from "react-router";
import { ApiError } from "../../../api/client";
import { useArea } from "../../../api/hooks";
import { useSodium } from "../../../api/soil";
import { useAccount, useMay } from "../../../app/session";
import { useSettled } from "../../../app/useSettled";
import { Facts } from "../../../parts/Facts";
import { Hint } from "../../../parts/Field";
import { FaultsContext, faultsOf } from "../../../parts/faults";
import { Fault } from "../../../parts/Notice";
import { Page } from "../../../parts/Page";
import { QuantityField } from "../../../parts/QuantityField";
import { Fields, Section } from "../../../parts/Section";
import { SubRule } from "../../../parts/SubRule";
import { TextField } from "../../../parts/TextField";
import { Waiting } from "../../../parts/Waiting";
import { Working } from "../../../parts/Working";
import { depthUnits } from "../../../parts/units";
import { areaParts } from "../areaParts";
import { WayRule } from "./WayRule";

const asked = {
  sodium: "",
  water_sodium: "",
  water_calcium: "",
  water_magnesium: "",
  exchange: "",
  target: "5",
  density: "1400",
  purity: "92",
  efficiency: "80",
};
type Asked = typeof asked;
const SOIL: [keyof Asked, string, string][] = [
  ["sodium", "Exchangeable sodium, %", "Empty: by the latest sample with sodium and exchange capacity."],
  ["exchange", "Exchange capacity, meq/100 g", "Of the soil’s report (CEC)."],
  ["target", "Down to, %", ""],
  ["density", "Weight of the soil, kg/m³", "A bulk density; 1400 is a loam’s."],
];
const WATER: [keyof Asked, string][] = [
  ["water_sodium", "Sodium, meq/L"],
  ["water_calcium", "Calcium, meq/L"],
  ["water_magnesium", "Magnesium, meq/L"],
];
const GYPSUM: [keyof Asked, string][] = [
  ["purity", "Purity of the gypsum, %"],
  ["efficiency", "Share of it that trades, %"],
];

/** Sodium of an area's soil, and the gypsum that trades it out. */
export function SodiumPage() {
  const id = Number(useParams().id);
  const account = useAccount();
  const may = useMay("manager");
  const area = useArea(id);
  const [ask, setAsk] = useState({
    ...asked,
    depth: { value: "", unit: account.units === "us" ? "in" : "mm" },
  });
  const settled = JSON.parse(useSettled(JSON.stringify(ask), 80)) as typeof ask;
  const found = useSodium(id, { ...settled, depth: settled.depth.value ? settled.depth : null });
  const answer = found.error ? undefined : found.data;
  const untouched = !ask.sodium && !ask.exchange && !ask.water_sodium;
  const field = ([name, label, hint]: [keyof Asked, string, string?]) => (
    <TextField
      key={name}
      label={label}
      name={name}
      value={ask[name]}
      onChange={(value) => setAsk((now) => ({ ...now, [name]: value }))}
      hint={hint}
      input={{ inputMode: "decimal" }}
    />
  );
  return (
    <Waiting of={area}>
      {({ area: a }) => (
        <Page
          sentence={answer?.sentence ?? `Sodium in the soil of ${a.name}.`}
          margin={
            answer && (
              <>
                <Section title="Before it goes down">
                  {answer.notes.map((n) => (
                    <Hint key={n} style={{ marginBottom: 8 }}>
                      {n}
                    </Hint>
                  ))}
                </Section>
                {answer.working.length > 0 && (
                  <Section title="The working">
                    <Working steps={answer.working} />
                  </Section>
                )}
              </>
            )
          }
        >
          <SubRule label="Parts of the area’s page" parts={areaParts(account.slug, a.id, may)} />
          {answer && (
            <WayRule
              label={`${answer.share.toFixed(1)} % exchangeable sodium now, ${answer.target} % aimed at, sodic from ${answer.sodic} %`}
              ticks={[0, 10, 20, 30, 40]}
              band={{ low: 0, high: answer.sodic, text: "not sodic" }}
              now={answer.share}
              aim={answer.times > 0 ? answer.target : null}
              unit=" %"
            />
          )}
          <FaultsContext.Provider value={faultsOf(untouched ? null : found.error)}>
            <Section title="The soil">
              <Fields $columns={4}>
                {SOIL.map(field)}
                <QuantityField
                  label="Depth to change"
                  name="depth"
                  value={ask.depth}
                  units={depthUnits(account.units)}
                  onChange={(depth) => setAsk((now) => ({ ...now, depth }))}
                  hint="Empty: 6 in (15 cm)."
                />
                {GYPSUM.map(field)}
              </Fields>
            </Section>
            <Section title="Or by its water">
              <Fields $columns={4}>{WATER.map(field)}</Fields>
            </Section>
          </FaultsContext.Provider>
          {found.error && !(found.error instanceof ApiError) && <Fault error={found.error} />}
          {untouched && found.error instanceof ApiError && (
            <Hint style={{ marginTop: 14 }}>
              No sample here tells sodium and exchange capacity. Type them from the report, or{" "}
              <Link to={`/a/${account.slug}/ground/${a.id}/soil`}>keep a sample with its figures</Link>.
            </Hint>
          )}
          {answer && answer.times > 0 && (
            <Section title="What goes down">
              <Facts
                of={[
                  ["Gypsum", `${answer.amount}, ${answer.per_area}`],
                  [answer.times > 1 ? `${answer.times} times` : "Once", answer.each],
                  ["Water to dissolve it", `${answer.water} in all, by rain or sprinkler`],
                  ["Sodium known from", answer.from_text],
                ]}
              />
            </Section>
          )}
        </Page>
      )}
    </Waiting>
  );
}
