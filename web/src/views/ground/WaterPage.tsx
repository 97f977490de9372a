import { useState } from "react";
import { useParams } from "react-router";
import styled from "styled-components";
import type { Schemas } from "../../api/client";
import { useAudit, useUseAudit, useKeepAudit, useWater } from "../../api/passes";
import { useDraft } from "../../app/draft";
import { useAccount, useMay } from "../../app/session";
import { say } from "../../app/toast";
import { t } from "../../app/theme";
import { useSettled } from "../../app/useSettled";
import { Button } from "../../parts/Button";
import { CanMap } from "../../parts/CanMap";
import { DateField, todayHere } from "../../parts/DateField";
import { Hint } from "../../parts/Field";
import { FaultsContext, faultsOf } from "../../parts/faults";
import { Form } from "../../parts/Form";
import { Ledger } from "../../parts/Ledger";
import { Fault, Notice } from "../../parts/Notice";
import { MarginNotes } from "../../parts/MarginNotes";
import { Page } from "../../parts/Page";
import { PickField } from "../../parts/PickField";
import { QuantityField, type TypedQuantity } from "../../parts/QuantityField";
import { Bar, Fields, Section } from "../../parts/Section";
import { SubRule } from "../../parts/SubRule";
import { Switch } from "../../parts/Switch";
import { Tasks } from "../../parts/Tasks";
import { TextField } from "../../parts/TextField";
import { Waiting } from "../../parts/Waiting";
import { depthUnits, lengthUnits, windUnits } from "../../parts/units";
import { areaParts } from "./areaParts";
import { dated } from "../../parts/days";

const Big = styled.p`
  font-size: ${t.s34};
  font-weight: 600;
  line-height: 1.2;
  small {
    font-size: ${t.s15};
    font-weight: 400;
    color: ${t.soft};
  }
`;

/** The water of an area: a catch-can audit, minutes for a depth, and the dry spots to see to. */
export function WaterPage() {
  const { id } = useParams();
  const us = useAccount().units === "us";
  const [wanted, setWanted] = useState({ value: us ? "0.25" : "6", unit: us ? "in" : "mm" });
  const settled = JSON.parse(useSettled(JSON.stringify(wanted), 100)) as typeof wanted;
  const water = useWater(Number(id), settled);
  return (
    <FaultsContext.Provider value={faultsOf(water.error)}>
      <Waiting of={water}>
        {(found) => <Water id={Number(id)} water={found} wanted={wanted} onWanted={setWanted} />}
      </Waiting>
    </FaultsContext.Provider>
  );
}

function blank(us: boolean) {
  return {
    cans: "",
    unit: us ? "in" : "mm",
    mouth: { value: "", unit: us ? "in" : "cm" },
    minutes: "",
    heads: "rotor" as "rotor" | "spray",
    wind: { value: "", unit: us ? "mph" : "mps" },
    place_unit: us ? "ft" : "m",
    taken_on: todayHere(),
    note: "",
    tasks: true,
  };
}
type Typed = ReturnType<typeof blank>;

/** Cans as typed, one a line: what it caught, then where it stood across and up the plan. */
function readCans(text: string) {
  return text
    .split("\n")
    .map((line) => line.trim())
    .filter(Boolean)
    .map((line) => {
      const [caught = "", x = "", y = ""] = line.split(/[\s,;]+/);
      return { caught, x, y };
    });
}

interface Props {
  id: number;
  water: Schemas["WaterOut"];
  wanted: TypedQuantity;
  onWanted: (wanted: TypedQuantity) => void;
}

