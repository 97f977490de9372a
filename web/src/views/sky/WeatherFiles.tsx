import { useState } from "react";
import { useNavigate } from "react-router";
import type { Schemas } from "../../api/client";
import { useKeepWeather, usePreviewWeather } from "../../api/sky";
import { useSitePick } from "../../app/site";
import { useAccount, useMay } from "../../app/session";
import { say } from "../../app/toast";
import { Button } from "../../parts/Button";
import { FaultsContext, faultsOf } from "../../parts/faults";
import { Hint } from "../../parts/Field";
import { FileDrop } from "../../parts/FileDrop";
import { Ledger } from "../../parts/Ledger";
import { Fault, Notice } from "../../parts/Notice";
import { Page } from "../../parts/Page";
import { PickField } from "../../parts/PickField";
import { Bar, Fields, Section } from "../../parts/Section";
import { SubRule } from "../../parts/SubRule";
import { Switch } from "../../parts/Switch";
import { skyParts } from "./skyParts";

type Taken = Schemas["TakenOut"];
type Mapping = Schemas["MappingIn"];

const unitText: Record<string, string> = {
  degC: "°C",
  degF: "°F",
  fraction: "fraction, 0 to 1",
  share: "share, 0 to 1",
};
const zones = (account: string) => [
  ...new Set(["UTC", account, "America/New_York", "America/Chicago", "Europe/London", "Europe/Berlin"]),
];

/** A file of weather: which column is what, what it would come to line by line, and then the keeping of it. */
export function WeatherFiles() {
  const account = useAccount();
  const may = useMay("manager");
  const navigate = useNavigate();
  const place = useSitePick();
  const preview = usePreviewWeather(place.site.id);
  const keep = useKeepWeather(place.site.id);
  const [file, setFile] = useState<File | null>(null);
  const [year, setYear] = useState(new Date().getFullYear() - 1);
  const seen = preview.data;
  const look = (picked: File, mapping: Mapping | null, of = year) => {
    setFile(picked);
    preview.mutate({ file: picked, mapping, year: of });
  };
  const bring = () =>
    file &&
    seen &&
    keep.mutate(
      { file, mapping: seen.kind === "table" ? seen.mapping : null, year },
      {
        onSuccess: (done) => {
          say(done.sentence);
          void navigate(`/a/${account.slug}/sky/station`);
        },
      },
    );
  return (
    <FaultsContext.Provider value={faultsOf(preview.error)}>
      <Page
        sentence={
          seen
            ? seen.sentence
            : "Bring in a file of weather. You see what it comes to before anything is kept."
        }
      >
        <SubRule label="Parts of the sky" parts={skyParts(account.slug)} />
        {!may && <Notice tone="note">Bringing in files is for a manager.</Notice>}
        {may && (
          <FileDrop
            accept=".csv,.txt,.tsv,.epw"
            label="File of weather"
            about="A table with a line an hour (CSV), or a typical year (EPW, TMY3)"
            onTake={(picked) => look(picked, null)}
          />
        )}
        <Fault error={preview.error ?? keep.error} />
        {seen && file && (
          <>
            {seen.kind === "table" ? (
              <Columns seen={seen} zone={place.site.time_zone} onChange={(mapping) => look(file, mapping)} />
            ) : (
              <Section title="A typical year">
                <Fields>
                  <PickField
                    label="Laid on the year"
                    name="year"
                    value={String(year)}
                    options={[1, 2, 3, 4].map((n) => ({
                      key: `${new Date().getFullYear() - n}`,
                      text: `${new Date().getFullYear() - n}`,
                    }))}
                    onChange={(key) => {
                      setYear(Number(key));
                      look(file, null, Number(key));
                    }}
                  />
                </Fields>
                <Hint>
                  Its months are from several years: good for trying things out, never for deciding on a
                  spray.
                </Hint>
              </Section>
            )}
            <Coming seen={seen} busy={keep.isPending || preview.isPending} onBring={bring} />
          </>
        )}
      </Page>
    </FaultsContext.Provider>
  );
}

interface ColumnsProps {
  seen: Taken;
  zone: string;
  onChange: (mapping: Mapping) => void;
}

