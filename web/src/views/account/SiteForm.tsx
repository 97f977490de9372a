import { read, send, type Schemas } from "../../api/client";
import { useChange } from "../../api/hooks";
import { useDraft } from "../../app/draft";
import { useAccount } from "../../app/session";
import { say } from "../../app/toast";
import { Button } from "../../parts/Button";
import { Hint } from "../../parts/Field";
import { Form } from "../../parts/Form";
import { Fault } from "../../parts/Notice";
import { PickField } from "../../parts/PickField";
import { Bar, Fields, Section } from "../../parts/Section";
import { TextField } from "../../parts/TextField";
import { ClosedTimes } from "./ClosedTimes";

const zones = Intl.supportedValuesOf("timeZone").map((key) => ({ key, text: key.replaceAll("_", " ") }));
const here = () => Intl.DateTimeFormat().resolvedOptions().timeZone;

/** A site's form: a new one, or one that is changed. */
export function SiteForm({ site, onDone }: { site?: Schemas["SiteOut"]; onDone: () => void }) {
  const account = useAccount();
  const { value, change, clear, kept } = useDraft(`${account.slug}/site/${site?.id ?? "new"}`, {
    version: site?.version ?? null,
    name: site?.name ?? "",
    address: site?.address ?? "",
    contact: site?.contact ?? "",
    gate: site?.gate ?? "",
    agreed: site?.agreed ?? "",
    tell: site?.tell ?? "",
    water: site?.water ?? "",
    fill_minutes: site?.fill_minutes?.toString() ?? "",
    time_zone: site?.time_zone ?? here(),
    closed: site?.closed ?? [],
  });
  const save = useChange((path, body: Schemas["SiteIn"]) =>
    site
      ? read(
          send.PUT("/api/accounts/{account}/sites/{site_id}", {
            params: { path: { ...path, site_id: site.id } },
            body,
          }),
        )
      : read(send.POST("/api/accounts/{account}/sites", { params: { path }, body })),
  );
  const leave = () => {
    clear();
    onDone();
  };
  const minutes = value.fill_minutes.trim();
  const sent = { ...value, fill_minutes: minutes === "" ? null : Number(minutes) };
  const submit = () =>
    save.mutate(sent, {
      onSuccess: (made) => {
        leave();
        say(site ? `${made.name} is changed.` : `${made.name} is a site.`);
      },
    });
  return (
    <Section title={site?.name ?? "A new site"}>
      <Form label="Site" error={save.error} onSubmit={submit}>
        {kept && <Hint>Brought back from what you had typed before.</Hint>}
        <Fields $columns={3}>
          <TextField label="Name" name="name" value={value.name} onChange={(name) => change({ name })} />
          <TextField
            label="Address"
            name="address"
            value={value.address}
            onChange={(address) => change({ address })}
          />
          <PickField
            label="Time zone"
            name="time_zone"
            value={value.time_zone}
            options={
              zones.some((z) => z.key === value.time_zone)
                ? zones
                : [{ key: value.time_zone, text: value.time_zone }, ...zones]
            }
            onChange={(time_zone) => change({ time_zone })}
          />
          <TextField
            label="Contact"
            name="contact"
            value={value.contact}
            onChange={(contact) => change({ contact })}
            hint="Whom to ask or warn there."
          />
          <TextField
            label="Getting in"
            name="gate"
            value={value.gate}
            onChange={(gate) => change({ gate })}
            hint="Gate, key, dog."
          />
          <TextField
            label="Water for tanks"
            name="water"
            value={value.water}
            onChange={(water) => change({ water })}
            hint="Which tap, which well."
          />
          <TextField
            label="Minutes a filling"
            name="fill_minutes"
            value={value.fill_minutes}
            input={{ inputMode: "numeric" }}
            onChange={(fill_minutes) => change({ fill_minutes })}
            hint="The way there and back with it."
          />
          <TextField
            label="Must be told"
            name="tell"
            value={value.tell}
            onChange={(tell) => change({ tell })}
            hint="Who, of what, and when: the day before."
          />
          <TextField
            label="What was agreed"
            name="agreed"
            value={value.agreed}
            onChange={(agreed) => change({ agreed })}
            hint="How often, what for, what not."
          />
        </Fields>
        <ClosedTimes value={value.closed} onChange={(closed) => change({ closed })} />
        <Fault
          error={save.error}
          besides={[
            "name",
            "address",
            "contact",
            "gate",
            "agreed",
            "tell",
            "water",
            "fill_minutes",
            "time_zone",
            "closed",
          ]}
        />
        <Bar>
          <Button look="main" type="submit" isDisabled={save.isPending}>
            {site ? "Save the changes" : "Add the site"}
          </Button>
          <Button onPress={leave}>Leave it</Button>
        </Bar>
      </Form>
    </Section>
  );
}
