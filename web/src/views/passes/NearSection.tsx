import { useState } from "react";
import type { Schemas } from "../../api/client";
import { usePlaceNear } from "../../api/passes";
import { useAccount, useMay } from "../../app/session";
import { say } from "../../app/toast";
import { Button } from "../../parts/Button";
import { Hint } from "../../parts/Field";
import { Form } from "../../parts/Form";
import { Fault } from "../../parts/Notice";
import { PickField } from "../../parts/PickField";
import { Bar, Fields, Section } from "../../parts/Section";
import { TextField } from "../../parts/TextField";

type How = "" | "spot" | "box" | "side";
interface Lies {
  how: How;
  unit: string;
  x: string;
  y: string;
  across: string;
  along: string;
  side: string;
}

interface Props {
  area: Schemas["AreaOut"];
  placing: boolean;
  onPlacing: (on: boolean) => void;
}

const spans: Record<Exclude<How, "">, [keyof Lies, string][]> = {
  spot: [
    ["x", "Middle, from the left"],
    ["y", "Middle, from below"],
    ["across", "Across"],
  ],
  box: [
    ["x", "Corner, from the left"],
    ["y", "Corner, from below"],
    ["across", "Wide"],
    ["along", "High"],
  ],
  side: [["side", "Number of the side"]],
};

const called = (h: Schemas["HazardOut"]) => [h.kind_text, h.name].filter(Boolean).join(", ");

/** Where what must be kept off lies on the plan: a spot, a box, or along a side. */
export function NearSection({ area, placing, onPlacing }: Props) {
  const account = useAccount();
  const may = useMay("manager");
  const unit = account.units === "us" ? "ft" : "m";
  const [places, setPlaces] = useState<Lies[]>(() =>
    area.hazards.map(({ lies }) => ({
      how: lies?.how ?? "",
      unit: lies?.unit ?? unit,
      x: `${lies?.x ?? ""}`,
      y: `${lies?.y ?? ""}`,
      across: `${lies?.across ?? ""}`,
      along: `${lies?.along ?? ""}`,
      side: `${lies?.side || ""}`,
    })),
  );
  const save = usePlaceNear(area.id);
  const set = (i: number, part: Partial<Lies>) =>
    setPlaces((now) => now.map((p, j) => (j === i ? { ...p, ...part } : p)));
  const submit = () =>
    save.mutate(
      {
        version: area.version,
        places: places.map((p) =>
          p.how
            ? {
                how: p.how,
                unit: p.unit,
                x: p.x || 0,
                y: p.y || 0,
                across: p.across || 0,
                along: p.along || 0,
                side: Number(p.side) || 0,
              }
            : null,
        ),
      },
      {
        onSuccess: () => {
          onPlacing(false);
          say("It is on the plan.");
        },
      },
    );
  return (
    <Section
      title={
        <>
          Keep off
          {may && (
            <Button look="quiet" onPress={() => onPlacing(!placing)}>
              {placing ? "Leave it" : "Place it on the plan"}
            </Button>
          )}
        </>
      }
    >
      {!placing &&
        area.hazards.map((h, i) => (
          <p key={i}>
            <strong>{called(h)}</strong>
            {h.buffer ? `: ${h.buffer.text} away` : ""}
            {h.lies ? "" : "; not on the plan yet"}
          </p>
        ))}
      {placing && (
        <Form label="Keep off" error={save.error} onSubmit={submit}>
          <Hint>{`Measured in ${unit} from the plan’s lower left corner; its sides are numbered above.`}</Hint>
          {area.hazards.map((h, i) => {
            const p = places[i]!;
            return (
              <Fields key={i} $columns={4} style={{ marginTop: 12 }} role="group" aria-label={called(h)}>
                <PickField
                  label={called(h)}
                  name={`places.${i}`}
                  value={p.how}
                  options={[
                    { key: "", text: "Not on the plan" },
                    { key: "spot", text: "A spot" },
                    { key: "box", text: "A box" },
                    { key: "side", text: "Along a side" },
                  ]}
                  onChange={(how) => set(i, { how: how as How })}
                />
                {p.how &&
                  spans[p.how].map(([key, label]) => (
                    <TextField
                      key={key}
                      label={key === "side" ? label : `${label}, ${p.unit}`}
                      name={`places.${i}.${key}`}
                      value={p[key]}
                      onChange={(v) => set(i, { [key]: v })}
                      input={{ inputMode: "decimal" }}
                    />
                  ))}
              </Fields>
            );
          })}
          <Fault error={save.error} besides={["places"]} />
          <Bar>
            <Button look="main" type="submit" isDisabled={save.isPending}>
              Put it on the plan
            </Button>
          </Bar>
        </Form>
      )}
    </Section>
  );
}