function Water({ id, water, wanted, onWanted }: Props) {
  const account = useAccount();
  const us = account.units === "us";
  const may = useMay("manager");
  const mayKeep = useMay("applicator");
  const draft = useDraft<Typed>(`${account.slug}/water/${id}`, blank(us));
  const { value: v, change } = draft;
  const [auditing, setAuditing] = useState(!water.current);
  const typed = auditing && !!v.cans.trim() && !!v.minutes.trim();
  const body = typed ? toBody(v, wanted) : null;
  const asked = JSON.parse(useSettled(JSON.stringify(body), 100)) as typeof body;
  const found = useAudit(id, asked);
  const live = body && asked && !found.error ? found.data : undefined;
  const answer = auditing ? live : (water.current ?? undefined);
  const keep = useKeepAudit(id);
  const error = typed ? found.error : null;
  const faults = faultsOf(error).fields;
  return (
    <Page
      sentence={answer?.sentence ?? `How much water does ${water.area} get, and how evenly?`}
      act={
        mayKeep &&
        !auditing && (
          <Button look="main" onPress={() => setAuditing(true)}>
            Audit it again
          </Button>
        )
      }
      margin={
        answer && (
          <MarginNotes
            title="What it says"
            facts={[
              { name: "Rate", text: answer.rate },
              { name: "Low quarter", text: `${answer.low_quarter} of the mean` },
              { name: "Christiansen", text: answer.christiansen },
              { name: "Its soil", text: water.soil },
              { name: "By", text: auditing ? "" : water.of },
            ]}
            notes={answer.notes}
            working={answer.working}
          />
        )
      }
    >
      <SubRule label="Parts of the area’s page" parts={areaParts(account.slug, id, may)} />
      {auditing && (
        <Form
          label="Audit"
          error={keep.error}
          live={error}
          onSubmit={() =>
            keep.mutate(
              { ...toBody(v, wanted), taken_on: v.taken_on, note: v.note, tasks: v.tasks },
              {
                onSuccess: () => {
                  draft.clear(blank(us));
                  setAuditing(false);
                  say("The audit is kept and in use.");
                },
              },
            )
          }
        >
          <Hint style={{ marginBottom: 12 }}>
            Set out cans evenly over the zone, 16 or more, all of one kind. Run the zone for a set time in a
            calm, and read them at once.
          </Hint>
          <Fields $columns={2}>
            <TextField
              label="Cans, one a line"
              name="cans"
              lines
              value={v.cans}
              onChange={(text) => change({ cans: text })}
              hint={`What it caught, then if you like how far across and up the plan it stood, in ${v.place_unit}: 0.22 15 30`}
            />
            <Fields $columns={2}>
              <PickField
                label="Read in"
                name="unit"
                value={v.unit}
                options={[...depthUnits(account.units), { key: "ml", text: "mL, by the can’s mouth" }]}
                onChange={(unit) => change({ unit })}
              />
              <TextField
                label="Ran for, min"
                name="minutes"
                value={v.minutes}
                onChange={(minutes) => change({ minutes })}
                input={{ inputMode: "decimal" }}
              />
              {v.unit === "ml" && (
                <QuantityField
                  label="Across the mouth"
                  name="mouth"
                  value={v.mouth}
                  units={lengthUnits(account.units)}
                  onChange={(mouth) => change({ mouth })}
                />
              )}
              <PickField
                label="Heads"
                name="heads"
                value={v.heads}
                options={[
                  { key: "rotor", text: "Rotors" },
                  { key: "spray", text: "Sprays" },
                ]}
                onChange={(heads) => change({ heads: heads as Typed["heads"] })}
              />
              <QuantityField
                label="Wind"
                name="wind"
                value={v.wind}
                units={windUnits(account.units)}
                onChange={(wind) => change({ wind })}
              />
              <DateField
                label="Run on"
                name="taken_on"
                value={v.taken_on}
                onChange={(taken_on) => change({ taken_on })}
              />
              <TextField label="Note" name="note" value={v.note} onChange={(note) => change({ note })} />
            </Fields>
          </Fields>
          <Switch value={v.tasks} onChange={(tasks) => change({ tasks })}>
            Make a task of each dry spot
          </Switch>
          <Fault error={keep.error} besides={["cans", "minutes", "mouth", "unit", "wind", "taken_on"]} />
          <Bar style={{ marginBottom: 20 }}>
            <Button look="main" type="submit" isDisabled={!typed || !answer || keep.isPending}>
              Keep the audit
            </Button>
            {water.current && <Button onPress={() => setAuditing(false)}>Leave it</Button>}
          </Bar>
        </Form>
      )}
      {faults
        .filter((f) => /^cans\.\d/.test(f.field))
        .map((f) => (
          <Notice key={f.field} tone="stop" word={`Can ${Number(f.field.split(".")[1]) + 1}`}>
            {f.problem} {f.remedy}
          </Notice>
        ))}
      {error && faults.length === 0 && <Fault error={error} />}
      {answer && (
        <>
          <CanMap audit={answer} plan={water.plan} us={us} />
          <Section title="How long to run it">
            <Fields $columns={3}>
              <QuantityField
                label="Water wanted"
                name="wanted"
                value={wanted}
                units={depthUnits(account.units)}
                onChange={onWanted}
              />
            </Fields>
            {answer.run && (
              <div style={{ marginTop: 12 }}>
                <Big data-answer="run">
                  {answer.run.advised}{" "}
                  <small>{`for ${answer.run.depth}; by the mean ${answer.run.by_mean}, until the driest quarter has it ${answer.run.by_quarter}`}</small>
                </Big>
                <p>{answer.run.soak}</p>
              </div>
            )}
          </Section>
        </>
      )}
      {water.tasks.length > 0 && (
        <Section title="To see to">
          <Tasks tasks={water.tasks} />
        </Section>
      )}
      <Audits id={id} water={water} />
    </Page>
  );
}

