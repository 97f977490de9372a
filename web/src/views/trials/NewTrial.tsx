import { useMemo, useState } from "react";
import { useNavigate, useSearchParams } from "react-router";
import { ApiError, type Schemas } from "../../api/client";
import { useAreas, useMachines, useProducts } from "../../api/hooks";
import { useLooks } from "../../api/scouting";
import { useBeginTrial, useLayout } from "../../api/trials";
import { useDraft } from "../../app/draft";
import { useAccount } from "../../app/session";
import { say } from "../../app/toast";
import { useSettled } from "../../app/useSettled";
import { Button } from "../../parts/Button";
import { DateField, todayHere } from "../../parts/DateField";
import { Facts } from "../../parts/Facts";
import { Hint } from "../../parts/Field";
import { Findings } from "../../parts/Findings";
import { Form } from "../../parts/Form";
import { Line } from "../../parts/Line";
import { Fault, Notice } from "../../parts/Notice";
import { Page } from "../../parts/Page";
import { PickField } from "../../parts/PickField";
import { QuantityField } from "../../parts/QuantityField";
import { Bar, Fields, Section, Stack } from "../../parts/Section";
import { TextField } from "../../parts/TextField";
import { lengthUnits } from "../../parts/units";
import { TrialMap } from "./TrialMap";

interface Tried {
  name: string;
  product: string;
  told: string;
}
const nothing: Tried = { name: "", product: "", told: "" };
const NONE = "none";
const ACROSS = "across";
const MOST = 5;
const FIELDS = [
  "area_id",
  "name",
  "treatments",
  "machine_id",
  "least",
  "blocks",
  "turn",
  "kind",
  "what",
  "days",
  "scatter",
  "began_on",
];
const drawn = () => 1 + Math.floor(Math.random() * 2 ** 30);

