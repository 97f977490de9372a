import { useState } from "react";
import styled from "styled-components";
import type { Schemas } from "../../api/client";
import {
  useAddRhythm,
  useAddScouting,
  useRemoveRhythm,
  useRemoveScouting,
  useSaveWatch,
  useStrip,
  useWatches,
} from "../../api/sky";
import { useClub, useMay } from "../../app/session";
import { t } from "../../app/theme";
import { say } from "../../app/toast";
import { Button } from "../../parts/Button";
import { dayOf } from "../../parts/days";
import { DateField, todayHere } from "../../parts/DateField";
import { Empty } from "../../parts/Empty";
import { Hint } from "../../parts/Field";
import { Form } from "../../parts/Form";
import { Ledger } from "../../parts/Ledger";
import { ManyField } from "../../parts/ManyField";
import { Fault } from "../../parts/Notice";
import { Page } from "../../parts/Page";
import { PickField } from "../../parts/PickField";
import { Bar, Fields, Section } from "../../parts/Section";
import { SubRule } from "../../parts/SubRule";
import { Switch } from "../../parts/Switch";
import { TextField } from "../../parts/TextField";
import { Waiting } from "../../parts/Waiting";
import { useAreaPick } from "./AreaPick";
import { skyParts } from "./skyParts";

type Watch = Schemas["WatchOut"];
type Level = Watch["bears"];

const Pick = styled.div`
  max-width: 320px;
  margin-bottom: 18px;
`;
const Open = styled.div`
  padding: 12px 0 18px;
  border-bottom: 1px solid ${t.hair};
`;

/** How an area is watched, what scouts found on it, and what comes back on it every week. */
export function WatchPage() {
  const club = useClub();
  const { area, field, empty } = useAreaPick();
  const watches = useWatches(area?.id ?? null);
  return (
    <Page
      sentence={
        watches.data
          ? `${watches.data.area} is watched for ${count(watches.data.watches)}; its grass is ${watches.data.grass.toLowerCase()}.`
          : "How is each area watched?"
      }
    >
      <SubRule label="Parts of the sky" parts={skyParts(club.slug)} />
      {empty ? <Empty>An area comes first; then it can be watched.</Empty> : <Pick>{field}</Pick>}
      {area && (
        <Waiting of={watches}>
          {(data) => (
            <>
              <Scouts area={area.id} watches={data.watches} />
              <Watches key={data.area_id} all={data} />
              <Rhythms all={data} />
            </>
          )}
        </Waiting>
      )}
    </Page>
  );
}

function count(watches: Watch[]) {
  const on = watches.filter((w) => w.on).length;
  return on === 1 ? "one disease" : `${on || "no"} diseases`;
}

// --- scouts --------------------------------------------------------------------------------------------------

