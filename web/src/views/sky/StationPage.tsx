import { useState } from "react";
import { Link } from "react-router";
import styled from "styled-components";
import type { Schemas } from "../../api/client";
import { useAreas } from "../../api/hooks";
import { useAddReading, useFetchNow, useRemoveReading, useSaveStation, useStation } from "../../api/sky";
import { useDraft } from "../../app/draft";
import { useClub, useMay } from "../../app/session";
import { say } from "../../app/toast";
import { Button } from "../../parts/Button";
import { DateField, todayHere } from "../../parts/DateField";
import { Hint } from "../../parts/Field";
import { Form } from "../../parts/Form";
import { FreshLine } from "../../parts/FreshLine";
import { Ledger } from "../../parts/Ledger";
import { Fault } from "../../parts/Notice";
import { Page } from "../../parts/Page";
import { PickField } from "../../parts/PickField";
import { QuantityField } from "../../parts/QuantityField";
import { Bar, Fields, Section } from "../../parts/Section";
import { SubRule } from "../../parts/SubRule";
import { Switch } from "../../parts/Switch";
import { TextField } from "../../parts/TextField";
import { Waiting } from "../../parts/Waiting";
import { skyParts } from "./skyParts";

type Station = Schemas["StationOut"];

const Scroll = styled.div`
  max-height: 320px;
  overflow: auto;
`;

const stamp = (at: string, zone: string) =>
  new Date(at).toLocaleString("en-GB", {
    day: "numeric", month: "short", hour: "2-digit", minute: "2-digit", timeZone: zone,
  }); // prettier-ignore

/** Where weather comes from, how it went, and what was left out of it. */
export function StationPage() {
  const club = useClub();
  const found = useStation();
  const may = useMay("manager");
  const mayAsk = useMay("applicator");
  const fetch = useFetchNow();
  const ask = () =>
    fetch.mutate(undefined as never, {
      onSuccess: (done) => say(done.ok ? done.text : `It did not work: ${done.text}`),
    });
  return (
    <Waiting of={found}>
      {(data) => (
        <Page
          sentence={
            data.station ? `${data.station.name}: ${data.station.span}` : "Where does your weather come from?"
          }
          act={
            mayAsk &&
            (data.station?.url || data.station?.probe_url) && (
              <Button look="main" onPress={ask} isDisabled={fetch.isPending}>
                {fetch.isPending ? "Asking …" : "Fetch it now"}
              </Button>
            )
          }
          margin={data.station && <Margin station={data.station} zone={club.time_zone} />}
        >
          <SubRule label="Parts of the sky" parts={skyParts(club.slug)} />
          {data.station && <FreshLine fresh={data.station.fresh} />}
          <Fault error={fetch.error} />
          {data.station && mayAsk && <ByHand all={data} />}
          {data.station && may && (
            <Section title="Files">
              <p>
                <Link to={`/c/${club.slug}/sky/files`}>Bring in a file of weather</Link>: a table as CSV, or a
                typical year as EPW or TMY3.
              </p>
            </Section>
          )}
          {may && <Setup key={data.station?.id ?? 0} all={data} />}
          {data.station && <LeftOut station={data.station} zone={club.time_zone} />}
        </Page>
      )}
    </Waiting>
  );
}

function Margin({ station: s, zone }: { station: Station; zone: string }) {
  return (
    <>
      <Section title="Wet leaves, by three ways">
        <Ledger>
          <tbody>
            {s.estimators.map((e) => (
              <tr key={e.key}>
                <td>
                  {e.text}
                  {e.key === s.wetness && <div className="soft">counts here</div>}
                </td>
                <td className="figure">{e.wet}</td>
              </tr>
            ))}
          </tbody>
        </Ledger>
        <Hint style={{ marginTop: 8 }}>
          Over the last months. They differ, and mown turf is also wet by guttation, so that all run low.
        </Hint>
      </Section>
      <Section title="How the asking went">
        {s.fetches.length === 0 && <Hint>It has not been asked yet.</Hint>}
        <Ledger>
          <tbody>
            {s.fetches.map((f) => (
              <tr key={f.at} data-fetch={f.ok ? "ok" : "failed"}>
                <td className="day soft">{stamp(f.at, zone)}</td>
                <td>
                  {f.ok ? "" : "✕ "}
                  {f.text}
                </td>
              </tr>
            ))}
          </tbody>
        </Ledger>
      </Section>
    </>
  );
}

