import { useState } from "react";
import type { Schemas } from "../../../api/client";
import { useCheckWork, useDoings, useNoteWork, useStrikeWork } from "../../../api/story";
import { say } from "../../../app/toast";
import { useSettled } from "../../../app/useSettled";
import { Button } from "../../../parts/Button";
import { DateField, todayHere, TimeField } from "../../../parts/DateField";
import { Form } from "../../../parts/Form";
import { Fault, Notice } from "../../../parts/Notice";
import { PickField } from "../../../parts/PickField";
import { QuantityField, type TypedQuantity } from "../../../parts/QuantityField";
import { Bar, Fields } from "../../../parts/Section";
import { Switch } from "../../../parts/Switch";
import { TextField } from "../../../parts/TextField";

type Doing = Schemas["DoingOut"];
type Given = Record<string, TypedQuantity | string>;

/** What was told of a work, as a form starts from it. */
function startOf(doing: Doing, told: Schemas["WorkToldOut"][]): Given {
  return Object.fromEntries(
    doing.asks.map((a) => {
      const was = told.find((x) => x.key === a.key);
      if (a.units.length) return [a.key, { value: was?.value ?? "", unit: was?.unit || a.units[0]!.key }];
      return [a.key, was?.word ?? ""];
    }),
  );
}

function toldOf(given: Given): Schemas["WorkToldIn"][] {
  return Object.entries(given).map(([key, v]) =>
    typeof v === "string" ? { key, word: v } : { key, word: "", quantity: v },
  );
}

/** Say that work was noted, and offer the way back. */
export function useNoted() {
  const note = useNoteWork();
  const strike = useStrikeWork();
  const noted = (body: Schemas["WorkIn"], then?: () => void) =>
    note.mutate(body, {
      onSuccess: (made) => {
        then?.();
        const first = made[0]!;
        const inside = first.against.length > 0 ? ` ${first.against[0]}` : "";
        say(`${first.area}: ${first.text}${inside}`, () =>
          made.forEach((w) => strike.mutate({ id: w.id, why: "Taken back at once." })),
        );
      },
    });
  return { noted, error: note.error, isPending: note.isPending };
}

/** Note any work on an area: now, or on a day that has been. */
export function WorkForm({
  area_id,
  usual,
  onDone,
}: {
  area_id: number;
  usual: Schemas["UsualOut"][];
  onDone: () => void;
}) {
  const doings = useDoings();
  const { noted, error, isPending } = useNoted();
  const [kind, setKind] = useState("");
  const [given, setGiven] = useState<Given>({});
  const [v, setV] = useState({ on: todayHere(), clock: "", note: "", not: false });
  const change = (part: Partial<typeof v>) => setV((now) => ({ ...now, ...part }));
  const doing = doings.data?.find((d) => d.key === kind);
  const body = doing && {
    kind,
    area_ids: [area_id],
    on: v.on,
    clock: v.clock,
    done: !v.not,
    told: v.not ? [] : toldOf(given),
    note: v.note,
  };
  const settled = useSettled(JSON.stringify(body ?? null), 250);
  const check = useCheckWork(JSON.parse(settled) as Schemas["WorkIn"] | null);
  const pick = (key: string) => {
    const next = doings.data?.find((d) => d.key === key);
    setKind(key);
    if (next) setGiven(startOf(next, usual.find((u) => u.kind === key)?.told ?? []));
  };
  return (
    <Form
      label="Work on this ground"
      error={error}
      live={check.error}
      onSubmit={() => body && noted(body, onDone)}
    >
      <Fields $columns={3}>
        <PickField
          label="What"
          name="kind"
          value={kind || null}
          options={(doings.data ?? []).map((d) => ({ key: d.key, text: d.name }))}
          onChange={pick}
          placeholder="Pick what was done"
        />
        <DateField label="On" name="on" value={v.on} onChange={(on) => change({ on })} />
        <TimeField
          label="At"
          name="clock"
          value={v.clock}
          onChange={(clock) => change({ clock })}
          hint="Where it is known"
        />
        {!v.not &&
          doing?.asks.map((a) => {
            const value = given[a.key];
            const set = (next: TypedQuantity | string) => setGiven((now) => ({ ...now, [a.key]: next }));
            if (a.units.length && typeof value === "object") {
              return (
                <QuantityField
                  key={a.key}
                  label={a.name}
                  name={`told.${a.key}`}
                  value={value}
                  units={a.units}
                  onChange={set}
                />
              );
            }
            if (a.choices.length) {
              return (
                <PickField
                  key={a.key}
                  label={a.name}
                  name={`told.${a.key}`}
                  value={(value as string) ?? ""}
                  options={[{ key: "", text: "None" }, ...a.choices]}
                  onChange={set}
                />
              );
            }
            return (
              <TextField
                key={a.key}
                label={a.name}
                name={`told.${a.key}`}
                value={(value as string) ?? ""}
                onChange={set}
              />
            );
          })}
        <TextField label="Note" name="note" value={v.note} onChange={(note) => change({ note })} />
      </Fields>
      <Switch value={v.not} onChange={(not) => change({ not })}>
        It was planned, and not done
      </Switch>
      {check.data?.map((said) => (
        <Notice key={said} tone="caution" word="Take care">
          {said}
        </Notice>
      ))}
      <Bar style={{ marginTop: 12 }}>
        <Button type="submit" look="main" isDisabled={!body || isPending}>
          Note it
        </Button>
        <Button look="quiet" onPress={onDone}>
          Leave it
        </Button>
      </Bar>
      <Fault
        error={error}
        besides={["kind", "on", "clock", ...(doing?.asks.map((a) => `told.${a.key}`) ?? [])]}
      />
    </Form>
  );
}
