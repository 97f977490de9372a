import { useState } from "react";
import type { Schemas } from "../../api/client";
import { useAddScouting, useRemoveScouting, useStrip } from "../../api/sky";
import { useMay } from "../../app/session";
import { say } from "../../app/toast";
import { Button } from "../../parts/Button";
import { dayOf } from "../../parts/days";
import { DateField, todayHere } from "../../parts/DateField";
import { Form } from "../../parts/Form";
import { Ledger } from "../../parts/Ledger";
import { Fault } from "../../parts/Notice";
import { PickField } from "../../parts/PickField";
import { Bar, Fields, Section } from "../../parts/Section";
import { TextField } from "../../parts/TextField";

type Watch = Schemas["WatchOut"];

/** What scouts found on an area, and a form for what was found today. */
export function Scouts({ area, watches }: { area: number; watches: Watch[] }) {
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