function LeftOut({ station: s, zone }: { station: Station; zone: string }) {
  return (
    <>
      {s.gaps.length > 0 && (
        <Section title="Gaps of the last months">
          <Scroll tabIndex={0} role="group" aria-label="Gaps">
            <Ledger>
              <tbody>
                {s.gaps.map((g) => (
                  <tr key={g.begin}>
                    <td>{g.text}</td>
                    <td className="figure">{g.hours} h</td>
                  </tr>
                ))}
              </tbody>
            </Ledger>
          </Scroll>
          <Hint>
            Those of up to {s.fill} h are read straight between their neighbours; the others stay open.
          </Hint>
        </Section>
      )}
      {s.aside.length > 0 && (
        <Section title="Set aside, for it cannot be">
          <Scroll tabIndex={0} role="group" aria-label="Values set aside">
            <Ledger>
              <tbody>
                {s.aside.map((a) => (
                  <tr key={`${a.at} ${a.field}`}>
                    <td className="day">{stamp(a.at, zone)}</td>
                    <td>{a.problem}</td>
                    <td className="soft">{a.source}</td>
                  </tr>
                ))}
              </tbody>
            </Ledger>
          </Scroll>
        </Section>
      )}
    </>
  );
}

// --- by hand -------------------------------------------------------------------------------------------------

const kinds = [
  { key: "rain", text: "Rain gauge", note: "for the whole of that day" },
  { key: "soil", text: "Soil thermometer, at 5 cm (2 in)" },
  { key: "wet", text: "Leaf, wet or dry" },
  { key: "snow", text: "Snow lying" },
];

function ByHand({ all }: { all: Schemas["StationsOut"] }) {
  const club = useClub();
  const areas = useAreas();
  const add = useAddReading();
  const remove = useRemoveReading();
  const first = (kind: string) => all.hand_units[kind]?.[0]?.name ?? "";
  const blank = {
    kind: "rain",
    value: { value: "", unit: first("rain") },
    on: todayHere(),
    clock: "08:00",
    area: "",
  };
  const [v, setV] = useState(blank);
  const change = (part: Partial<typeof blank>) => setV((now) => ({ ...now, ...part }));
  const keep = () =>
    add.mutate(
      {
        kind: v.kind as "rain", value: v.value, on: v.on, clock: v.kind === "rain" ? null : v.clock,
        area_id: v.area ? Number(v.area) : null,
      }, // prettier-ignore
      {
        onSuccess: (made) => {
          setV({ ...v, value: { ...v.value, value: "" } });
          say(`${made.kind_text} ${made.text} is kept.`, () => remove.mutate(made.id));
        },
      },
    );
  return (
    <Section title="Read by hand">
      <Form label="A reading by hand" error={add.error} onSubmit={keep}>
        <Fields $columns={3}>
          <PickField
            label="What"
            name="kind"
            value={v.kind}
            options={kinds}
            onChange={(kind) =>
              change({ kind, value: { value: "", unit: kind === "wet" ? "" : first(kind) } })
            }
          />
          {v.kind === "wet" ? (
            <PickField
              label="It was"
              name="value"
              value={v.value.value || null}
              options={[
                { key: "wet", text: "Wet" },
                { key: "dry", text: "Dry" },
              ]}
              onChange={(value) => change({ value: { value, unit: "" } })}
            />
          ) : (
            <QuantityField
              label="It read"
              name="value"
              value={v.value}
              units={(all.hand_units[v.kind] ?? []).map((u) => ({ key: u.name, text: u.text }))}
              onChange={(value) => change({ value })}
            />
          )}
          <DateField label="On" name="on" value={v.on} onChange={(on) => change({ on })} />
          {v.kind !== "rain" && (
            <TextField
              label="At"
              name="clock"
              value={v.clock}
              onChange={(clock) => change({ clock })}
              input={{ type: "time" }}
            />
          )}
          <PickField
            label="Where"
            name="area_id"
            value={v.area}
            options={[
              { key: "", text: "At the station" },
              ...(areas.data?.areas ?? []).map((a) => ({ key: String(a.id), text: a.name })),
            ]}
            onChange={(area) => change({ area })}
          />
        </Fields>
        <Bar style={{ marginTop: 14 }}>
          <Button type="submit" isDisabled={add.isPending}>
            Keep the reading
          </Button>
        </Bar>
        <Fault error={add.error} besides={["kind", "value", "on", "clock", "area_id"]} />
      </Form>
      {all.station && all.station.by_hand.length > 0 && (
        <Scroll style={{ marginTop: 14 }} tabIndex={0} role="group" aria-label="Readings by hand">
          <Ledger>
            <tbody>
              {all.station.by_hand.map((r) => (
                <tr key={r.id}>
                  <td className="day">
                    {stamp(r.at, club.time_zone)
                      .split(", ")
                      .slice(0, r.kind === "rain" ? 1 : 2)
                      .join(", ")}
                  </td>
                  <td>
                    {r.kind_text}: {r.text}
                    {r.area && <span className="soft"> on {r.area}</span>}
                  </td>
                  <td className="soft wide">{r.by}</td>
                  <td className="figure">
                    <Button
                      look="quiet"
                      aria-label={`Take back ${r.kind_text.toLowerCase()} ${r.text}`}
                      onPress={() => remove.mutate(r.id)}
                    >
                      Take back
                    </Button>
                  </td>
                </tr>
              ))}
            </tbody>
          </Ledger>
        </Scroll>
      )}
    </Section>
  );
}

