import { useState } from "react";
import type { Schemas } from "../../api/client";
import { useSaveHold } from "../../api/sky";
import { say } from "../../app/toast";
import { Button } from "../../parts/Button";
import { Form } from "../../parts/Form";
import { Fault } from "../../parts/Notice";
import { PickField } from "../../parts/PickField";
import { Bar, Fields } from "../../parts/Section";
import { TextField } from "../../parts/TextField";

const OWN = "own";
const KNOWN = "known";

/** How long a regulator's active holds here: one of the known targets, or one of one's own. */
export function HoldForm({ clock: c }: { clock: Schemas["ClockOut"] }) {
  const save = useSaveHold(c.area_id, c.active);
  const [open, setOpen] = useState(false);
  const [own, setOwn] = useState(c.own);
  const [base, setBase] = useState(c.base);
  const known = c.offered.find((o) => o.key === `${own}/${base}`);
  const keep = (sum: string, over: string, words: string) =>
    save.mutate({ version: c.version, own: sum, base: over }, { onSuccess: () => say(words) });
  if (!open) {
    return (
      <Bar style={{ marginTop: 8 }}>
        <Button
          look="quiet"
          aria-label={`Set how long ${c.product} holds on ${c.area}`}
          onPress={() => setOpen(true)}
        >
          {c.own ? "Change the target" : "Set a target of your own"}
        </Button>
      </Bar>
    );
  }
  return (
    <Form
      label={`How long ${c.product} holds on ${c.area}`}
      error={save.error}
      onSubmit={() => keep(own, base, `${c.product} on ${c.area} is counted so from now on.`)}
    >
      <Fields $columns={2} style={{ marginTop: 12 }}>
        {c.offered.length > 0 && (
          <PickField
            label="Known targets"
            name="known"
            value={known?.key ?? (own ? OWN : KNOWN)}
            options={[
              { key: KNOWN, text: "The one known for this turf" },
              ...c.offered,
              { key: OWN, text: "One of your own" },
            ]}
            onChange={(key) => {
              const [sum, over] = key === OWN ? [own, base] : key === KNOWN ? ["", "0"] : key.split("/");
              setOwn(sum ?? "");
              setBase(over ?? "0");
            }}
          />
        )}
        <TextField
          label="Again after, °C·d"
          name="own"
          value={own}
          onChange={setOwn}
          hint="Empty: the known one"
        />
        <TextField label="Over a base of, °C" name="base" value={base} onChange={setBase} />
      </Fields>
      <Bar style={{ marginTop: 10 }}>
        <Button type="submit" isDisabled={save.isPending}>
          Count by it
        </Button>
        {c.own && (
          <Button look="quiet" onPress={() => keep("", "0", "The known target counts again.")}>
            The known one again
          </Button>
        )}
      </Bar>
      <Fault error={save.error} besides={["own", "base"]} />
    </Form>
  );
}
