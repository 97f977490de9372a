import type { Schemas } from "../../api/client";
import { useSaveStation } from "../../api/sky";
import { useDraft } from "../../app/draft";
import { useAccount } from "../../app/session";
import { say } from "../../app/toast";
import { Button } from "../../parts/Button";
import { Form } from "../../parts/Form";
import { Fault } from "../../parts/Notice";
import { PickField } from "../../parts/PickField";
import { Bar, Fields, Section } from "../../parts/Section";
import { Switch } from "../../parts/Switch";
import { TextField } from "../../parts/TextField";

/** The station as it is set up. */
export function StationForm({ all }: { all: Schemas["StationsOut"] }) {
  const account = useAccount();
  const s = all.station;
  const save = useSaveStation(all.site_id);
  const draft = useDraft(`${account.slug}/sky/station/${all.site_id}`, {
    version: s?.version ?? null,
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