function Scouts({ area, watches }: { area: number; watches: Watch[] }) {
  const strip = useStrip(area, 17);
  const may = useMay("applicator");
  const add = useAddScouting();
  const remove = useRemoveScouting();
  const blank = {
    disease: watches.find((w) => w.on)?.disease ?? "",
    seen: "yes",
    severity: "",
    on: todayHere(),
    where: "",
    note: "",
  };
  const [v, setV] = useState(blank);
  const change = (part: Partial<typeof blank>) => setV((now) => ({ ...now, ...part }));
  const keep = () =>
    add.mutate(
      {
        area_id: area,
        disease: v.disease,
        seen: v.seen === "yes",
        severity: v.seen === "yes" ? v.severity : "",
        on: v.on,
        where: v.where,
        note: v.note,
      },
      {
        onSuccess: (made) => {
          setV({ ...v, severity: "", where: "", note: "" });
          say(`${made.name}: ${made.seen ? "seen" : "not seen"} is noted.`, () => remove.mutate(made.id));
        },
      },
    );
  const scouts = [...(strip.data?.scouts ?? [])].reverse();
  return (
    <Section title="What scouts found">
      {may && (
        <Form label="A scout report" error={add.error} onSubmit={keep}>
          <Fields $columns={3}>
            <PickField
              label="Looked for"
              name="disease"
              value={v.disease || null}
              options={watches.map((w) => ({ key: w.disease, text: w.name }))}
              onChange={(disease) => change({ disease })}
            />
            <PickField
              label="Was it there?"
              name="seen"
              value={v.seen}
              options={[
                { key: "yes", text: "Seen" },
                { key: "no", text: "Not seen", note: "clean turf tells as much about a model" },
              ]}
              onChange={(seen) => change({ seen })}
            />
            <DateField label="On" name="on" value={v.on} onChange={(on) => change({ on })} />
            {v.seen === "yes" && (
              <TextField
                label="On how much of the turf, in %"
                name="severity"
                value={v.severity}
                onChange={(severity) => change({ severity })}
                input={{ inputMode: "decimal" }}
              />
            )}
            <TextField
              label="Where on it"
              name="where"
              value={v.where}
              onChange={(where) => change({ where })}
            />
            <TextField label="Note" name="note" value={v.note} onChange={(note) => change({ note })} />
          </Fields>
          <Bar style={{ marginTop: 14 }}>
            <Button type="submit" isDisabled={add.isPending}>
              Note what was found
            </Button>
          </Bar>
          <Fault error={add.error} besides={["disease", "seen", "on", "severity", "where", "note"]} />
        </Form>
      )}
      {scouts.length > 0 && (
        <Ledger style={{ marginTop: 14 }}>
          <tbody>
            {scouts.map((s) => (
              <tr key={s.id}>
                <td className="day">{dayOf(s.on)}</td>
                <td>
                  {s.seen ? "▲" : "○"} {s.name} {s.seen ? "seen" : "not seen"}
                  {s.severity && `, on ${s.severity}`}
                  {s.where && `, ${s.where}`} <span className="soft">{s.note}</span>
                </td>
                <td className="soft wide">{s.by}</td>
                <td className="figure">
                  {may && (
                    <Button
                      look="quiet"
                      aria-label={`Take back the report of ${dayOf(s.on)}`}
                      onPress={() =>
                        remove.mutate(s.id, { onSuccess: () => say("The report is taken back.") })
                      }
                    >
                      Take back
                    </Button>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </Ledger>
      )}
    </Section>
  );
}

// --- watching ------------------------------------------------------------------------------------------------

function Watches({ all }: { all: Schemas["WatchesOut"] }) {
  const usual = all.watches.filter((w) => w.usual || w.on);
  const others = all.watches.filter((w) => !usual.includes(w));
  return (
    <Section title="How it is watched">
      <WatchTable watches={usual} area={all.area_id} />
      {others.length > 0 && (
        <details style={{ marginTop: 12 }}>
          <summary>{others.length} more that are not usual on this grass</summary>
          <WatchTable watches={others} area={all.area_id} />
        </details>
      )}
    </Section>
  );
}

function WatchTable({ watches, area }: { watches: Watch[]; area: number }) {
  const may = useMay("manager");
  const [open, setOpen] = useState<string | null>(null);
  return (
    <Ledger>
      <thead>
        <tr>
          <th>Disease</th>
          <th className="wide">Model</th>
          <th>Threshold</th>
          <th />
        </tr>
      </thead>
      <tbody>
        {watches.map((w) => (
          <WatchRow
            key={w.disease}
            w={w}
            may={may}
            area={area}
            open={open === w.disease}
            onOpen={() => setOpen(open === w.disease ? null : w.disease)}
          />
        ))}
      </tbody>
    </Ledger>
  );
}

interface RowProps {
  w: Watch;
  area: number;
  may: boolean;
  open: boolean;
  onOpen: () => void;
}

function WatchRow({ w, area, may, open, onOpen }: RowProps) {
  const model = w.models.find((m) => m.key === w.model);
  return (
    <>
      <tr data-watch={w.disease}>
        <td style={w.on ? undefined : { color: t.soft }}>
          {w.name}
          {!w.on && <div className="soft">{w.usual ? "not watched" : "not usual on this grass"}</div>}
        </td>
        <td className="wide">
          {model?.name}
          <div className="soft">{model?.tier}</div>
        </td>
        <td>
          {w.threshold}
          <div className="soft">{w.why}</div>
        </td>
        <td className="figure">
          {may && (
            <Button
              look="quiet"
              aria-expanded={open}
              aria-label={`${open ? "Close" : "Change"} how ${w.name.toLowerCase()} is watched`}
              onPress={onOpen}
            >
              {open ? "Close" : "Change"}
            </Button>
          )}
        </td>
      </tr>
      {open && (
        <tr>
          <td colSpan={4} style={{ padding: 0 }}>
            <WatchForm w={w} area={area} onDone={onOpen} />
          </td>
        </tr>
      )}
    </>
  );
}

const levels = (low: string, usual: string, high: string) => [
  { key: "low", text: low },
  { key: "usual", text: usual },
  { key: "high", text: high },
];

function WatchForm({ w, area, onDone }: { w: Watch; area: number; onDone: () => void }) {
  const save = useSaveWatch(area);
  const [v, setV] = useState({
    on: w.on, model: w.model, susceptible: w.susceptible, bears: w.bears, history: w.history, own: w.own,
  }); // prettier-ignore
  const change = (part: Partial<typeof v>) => setV((now) => ({ ...now, ...part }));
  const model = w.models.find((m) => m.key === v.model);
  return (
    <Open>
      <Form
        label={`How ${w.name.toLowerCase()} is watched`}
        error={save.error}
        onSubmit={() =>
          save.mutate(
            { disease: w.disease, body: v },
            {
              onSuccess: () => {
                say(`${w.name} is watched so from now on.`);
                onDone();
              },
            },
          )
        }
      >
        <div style={{ marginBottom: 12 }}>
          <Switch value={v.on} onChange={(on) => change({ on })}>
            Watch for it here
          </Switch>
        </div>
        <Fields $columns={3}>
          <PickField
            label="Model"
            name="model"
            value={v.model}
            options={w.models.map((m) => ({ key: m.key, text: m.name, note: m.tier }))}
            onChange={(key) => change({ model: key })}
          />
          <PickField
            label="The grass falls ill"
            name="susceptible"
            value={v.susceptible}
            options={levels("seldom", "as usual", "easily")}
            onChange={(key) => change({ susceptible: key as Level })}
          />
          <PickField
            label="How much of it may be seen"
            name="bears"
            value={v.bears}
            options={levels("none", "as usual", "some")}
            onChange={(key) => change({ bears: key as Level })}
          />
          <TextField
            label="A threshold of your own"
            name="own"
            value={v.own}
            onChange={(own) => change({ own })}
            hint="Empty: the model’s, moved by what stands here. In % for a probability."
          />
        </Fields>
        <div style={{ marginTop: 12 }}>
          <Switch value={v.history} onChange={(history) => change({ history })}>
            It has been here in the last two years
          </Switch>
        </div>
        {model && (
          <Hint style={{ marginTop: 10 }}>
            {model.source}. Holds for: {model.valid}.
          </Hint>
        )}
        <Fault error={save.error} besides={["own", "model"]} />
        <Bar style={{ marginTop: 14 }}>
          <Button type="submit" isDisabled={save.isPending}>
            Watch it so
          </Button>
        </Bar>
      </Form>
    </Open>
  );
}

// --- every week ----------------------------------------------------------------------------------------------

const week = ["Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday", "Sunday"];
const rhythmKinds = [
  { key: "mow", text: "Mowing" },
  { key: "water", text: "Watering" },
  { key: "quiet", text: "Hours the club keeps free", note: "on every area" },
];

function Rhythms({ all }: { all: Schemas["WatchesOut"] }) {
  const may = useMay("manager");
  const add = useAddRhythm();
  const remove = useRemoveRhythm();
  const [v, setV] = useState({ kind: "mow", days: [] as string[], begin: "06:30", end: "08:00", why: "" });
  const change = (part: Partial<typeof v>) => setV((now) => ({ ...now, ...part }));
  const keep = () =>
    add.mutate(
      {
        kind: v.kind as "mow", area_id: v.kind === "quiet" ? null : all.area_id, days: v.days.map(Number), begin: v.begin,
        end: v.end, why: v.why,
      }, // prettier-ignore
      {
        onSuccess: (made) => {
          setV({ ...v, days: [] });
          say(`${made.kind_text}, ${made.text}, is kept.`, () => remove.mutate(made.id));
        },
      },
    );
  return (
    <Section title="What comes back every week">
      <Hint style={{ marginBottom: 10 }}>Hours fit to work keep clear of it, as far as the label asks.</Hint>
      {all.rhythms.length > 0 && (
        <Ledger>
          <tbody>
            {all.rhythms.map((r) => (
              <tr key={r.id}>
                <td>{r.kind_text}</td>
                <td>
                  {r.text} <span className="soft">{r.why}</span>
                </td>
                <td className="soft wide">{r.area || "every area"}</td>
                <td className="figure">
                  {may && (
                    <Button
                      look="quiet"
                      aria-label={`Take back ${r.kind_text.toLowerCase()}, ${r.text}`}
                      onPress={() => remove.mutate(r.id)}
                    >
                      Take back
                    </Button>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </Ledger>
      )}
      {may && (
        <Form label="Every week" error={add.error} onSubmit={keep}>
          <Fields style={{ marginTop: 20 }} $columns={3}>
            <PickField
              label="What"
              name="kind"
              value={v.kind}
              options={rhythmKinds}
              onChange={(kind) => change({ kind })}
            />
            <ManyField
              label="On"
              name="days"
              values={v.days}
              options={week.map((text, i) => ({ key: String(i), text }))}
              onChange={(days) => change({ days })}
            />
            <TextField label="Why" name="why" value={v.why} onChange={(why) => change({ why })} />
            <TextField
              label="From"
              name="begin"
              value={v.begin}
              onChange={(begin) => change({ begin })}
              input={{ type: "time" }}
            />
            <TextField
              label="To"
              name="end"
              value={v.end}
              onChange={(end) => change({ end })}
              input={{ type: "time" }}
            />
          </Fields>
          <Fault error={add.error} besides={["kind", "days", "begin", "end", "why"]} />
          <Bar style={{ marginTop: 14 }}>
            <Button type="submit" isDisabled={add.isPending}>
              Keep it every week
            </Button>
          </Bar>
        </Form>
      )}
    </Section>
  );
}
