import styled from "styled-components";
import { ApiError, type Schemas } from "../../api/client";
import { useMeasured } from "../../api/hooks";
import { useAccount } from "../../app/session";
import { t } from "../../app/theme";
import { useSettled } from "../../app/useSettled";
import { AreaPlan } from "../../parts/AreaPlan";
import { Button } from "../../parts/Button";
import { Hint } from "../../parts/Field";
import { FaultsContext, faultsOf } from "../../parts/faults";
import { Line } from "../../parts/Line";
import { Notice } from "../../parts/Notice";
import { PickField } from "../../parts/PickField";
import { Fields, Section, Stack } from "../../parts/Section";
import { TextField } from "../../parts/TextField";
import { lengthUnits } from "../../parts/units";
import { Working } from "../../parts/Working";
import { blankPart, toMeasure, type Sketch } from "./sketch";

const Split = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 5fr) minmax(0, 6fr);
  gap: 28px;
  align-items: start;
  ${t.phone} {
    grid-template-columns: minmax(0, 1fr);
  }
`;
const Size = styled.p`
  font-size: ${t.s34};
  font-weight: 600;
  line-height: 1.15;
  small {
    font-size: ${t.s15};
    font-weight: 400;
    color: ${t.soft};
  }
`;

interface Props {
  sketch: Sketch;
  onChange: (part: Partial<Sketch>) => void;
  methods: Schemas["MethodOut"][];
  /** The area whose size in use it is compared with. */
  areaId?: number;
}

/** Measure ground by tape, offsets, radii or positions: the plan and the size change as one types. */
export function MeasureBench({ sketch, onChange, methods, areaId }: Props) {
  const account = useAccount();
  const method = methods.find((m) => m.key === sketch.method);
  const body = useSettled(JSON.stringify(toMeasure(sketch)), 80);
  const asked = JSON.parse(body) as Schemas["MeasureIn"] | null;
  const found = useMeasured(asked, areaId);
  const set = (key: string, value: string) => onChange({ values: { ...sketch.values, [key]: value } });
  const setSeries = (key: string, value: string) => onChange({ series: { ...sketch.series, [key]: value } });
  const faults = faultsOf(asked ? found.error : null).fields.map((f) => ({
    ...f,
    field: f.field.replace(/^measure\.(series\.)?/, "").replace(/\.\d+$/, ""),
  }));
  const general = faults.filter((f) => ["size", "ring", "unit", "method", "parts"].includes(f.field));
  const answer = asked && !found.error ? found.data : undefined;
  return (
    <FaultsContext.Provider value={{ fields: faults, live: true }}>
      <Split>
        <Stack $gap={14}>
          <Fields>
            <PickField
              label="How it is measured"
              name="method"
              value={sketch.method || null}
              options={methods.map((m) => ({ key: m.key, text: m.name, note: m.about }))}
              onChange={(key) => onChange({ method: key, values: {}, series: {}, rule: "" })}
            />
            {method && method.key !== "ring" && (
              <PickField
                label="Taped in"
                name="unit"
                value={sketch.unit}
                options={lengthUnits(account.units)}
                onChange={(unit) => onChange({ unit })}
              />
            )}
          </Fields>
          {method && <Hint>{method.about}</Hint>}
          {method?.key === "composed" && <PartRows sketch={sketch} onChange={onChange} methods={methods} />}
          {method && method.key !== "composed" && (
            <Fields>
              {method.fields.map((f) => (
                <TextField
                  key={f.key}
                  label={f.text}
                  name={method.series.length ? f.key : `values.${f.key}`}
                  value={sketch.values[f.key] ?? ""}
                  onChange={(v) => set(f.key, v)}
                  input={{ inputMode: "decimal" }}
                />
              ))}
            </Fields>
          )}
          {method?.series.map((f) => (
            <TextField
              key={f.key}
              label={f.text}
              name={f.key}
              lines
              value={sketch.series[f.key] ?? ""}
              onChange={(v) => setSeries(f.key, v)}
              hint="One after the other, with spaces or on lines."
            />
          ))}
          {method?.key === "ring" && (
            <TextField
              label="Positions, in the order one walks"
              name="ring"
              lines
              value={sketch.ring}
              onChange={(ring) => onChange({ ring })}
              hint="One a line: latitude, longitude. 41.20518, -71.60321 or 41°12'18.6&quot;N 71°36'11.6&quot;W."
            />
          )}
          {method && method.rules.length > 0 && (
            <PickField
              label="Worked by"
              name="rule"
              value={sketch.rule || method.rules[0]!.key}
              options={method.rules}
              onChange={(rule) => onChange({ rule })}
            />
          )}
          {general.map((f) => (
            <Notice key={f.field} tone="stop" word="Cannot be measured">
              {f.problem} {f.remedy}
            </Notice>
          ))}
          {asked && found.error && !(found.error instanceof ApiError) && (
            <Notice tone="stop">{found.error.message}</Notice>
          )}
        </Stack>
        <div>
          {answer ? (
            <>
              <Size data-answer="size">
                {answer.size.text} <small>that is {answer.also}</small>
              </Size>
              {answer.versus && (
                <Notice
                  tone={
                    answer.agreement === "agree" ? "note" : answer.agreement === "mind" ? "caution" : "stop"
                  }
                  word="Beside the size in use"
                >
                  {answer.versus}
                </Notice>
              )}
              <AreaPlan plan={answer.plan} us={account.units === "us"} label={`Plan, ${answer.size.text}`} />
              {answer.notes.map((n) => (
                <Hint key={n}>{n}</Hint>
              ))}
              <Section title="The working">
                <Working steps={answer.working} />
              </Section>
            </>
          ) : (
            <Hint>The plan is drawn here, to scale, as the figures are typed.</Hint>
          )}
        </div>
      </Split>
    </FaultsContext.Provider>
  );
}

function PartRows({ sketch, onChange, methods }: Pick<Props, "sketch" | "onChange" | "methods">) {
  const shapes = methods.filter((m) => m.fields.length && !m.series.length);
  const set = (i: number, part: Partial<Sketch["parts"][number]>) =>
    onChange({ parts: sketch.parts.map((p, j) => (j === i ? { ...p, ...part } : p)) });
  return (
    <Stack $gap={16}>
      {sketch.parts.map((part, i) => (
        <div key={i}>
          <Line $columns="minmax(0, 2fr) minmax(0, 3fr)">
            <PickField
              label="Sign"
              name={`parts.${i}.sign`}
              value={`${part.sign}`}
              options={[
                { key: "1", text: "Adds" },
                { key: "-1", text: "Is cut out" },
              ]}
              onChange={(sign) => set(i, { sign: Number(sign) })}
            />
            <PickField
              label="Shape"
              name={`parts.${i}.shape`}
              value={part.shape}
              options={shapes.map((s) => ({ key: s.key, text: s.name }))}
              onChange={(shape) => set(i, { shape, values: {} })}
            />
            {sketch.parts.length > 1 ? (
              <Button
                onPress={() => onChange({ parts: sketch.parts.filter((_, j) => j !== i) })}
                aria-label={`Remove part ${i + 1}`}
              >
                Remove
              </Button>
            ) : (
              <span />
            )}
          </Line>
          <Fields $columns={3} style={{ marginTop: 8 }}>
            {shapes
              .find((s) => s.key === part.shape)
              ?.fields.map((f) => (
                <TextField
                  key={f.key}
                  label={f.text}
                  name={`parts.${i}.${f.key}`}
                  value={part.values[f.key] ?? ""}
                  onChange={(v) => set(i, { values: { ...part.values, [f.key]: v } })}
                  input={{ inputMode: "decimal" }}
                />
              ))}
          </Fields>
        </div>
      ))}
      <div>
        <Button onPress={() => onChange({ parts: [...sketch.parts, blankPart] })}>Another shape</Button>
      </div>
    </Stack>
  );
}
