import { useState } from "react";
import { useParams } from "react-router";
import styled from "styled-components";
import { ApiError } from "../../../api/client";
import { useArea, useGroundOptions, usePhPlan } from "../../../api/hooks";
import { useAccount, useMay } from "../../../app/session";
import { t } from "../../../app/theme";
import { useSettled } from "../../../app/useSettled";
import { DateField, todayHere } from "../../../parts/DateField";
import { Hint } from "../../../parts/Field";
import { FaultsContext, faultsOf } from "../../../parts/faults";
import { Fault, Notice } from "../../../parts/Notice";
import { Page } from "../../../parts/Page";
import { PickField } from "../../../parts/PickField";
import { QuantityField } from "../../../parts/QuantityField";
import { Fields, Section } from "../../../parts/Section";
import { SubRule } from "../../../parts/SubRule";
import { Switch } from "../../../parts/Switch";
import { TextField } from "../../../parts/TextField";
import { Waiting } from "../../../parts/Waiting";
import { Working } from "../../../parts/Working";
import { depthUnits } from "../../../parts/units";
import { areaParts } from "../areaParts";
import { IntoProgramme } from "./IntoProgramme";
import { PhRule } from "./PhRule";
import { SampleForm } from "./SampleForm";
import { Samples } from "./Samples";
import { Where } from "./Where";

const Steps = styled.ol`
  display: grid;
  gap: 6px;
  li {
    display: grid;
    grid-template-columns: 110px minmax(0, 1fr) max-content;
    gap: 12px;
    align-items: center;
  }
  i {
    display: block;
    height: 10px;
    background: ${t.grain};
    border: 1px solid ${t.ink};
  }
  small {
    color: ${t.soft};
  }
  .year {
    border-top: 1px solid ${t.hair};
    padding-top: 6px;
  }
`;

/** Soil pH of an area: its readings, and the way to what the grass likes, over years. */
export function SoilPage() {
  const { id } = useParams();
  const account = useAccount();
  const may = useMay("manager");
  const area = useArea(Number(id));
  const options = useGroundOptions();
  const us = account.units === "us";
  const [ask, setAsk] = useState({
    texture: "",
    depth: { value: "", unit: us ? "in" : "mm" },
    purity: "90",
    lime_value: "90",
    free_lime: false,
    target: "",
    start: todayHere(),
  });
  const key = useSettled(JSON.stringify(ask), 80);
  const soil = area.data?.soil ?? [];
  const settled = JSON.parse(key) as typeof ask;
  const body = soil.length
    ? { ...settled, depth: settled.depth.value ? settled.depth : null, target: settled.target || null }
    : null;
  const plan = usePhPlan(Number(id), body);
  const answer = body && !plan.error ? plan.data : undefined;
  const change = (part: Partial<typeof ask>) => setAsk((now) => ({ ...now, ...part }));
  return (
    <Waiting of={area}>
      {({ area: a, ...rest }) => (
        <Page
          sentence={answer?.sentence ?? `Soil pH of ${a.name}.`}
          margin={
            <>
              <Where area={{ area: a, ...rest }} />
              {answer && (
                <>
                  <Section title="What it will not do, and when">
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
              )}
            </>
          }
        >
          <SubRule label="Parts of the area’s page" parts={areaParts(account.slug, a.id, may)} />
          {answer && <PhRule plan={answer} />}
          <FaultsContext.Provider value={faultsOf(body ? plan.error : null)}>
            {soil.length > 0 && (
              <Section title="The plan">
                <Fields $columns={4}>
                  <PickField
                    label="Soil"
                    name="texture"
                    value={ask.texture || a.texture || null}
                    options={options.data?.textures ?? []}
                    onChange={(texture) => change({ texture })}
                  />
                  <TextField
                    label="Target pH"
                    name="target"
                    value={ask.target}
                    onChange={(target) => change({ target })}
                    hint={`Empty: by the house rule. The grass likes ${answer?.low ?? "…"} to ${answer?.high ?? "…"}.`}
                    input={{ inputMode: "decimal" }}
                  />
                  <QuantityField
                    label="Depth to change"
                    name="depth"
                    value={ask.depth}
                    units={depthUnits(account.units)}
                    onChange={(depth) => change({ depth })}
                    hint="Empty: the table's 7 in."
                  />
                  <DateField
                    label="From"
                    name="start"
                    value={ask.start}
                    onChange={(start) => change({ start })}
                  />
                  <TextField
                    label="Sulfur in the product, %"
                    name="purity"
                    value={ask.purity}
                    onChange={(purity) => change({ purity })}
                    input={{ inputMode: "decimal" }}
                  />
                  <TextField
                    label="Lime’s neutralising value, %"
                    name="lime_value"
                    value={ask.lime_value}
                    onChange={(lime_value) => change({ lime_value })}
                    input={{ inputMode: "decimal" }}
                  />
                  <div style={{ paddingTop: 20 }}>
                    <Switch value={ask.free_lime} onChange={(free_lime) => change({ free_lime })}>
                      The soil fizzes with acid
                    </Switch>
                  </div>
                </Fields>
                {plan.error && !(plan.error instanceof ApiError) && <Fault error={plan.error} />}
                {plan.error instanceof ApiError &&
                  plan.error.fields
                    .filter((f) => f.field === "readings")
                    .map((f) => (
                      <Notice key={f.field} tone="stop" word="No plan">
                        {f.problem} {f.remedy}
                      </Notice>
                    ))}
                {answer && answer.steps.length > 0 && (
                  <>
                    <Hint style={{ margin: "14px 0 8px" }}>
                      {`${answer.need} of ${answer.material} in all; at most ${answer.once} at once and ${answer.a_year} a year.`}
                    </Hint>
                    <Steps>
                      {answer.steps.map((s, i) => (
                        <li key={s.on} className={s.year !== answer.steps[i - 1]?.year ? "year" : undefined}>
                          <span>{s.day}</span>
                          <i
                            style={{
                              width: `${(100 * s.share) / Math.max(...answer.steps.map((x) => x.share))}%`,
                            }}
                          />
                          <span>
                            {s.amount} <small>{s.per_area}</small>
                          </span>
                        </li>
                      ))}
                    </Steps>
                    {may && body && <IntoProgramme area={a.id} plan={body} />}
                  </>
                )}
              </Section>
            )}
          </FaultsContext.Provider>
          <Section title="Samples">
            {soil.length === 0 && (
              <Hint style={{ marginBottom: 12 }}>
                No sample yet. Take three or more, at the same depth, from the same spots each time.
              </Hint>
            )}
            {soil.length > 0 && <Samples area={a.id} soil={soil} may={may} />}
          </Section>
          {may && (
            <Section title={soil.length ? "Another sample" : "The first sample"}>
              <SampleForm area={{ area: a, ...rest }} />
            </Section>
          )}
        </Page>
      )}
    </Waiting>
  );
}