function toBody(v: Typed, wanted: TypedQuantity): Schemas["AuditAskIn"] {
  return {
    cans: readCans(v.cans),
    unit: v.unit,
    mouth: v.mouth.value.trim() ? v.mouth : null,
    minutes: v.minutes,
    heads: v.heads,
    wind: v.wind.value.trim() ? v.wind : null,
    place_unit: v.place_unit,
    wanted: wanted.value.trim() ? wanted : null,
  };
}

function Audits({ id, water }: { id: number; water: Schemas["WaterOut"] }) {
  const mayKeep = useMay("applicator");
  const use = useUseAudit(id);
  const turn = (a: Schemas["AuditKeptOut"]) => {
    const act = a.in_use ? "leave" : "use";
    use.mutate(
      { id: a.id, act },
      {
        onSuccess: () =>
          say(a.in_use ? "The audit is not used; the list keeps it." : "The audit is used again.", () =>
            use.mutate({ id: a.id, act: a.in_use ? "use" : "leave" }),
          ),
      },
    );
  };
  if (!water.audits.length) return null;
  return (
    <Section title="Audits">
      <Fault error={use.error} />
      <Ledger>
        <thead>
          <tr>
            <th>Day</th>
            <th className="figure">Rate</th>
            <th className="figure wide">Low quarter</th>
            <th className="figure wide">Cans</th>
            <th className="wide">Note</th>
            {mayKeep && <th aria-label="Use it" />}
          </tr>
        </thead>
        <tbody>
          {water.audits.map((a) => (
            <tr key={a.id}>
              <td className="day">
                {dated(a.taken_on)}
                {a.in_force && <strong>, in use</strong>}
                {!a.in_use && <span className="soft">, not used</span>}
                <div className="soft">{a.by}</div>
              </td>
              <td className="figure">{a.rate}</td>
              <td className="figure wide">{a.low_quarter}</td>
              <td className="figure wide">{`${a.cans} in ${a.minutes}`}</td>
              <td className="wide soft">{a.note}</td>
              {mayKeep && (
                <td className="figure">
                  <Button
                    look="quiet"
                    aria-label={`${a.in_use ? "Do not use" : "Use it"}: the audit of ${dated(a.taken_on)}`}
                    onPress={() => turn(a)}
                  >
                    {a.in_use ? "Do not use" : "Use it"}
                  </Button>
                </td>
              )}
            </tr>
          ))}
        </tbody>
      </Ledger>
    </Section>
  );
}
