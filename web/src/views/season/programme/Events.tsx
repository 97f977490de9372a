import { useState } from "react";
import { useAddEvent, useRemoveEvent, type Programme } from "../../../api/programme";
import { say } from "../../../app/toast";
import { Button } from "../../../parts/Button";
import { DateField, todayHere } from "../../../parts/DateField";
import { Hint } from "../../../parts/Field";
import { Form } from "../../../parts/Form";
import { Fault } from "../../../parts/Notice";
import { Bar, Section } from "../../../parts/Section";
import { TextField } from "../../../parts/TextField";

/** Days that steps go by: a tournament, a holiday, the first mowing. */
export function Events({ events, may }: { events: Programme["events"]; may: boolean }) {
  const add = useAddEvent();
  const remove = useRemoveEvent();
  const [v, setV] = useState({ name: "", on: todayHere() });
  return (
    <Section title="Events">
      {events.length === 0 && (
        <Hint>A tournament, a holiday, the first mowing: steps can go so many days before or after one.</Hint>
      )}
      <ul>
        {events.map((e) => (
          <li key={e.id} style={{ display: "flex", gap: 12, alignItems: "baseline" }}>
            <span style={{ flex: 1 }}>
              {e.name}, {e.day}
            </span>
            {may && (
              <Button
                look="quiet"
                aria-label={`Take out ${e.name}`}
                onPress={() =>
                  remove.mutate(e.id, {
                    onSuccess: () =>
                      say(`${e.name} is taken out.`, () => add.mutate({ name: e.name, on: e.on })),
                  })
                }
              >
                Take out
              </Button>
            )}
          </li>
        ))}
      </ul>
      {may && (
        <Form
          label="An event"
          error={add.error}
          onSubmit={() => add.mutate(v, { onSuccess: () => setV({ ...v, name: "" }) })}
        >
          <div style={{ display: "grid", gap: 10, marginTop: 10 }}>
            <TextField
              label="Event"
              name="name"
              value={v.name}
              onChange={(name) => setV((now) => ({ ...now, name }))}
            />
            <DateField label="On" name="on" value={v.on} onChange={(on) => setV((now) => ({ ...now, on }))} />
          </div>
          <Bar>
            <Button type="submit" isDisabled={add.isPending}>
              Keep the event
            </Button>
          </Bar>
          <Fault error={add.error ?? remove.error} besides={["name", "on"]} />
        </Form>
      )}
    </Section>
  );
}