/** Begin a trial: what is tried on which ground, how it is cut, what is scored when; the map changes as one types. */
export function NewTrial() {
  const account = useAccount();
  const us = account.units === "us";
  const navigate = useNavigate();
  const [search] = useSearchParams();
  const areas = useAreas().data?.areas ?? [];
  const products = useProducts().data ?? [];
  const machines = useMachines().data ?? [];
  const looks = useLooks().data?.looks ?? [];
  const [seed, setSeed] = useState(drawn);
  const draft = useDraft(`${account.slug}/trial`, {
    area: "",
    name: "",
    tried: [nothing],
    machine: "",
    least: { value: "", unit: us ? "ft" : "m" },
    blocks: "",
    turn: "",
    kind: "quality",
    what: "",
    scatter: "",
    days: "0, 7, 14, 28",
    began_on: todayHere(),
    note: "",
  });
  const v = draft.value;
  const area = search.get("area") && !draft.touched ? search.get("area")! : v.area;
  const look = looks.find((x) => x.key === v.kind);
  const body: Schemas["LayoutIn"] | null = area
    ? {
        area_id: Number(area),
        treatments: v.tried.map((x) => ({
          name: x.name,
          product_id: x.product && x.product !== NONE ? Number(x.product) : null,
          told: x.told,
        })),
        machine_id: v.machine && v.machine !== NONE ? Number(v.machine) : null,
        least: v.least.value ? v.least : null,
        blocks: v.blocks,
        turn: v.turn,
        kind: v.kind,
        what: v.what,
        scatter: v.scatter,
        seed,
      }
    : null;
  const ready = body && (!look?.targets.length || v.what) ? body : null;
  const key = useSettled(JSON.stringify(ready), 120);
  const asked = useMemo(() => JSON.parse(key) as typeof ready, [key]);
  const layout = useLayout(asked);
  const lies = asked && !layout.error ? layout.data : undefined;
  const begin = useBeginTrial();
  const set = (i: number, part: Partial<Tried>) =>
    draft.change((now) => ({ area, tried: now.tried.map((x, j) => (j === i ? { ...x, ...part } : x)) }));
  const submit = () => {
    if (!body) return;
    begin.mutate(
      { ...body, name: v.name, began_on: v.began_on || null, days: v.days, note: v.note },
      {
        onSuccess: (made) => {
          draft.clear();
          say(`${made.name} has begun: its plots are parts of ${made.area} now.`);
          void navigate(`/a/${account.slug}/book/trials/${made.id}`);
        },
      },
    );
  };
  const sentence = lies?.sentence ?? "A trial: some plots with it, some without, drawn by lot.";
  return (
    <Page
      steady
      sentence={sentence}
      margin={
        lies && (
          <>
            <Section title="What it could show">
              <p>{lies.shows}</p>
            </Section>
            <Section title="Ground of each">
              <Facts of={lies.facts.map((x) => [x.name, x.text])} />
            </Section>
            {lies.findings.length > 0 && (
              <Section title="Take care">
                <Findings of={lies.findings} />
              </Section>
            )}
          </>
        )
      }
    >
      <Form label="A trial" error={begin.error} live={layout.error} onSubmit={submit}>
        <Section title="What is tried">
          <Fields $columns={2}>
            <TextField
              label="Name"
              name="name"
              value={v.name}
              onChange={(name) => draft.change({ area, name })}
              hint="The question it is to answer"
            />
            <PickField
              label="On"
              name="area_id"
              value={area || null}
              options={areas.map((a) => ({ key: `${a.id}`, text: a.name, note: a.size.text }))}
              onChange={(next) => draft.change({ area: next })}
              placeholder="Pick the ground"
            />
          </Fields>
          <Stack $gap={12} style={{ marginTop: 16 }}>
            <Hint>Some plots stay untreated by themselves: without them nothing can be told.</Hint>
            {v.tried.map((row, i) => (
              <Line key={i} $columns="minmax(0, 1fr) minmax(0, 1fr) minmax(0, 1.4fr)">
                <PickField
                  label={v.tried.length > 1 ? `Product ${i + 1}` : "Product"}
                  name={`treatments.${i}.product_id`}
                  value={row.product || null}
                  options={[
                    { key: NONE, text: "None of the shelf" },
                    ...products.map((p) => ({ key: `${p.id}`, text: p.name, note: p.kind_text })),
                  ]}
                  onChange={(product) =>
                    set(i, {
                      product,
                      name: row.name || (products.find((p) => `${p.id}` === product)?.name ?? ""),
                    })
                  }
                />
                <TextField
                  label={v.tried.length > 1 ? `Called ${i + 1}` : "Called"}
                  name={`treatments.${i}.name`}
                  value={row.name}
                  onChange={(name) => set(i, { name })}
                />
                <TextField
                  label={v.tried.length > 1 ? `How it is put down ${i + 1}` : "How it is put down"}
                  name={`treatments.${i}.told`}
                  value={row.told}
                  onChange={(told) => set(i, { told })}
                  hint="Rate, and how often"
                />
                <Button
                  isDisabled={v.tried.length === 1}
                  aria-label={`Remove ${row.name || `treatment ${i + 1}`}`}
                  onPress={() =>
                    draft.change((now) => ({ area, tried: now.tried.filter((_, j) => j !== i) }))
                  }
                >
                  Remove
                </Button>
              </Line>
            ))}
            {v.tried.length < MOST && (
              <div>
                <Button onPress={() => draft.change((now) => ({ area, tried: [...now.tried, nothing] }))}>
                  Try another beside it
                </Button>
              </div>
            )}
          </Stack>
        </Section>
        <Section title="How it is cut">
          <Fields $columns={4}>
            <PickField
              label="Put down with"
              name="machine_id"
              value={v.machine || NONE}
              options={[
                { key: NONE, text: "None" },
                ...machines.map((m) => ({ key: `${m.id}`, text: m.name })),
              ]}
              onChange={(machine) => draft.change({ area, machine })}
              hint="No strip is narrower than its swath"
            />
            <QuantityField
              label="No strip below"
              name="least"
              value={v.least}
              units={lengthUnits(account.units)}
              onChange={(least) => draft.change({ area, least })}
            />
            <TextField
              label="Times each"
              name="blocks"
              value={v.blocks}
              onChange={(blocks) => draft.change({ area, blocks })}
              input={{ inputMode: "numeric" }}
              hint={lies ? `Empty: as many as fit (${lies.most}). 1 makes halves.` : "Empty: as many as fit"}
            />
            <PickField
              label="Strips lie"
              name="turn"
              value={v.turn || NONE}
              options={[
                { key: NONE, text: "Across its length" },
                { key: ACROSS, text: "Along its length" },
              ]}
              onChange={(turn) => draft.change({ area, turn: turn === NONE ? "" : turn })}
            />
          </Fields>
          {layout.error && asked && !(layout.error instanceof ApiError && layout.error.fields.length) && (
            <Fault error={layout.error} />
          )}
          {lies && (
            <div style={{ marginTop: 18 }}>
              <TrialMap
                plan={lies.plan}
                plots={lies.plots}
                us={us}
                label={lies.sentence}
                names={lies.names}
              />
              <Button look="quiet" onPress={() => setSeed(drawn())}>
                Draw lots again
              </Button>
            </div>
          )}
        </Section>
        <Section title="How it is read">
          <Fields $columns={4}>
            <PickField
              label="Scored"
              name="kind"
              value={v.kind}
              options={looks
                .filter((x) => x.scale || x.share)
                .map((x) => ({
                  key: x.key,
                  text: x.name,
                  note: x.scale ? x.scale.name : "share of the plot",
                }))}
              onChange={(kind) => draft.change({ area, kind, what: "" })}
            />
            {look && look.targets.length > 0 && (
              <PickField
                label="Which"
                name="what"
                value={v.what || null}
                options={look.targets.map((x) => ({ key: x.key, text: x.text }))}
                onChange={(what) => draft.change({ area, what })}
              />
            )}
            <TextField
              label="On days"
              name="days"
              value={v.days}
              onChange={(days) => draft.change({ area, days })}
              hint="After it begins. Day 0 is before anything goes down."
            />
            <DateField
              label="Begins"
              name="began_on"
              value={v.began_on}
              onChange={(began_on) => draft.change({ area, began_on })}
            />
            <TextField
              label="Plots alike are scored apart by"
              name="scatter"
              value={v.scatter}
              onChange={(scatter) => draft.change({ area, scatter })}
              input={{ inputMode: "decimal" }}
              hint="Empty: half a mark"
            />
          </Fields>
          <div style={{ marginTop: 16 }}>
            <TextField
              label="Note"
              name="note"
              value={v.note}
              onChange={(note) => draft.change({ area, note })}
            />
          </div>
        </Section>
        <Notice tone="caution" word="The label first">
          An untreated part may lose turf, and a rate is tried within the label. Mark corners before you put
          anything down, and keep drift off the next plot.
        </Notice>
        <Fault error={begin.error} besides={FIELDS} />
        <Bar>
          <Button type="submit" look="main" isDisabled={!body || begin.isPending}>
            Begin the trial
          </Button>
        </Bar>
      </Form>
    </Page>
  );
}