/** Which column is what, in which unit, and how its times are meant; every change is looked at at once. */
function Columns({ seen, zone, onChange }: ColumnsProps) {
  const m = seen.mapping;
  const heads = seen.heading.map((h) => ({ key: h, text: h }));
  const none = { key: "", text: "Not in the file" };
  const set = (field: string, name: string, unit: string) => {
    const others = Object.entries(m.columns).filter(([key]) => key !== field);
    onChange({ ...m, columns: Object.fromEntries(name ? [...others, [field, { name, unit }]] : others) });
  };
  return (
    <Section title="Which column is what">
      <Fields $columns={3}>
        <PickField
          label="Time"
          name="columns.time"
          value={m.time}
          options={heads}
          onChange={(time) => onChange({ ...m, time })}
        />
        <PickField
          label="Its clock, where the times name none"
          name="zone"
          value={m.zone}
          options={zones(zone).map((z) => ({ key: z, text: z }))}
          onChange={(z) => onChange({ ...m, zone: z })}
        />
        <PickField
          label="A time is"
          name="shift"
          value={String(m.shift)}
          options={[
            { key: "0", text: "the beginning of its hour" },
            { key: "-1", text: "the end of its hour" },
          ]}
          onChange={(key) => onChange({ ...m, shift: Number(key) })}
        />
      </Fields>
      <div style={{ margin: "10px 0 16px" }}>
        <Switch value={m.day_first ?? false} onChange={(day_first) => onChange({ ...m, day_first })}>
          The day comes first: 12/06 is in June
        </Switch>
      </div>
      <Fields $columns={3}>
        {seen.fields.map((f) => {
          const column = m.columns[f.field];
          return (
            <div
              key={f.field}
              style={{ display: "grid", gridTemplateColumns: "1fr 112px", gap: 6, alignItems: "end" }}
            >
              <PickField
                label={f.name}
                name={`columns.${f.field}`}
                value={column?.name ?? ""}
                options={[none, ...heads]}
                onChange={(name) => set(f.field, name, column?.unit ?? f.units[0]!)}
              />
              <PickField
                label={`Unit of ${f.name.toLowerCase()}`}
                hideLabel
                name={`columns.${f.field}.unit`}
                value={column?.unit ?? null}
                options={column ? f.units.map((u) => ({ key: u, text: unitText[u] ?? u })) : []}
                placeholder="unit"
                onChange={(unit) => set(f.field, column!.name, unit)}
              />
            </div>
          );
        })}
      </Fields>
    </Section>
  );
}

interface ComingProps {
  seen: Taken;
  busy: boolean;
  onBring: () => void;
}

function Coming({ seen, busy, onBring }: ComingProps) {
  return (
    <Section title="What it comes to">
      {seen.against.map((f) => (
        <Notice key={`${f.line} ${f.problem}`} tone="stop" word={f.line ? `Line ${f.line}` : "The whole"}>
          {f.column && `${f.column}, ${f.value}: `}
          {!f.column && f.value && `${f.value}: `}
          {f.problem}.
        </Notice>
      ))}
      {seen.hours > 0 && (
        <p>
          {seen.hours.toLocaleString("en")} hours, {seen.first} to {seen.last}
          {seen.known_already > 0 &&
            `; ${seen.known_already.toLocaleString("en")} of them are known already and are written over`}
          .
        </p>
      )}
      {seen.faults.length > 0 && (
        <Ledger style={{ marginTop: 12 }}>
          <caption>
            Left out, by their line{seen.more_faults > 0 && `; ${seen.more_faults} more are not shown`}
          </caption>
          <thead>
            <tr>
              <th className="figure">Line</th>
              <th>Column</th>
              <th>Value</th>
              <th>What is wrong</th>
            </tr>
          </thead>
          <tbody>
            {seen.faults.map((f) => (
              <tr key={`${f.line} ${f.column}`}>
                <td className="figure">{f.line}</td>
                <td>{f.column}</td>
                <td>{f.value}</td>
                <td>{f.problem}</td>
              </tr>
            ))}
          </tbody>
        </Ledger>
      )}
      <Bar>
        <Button look="main" isDisabled={seen.refused || busy} onPress={onBring}>
          {seen.refused ? "Nothing can be kept" : `Keep ${seen.hours.toLocaleString("en")} hours`}
        </Button>
      </Bar>
    </Section>
  );
}
