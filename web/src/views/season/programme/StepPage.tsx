import { useParams } from "react-router";
import { useAreas, useGroundOptions } from "../../../api/hooks";
import {
  useProgramme,
  usePutStepAway,
  usePutStepBack,
  useSaveStep,
  type Programme,
  type Step,
} from "../../../api/programme";
import { useAsked } from "../../../app/asked";
import { useDraft } from "../../../app/draft";
import { useAccount } from "../../../app/session";
import { CardForm } from "../../../parts/CardForm";
import { Empty } from "../../../parts/Empty";
import { ManyField } from "../../../parts/ManyField";
import { Page } from "../../../parts/Page";
import { PickField } from "../../../parts/PickField";
import { QuantityField } from "../../../parts/QuantityField";
import { Fields, Section } from "../../../parts/Section";
import { SubRule } from "../../../parts/SubRule";
import { TextField } from "../../../parts/TextField";
import { Waiting } from "../../../parts/Waiting";
import { depthUnits } from "../../../parts/units";
import { seasonParts } from "../seasonParts";
import { StepProducts } from "./StepProducts";
import { stepIn, typed } from "./stepForm";
import { WhenFields } from "./WhenFields";
import { areaGroups, areaOptions } from "../../reckon/state";

const ALL = "all";
const FIELDS = [
  "name",
  "when",
  "products",
  "area_ids",
  "site_id",
  "use",
  "grass",
  "anchor",
  "event_id",
  "after_id",
  "water",
  "why",
];

/** A step of the programme: a new one, or one that is changed. */
export function StepPage() {
  const id = Number(useParams().id);
  const [asked] = useAsked();
  const programme = useProgramme(Number(asked.get("year")) || undefined);
  return (
    <Waiting of={programme}>
      {(data) => {
        const step = data.steps.find((s) => s.id === id);
        return id && !step ? (
          <Page sentence="There is no such step here.">
            <Empty>It was put away, or is of another year.</Empty>
          </Page>
        ) : (
          <StepForm key={id || "new"} programme={data} step={step} />
        );
      }}
    </Waiting>
  );
}

function StepForm({ programme, step }: { programme: Programme; step?: Step }) {
  const account = useAccount();
  const us = account.units === "us";
  const areas = useAreas().data?.areas ?? [];
  const options = useGroundOptions().data;
  const draft = useDraft(`${account.slug}/step/${step?.id ?? "new"}`, typed(step, programme.year, us));
  const { value: v, change } = draft;
  const all = { key: ALL, text: "All" };
  const pick = (name: "site" | "use" | "grass") => (key: string) =>
    change({ [name]: key === ALL ? "" : key });
  const save = useSaveStep(step);
  const faults = save.error;
  return (
    <Page
      sentence={
        step
          ? `${step.name}: ${step.when_text.toLowerCase()}.`
          : "A step: what goes down, when, where, and why."
      }
    >
      <SubRule label="Parts of the season" parts={seasonParts(account)} />
      <CardForm
        what="step"
        place={`season/programme?year=${v.begin.slice(0, 4) || programme.year}`}
        card={step}
        add="Add the step"
        added="stands in the programme"
        body={() => stepIn(v)}
        save={save}
        remove={usePutStepAway()}
        putBack={usePutStepBack()}
        draft={draft}
        placed={placedOf(faults)}
      >
        <Section title="What">
          <Fields $columns={2}>
            <TextField
              label="Name"
              name="name"
              value={v.name}
              onChange={(name) => change({ name })}
              hint="What is done: Spring feed"
            />
            <TextField label="Why" name="why" value={v.why} onChange={(why) => change({ why })} />
          </Fields>
          <div style={{ marginTop: 16 }}>
            <StepProducts of={v.products} onChange={(products) => change({ products })} />
          </div>
        </Section>
        <Section title="When">
          <WhenFields value={v} change={change} programme={programme} step={step} />
        </Section>
        <Section title="Where">
          <Fields $columns={4}>
            <ManyField
              label="Areas"
              name="area_ids"
              values={v.areas}
              options={areaOptions(areas)}
              groups={areaGroups(areas)}
              onChange={(next) => change({ areas: next })}
              none="All of the kind beside it"
            />
            {v.areas.length === 0 && (
              <>
                {account.sites.length > 1 && (
                  <PickField
                    label="Site"
                    name="site_id"
                    value={v.site || ALL}
                    options={[all, ...account.sites.map((s) => ({ key: `${s.id}`, text: s.name }))]}
                    onChange={pick("site")}
                  />
                )}
                <PickField
                  label="Use"
                  name="use"
                  value={v.use || ALL}
                  options={[all, ...(options?.uses ?? []).filter((x) => x.key)]}
                  onChange={pick("use")}
                />
                <PickField
                  label="Grass"
                  name="grass"
                  value={v.grass || ALL}
                  options={[all, ...(options?.grasses ?? []).map((g) => ({ key: g.key, text: g.name }))]}
                  onChange={pick("grass")}
                />
              </>
            )}
            <QuantityField
              label="Water in with"
              name="water"
              value={v.water}
              units={depthUnits(account.units)}
              onChange={(water) => change({ water })}
              hint="Empty: as the label says"
            />
          </Fields>
        </Section>
      </CardForm>
    </Page>
  );
}

/** The fields that tell their own faults: all of a step's, its parts by their full names. */
function placedOf(error: Error | null): string[] {
  const fields = error && "fields" in error ? (error.fields as { field: string }[]) : [];
  return fields
    .map((f) => f.field)
    .filter((f) => FIELDS.includes(f.split(".")[0]!) && f !== "after_id" && f !== "event_id");
}
