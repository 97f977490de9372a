import { useState } from "react";
import styled from "styled-components";
import type { Schemas } from "../../api/client";
import { useSaveWatch } from "../../api/sky";
import { useMay } from "../../app/session";
import { t } from "../../app/theme";
import { say } from "../../app/toast";
import { Button } from "../../parts/Button";
import { Hint } from "../../parts/Field";
import { Form } from "../../parts/Form";
import { Ledger } from "../../parts/Ledger";
import { Fault } from "../../parts/Notice";
import { PickField } from "../../parts/PickField";
import { Bar, Fields, Section } from "../../parts/Section";
import { Switch } from "../../parts/Switch";
import { TextField } from "../../parts/TextField";

type Watch = Schemas["WatchOut"];
type Level = Watch["bears"];

const Open = styled.div`
  padding: 12px 0 18px;
  border-bottom: 1px solid ${t.hair};
`;

/** How an area is watched, disease by disease; each can be changed where it stands. */
export function Watches({ all }: { all: Schemas["WatchesOut"] }) {
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
    version: w.version,
    on: w.on,
    model: w.model,
    susceptible: w.susceptible,
    bears: w.bears,
    history: w.history,
    own: w.own,
  });
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
