import { useState } from "react";
import type { Schemas } from "../../api/client";
import { useAreas } from "../../api/hooks";
import { useAddReading, useRemoveReading } from "../../api/sky";
import { say } from "../../app/toast";
import { Button } from "../../parts/Button";
import { DateField, todayHere, TimeField } from "../../parts/DateField";
import { Form } from "../../parts/Form";
import { Ledger } from "../../parts/Ledger";
import { Fault } from "../../parts/Notice";
import { PickField } from "../../parts/PickField";
import { QuantityField } from "../../parts/QuantityField";
import { Bar, Fields, Section } from "../../parts/Section";
import { Scroll } from "./Scroll";
import { stamp } from "../../parts/days";

const kinds = [
  { key: "rain", text: "Rain gauge", note: "for the whole of that day" },
  { key: "soil", text: "Soil thermometer, at 5 cm (2 in)" },
  { key: "wet", text: "Leaf, wet or dry" },
  { key: "snow", text: "Snow lying" },
];

interface FormProps {
  all: Schemas["StationsOut"];
  /** Where it starts: an area's id, or none for the station. */
  area?: string;
  onDone?: () => void;
}

/** What was read today, or on a day that has been. */
export function HandForm({ all, area = "", onDone }: FormProps) {
  const areas = useAreas();
  const add = useAddReading();
  const remove = useRemoveReading();
  const first = (kind: string) => all.hand_units[kind]?.[0]?.name ?? "";
  const blank = {
    kind: "rain",
    value: { value: "", unit: first("rain") },
    on: todayHere(),
    clock: "08:00",
    area,
  };
  const [v, setV] = useState(blank);
  const change = (part: Partial<typeof blank>) => setV((now) => ({ ...now, ...part }));
  const keep = () =>
    add.mutate(
      {
        kind: v.kind as "rain",
        value: v.value,
        on: v.on,
        clock: v.kind === "rain" ? null : v.clock,
        area_id: v.area ? Number(v.area) : null,
        site_id: all.site_id,
      },
      {
        onSuccess: (made) => {
          setV({ ...v, value: { ...v.value, value: "" } });
          say(`${made.kind_text} ${made.text} is kept.`, () => remove.mutate(made.id));
          onDone?.();
        },
      },
    );
  return (
    <Form label="A reading by hand" error={add.error} onSubmit={keep}>
      <Fields $columns={3}>
        <PickField
          label="What"
          name="kind"
          value={v.kind}
          options={kinds}
          onChange={(kind) => change({ kind, value: { value: "", unit: kind === "wet" ? "" : first(kind) } })}
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
          <TimeField label="At" name="clock" value={v.clock} onChange={(clock) => change({ clock })} />
        )}
        <PickField
          label="Where"
          name="area_id"
          value={v.area}
          options={[
            { key: "", text: "At the station" },
            ...(areas.data?.areas ?? [])
              .filter((a) => a.site_id === all.site_id)
              .map((a) => ({ key: String(a.id), text: a.name })),
          ]}
          onChange={(area) => change({ area })}
        />
      </Fields>
      <Bar style={{ marginTop: 14 }}>
        <Button type="submit" look={onDone ? "main" : undefined} isDisabled={add.isPending}>
          Keep the reading
        </Button>
        {onDone && (
          <Button look="quiet" onPress={onDone}>
            Leave it
          </Button>
        )}
      </Bar>
      <Fault error={add.error} besides={["kind", "value", "on", "clock", "area_id"]} />
    </Form>
  );
}

/** Readings by hand: what was read today, and those kept. */
export function ByHand({ all, zone }: { all: Schemas["StationsOut"]; zone: string }) {
  const remove = useRemoveReading();
  return (
    <Section title="Read by hand">
      <HandForm all={all} />
      {all.station && all.station.by_hand.length > 0 && (
        <Scroll style={{ marginTop: 14 }} tabIndex={0} role="group" aria-label="Readings by hand">
          <Ledger>
            <tbody>
              {all.station.by_hand.map((r) => (
                <tr key={r.id}>
                  <td className="day">
                    {stamp(r.at, zone)
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