// --- setting it up -------------------------------------------------------------------------------------------

function Setup({ all }: { all: Schemas["StationsOut"] }) {
  const club = useClub();
  const s = all.station;
  const save = useSaveStation();
  const draft = useDraft(`${club.slug}/sky/station`, {
    name: s?.name ?? "",
    url: s?.url ?? "",
    probe_url: s?.probe_url ?? "",
    latitude: s?.latitude ?? "",
    longitude: s?.longitude ?? "",
    off_site: s?.off_site ?? false,
    offset: s?.offset ?? "0",
    wetness: s?.wetness ?? "humidity",
    fill: String(s?.fill ?? 3),
  });
  const { value: v, change } = draft;
  const keep = () =>
    save.mutate(
      { ...v, fill: Number(v.fill) || 0 },
      {
        onSuccess: () => {
          draft.clear();
          say("The station is set up.");
        },
      },
    );
  return (
    <Section title={s ? "The station" : "Set up the station"}>
      <Form label="The station" error={save.error} onSubmit={keep}>
        <Fields>
          <TextField
            label="Name"
            name="name"
            value={v.name}
            onChange={(name) => change({ name })}
            hint="By where it stands"
          />
          <TextField
            label="Address of its service"
            name="url"
            value={v.url}
            onChange={(url) => change({ url })}
            hint="Empty where weather comes from files and by hand alone"
          />
          <TextField
            label="Latitude"
            name="latitude"
            value={v.latitude}
            onChange={(latitude) => change({ latitude })}
            hint="Degrees north; for daylight"
          />
          <TextField
            label="Longitude"
            name="longitude"
            value={v.longitude}
            onChange={(longitude) => change({ longitude })}
            hint="Degrees east; west is below zero"
          />
          <TextField
            label="Address of its soil probe"
            name="probe_url"
            value={v.probe_url}
            onChange={(probe_url) => change({ probe_url })}
          />
          <PickField
            label="Wet leaves are told by"
            name="wetness"
            value={v.wetness}
            options={all.wetness.map((w) => ({ key: w.name, text: w.text }))}
            onChange={(wetness) => change({ wetness })}
          />
          <TextField
            label="Added to its humidity, in %"
            name="offset"
            value={v.offset}
            onChange={(offset) => change({ offset })}
            hint="A canopy is moister than an airport; found by a logger on your turf"
          />
          <TextField
            label="Gaps read across, in hours"
            name="fill"
            value={v.fill}
            onChange={(fill) => change({ fill })}
            input={{ inputMode: "numeric" }}
            hint="Rain and wetness are never filled"
          />
        </Fields>
        <div style={{ marginTop: 12 }}>
          <Switch value={v.off_site} onChange={(off_site) => change({ off_site })}>
            It stands off the site, as an airport’s does
          </Switch>
        </div>
        <Fault
          error={save.error}
          besides={["name", "url", "probe_url", "latitude", "longitude", "offset", "wetness", "fill"]}
        />
        <Bar>
          <Button type="submit" look={s ? "plain" : "main"} isDisabled={save.isPending}>
            {s ? "Save the station" : "Set it up"}
          </Button>
        </Bar>
      </Form>
    </Section>
  );
}
