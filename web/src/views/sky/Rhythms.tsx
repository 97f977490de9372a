import { WEEKDAYS } from "../../parts/days";
import { useState } from "react";
import type { Schemas } from "../../api/client";
import { useAddRhythm, useRemoveRhythm } from "../../api/sky";
import { useMay } from "../../app/session";
import { say } from "../../app/toast";
import { Button } from "../../parts/Button";
import { Hint } from "../../parts/Field";
import { Form } from "../../parts/Form";
import { Ledger } from "../../parts/Ledger";
import { ManyField } from "../../parts/ManyField";
import { Fault } from "../../parts/Notice";
import { PickField } from "../../parts/PickField";
import { Bar, Fields, Section } from "../../parts/Section";
import { TimeField } from "../../parts/DateField";
import { TextField } from "../../parts/TextField";

const rhythmKinds = [
  { key: "mow", text: "Mowing" },
  { key: "water", text: "Watering" },
  { key: "quiet", text: "Hours kept free", note: "on every area" },
];

/** Mowing, watering and hours kept free, week by week. */
export function Rhythms({ all }: { all: Schemas["WatchesOut"] }) {
  const may = useMay("manager");
  const add = useAddRhythm();
  const remove = useRemoveRhythm();
  const [v, setV] = useState({ kind: "mow", days: [] as string[], begin: "06:30", end: "08:00", why: "" });
  const change = (part: Partial<typeof v>) => setV((now) => ({ ...now, ...part }));
  const keep = () =>
    add.mutate(
      {
        kind: v.kind as "mow",
        area_id: v.kind === "quiet" ? null : all.area_id,
        site_id: v.kind === "quiet" ? all.site_id : null,
        days: v.days.map(Number),
        begin: v.begin,
        end: v.end,
        why: v.why,
      },
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
              options={WEEKDAYS}
              onChange={(days) => change({ days })}
            />
            <TextField label="Why" name="why" value={v.why} onChange={(why) => change({ why })} />
            <TimeField label="From" name="begin" value={v.begin} onChange={(begin) => change({ begin })} />
            <TimeField label="To" name="end" value={v.end} onChange={(end) => change({ end })} />
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
