import { api, read, type Schemas } from "../../api/client";
import { useChange } from "../../api/hooks";
import { useDraft } from "../../app/draft";
import { useClub } from "../../app/session";
import { CardForm } from "../../parts/CardForm";
import { Page } from "../../parts/Page";
import { PickField } from "../../parts/PickField";
import { QuantityField } from "../../parts/QuantityField";
import { Fields } from "../../parts/Section";
import { TextField } from "../../parts/TextField";
import { outputUnits, tankUnits, weightUnits } from "../../parts/units";

type Machine = Schemas["MachineOut"];
type Kind = Machine["kind"];

function typed(machine: Machine | undefined, us: boolean) {
  return {
    name: machine?.name ?? "",
    kind: (machine?.kind ?? "sprayer") as Kind,
    capacity: { value: machine?.capacity.exact ?? "", unit: machine?.capacity.unit ?? (us ? "gal" : "l") },
    output: {
      value: machine?.output?.exact ?? "",
      unit: machine?.output?.unit ?? (us ? "gal/kft2" : "l/m2_100"),
    },
    note: machine?.note ?? "",
  };
}

/** A machine's form. What is half typed survives a reload. */
export function MachineForm({ machine }: { machine?: Machine }) {
  const club = useClub();
  const us = club.units === "us";
  const draft = useDraft(`${club.slug}/machine/${machine?.id ?? "new"}`, typed(machine, us));
  const { value, change } = draft;
  const save = useChange((path, body: Schemas["MachineIn"]) =>
    machine
      ? read(
          api.PUT("/api/clubs/{club}/machines/{machine_id}", {
            params: { path: { ...path, machine_id: machine.id } },
            body,
          }),
        )
      : read(api.POST("/api/clubs/{club}/machines", { params: { path }, body })),
  );
  const remove = useChange((path, machine_id: number) =>
    read(
      api.DELETE("/api/clubs/{club}/machines/{machine_id}", { params: { path: { ...path, machine_id } } }),
    ),
  );
  const putBack = useChange((path, machine_id: number) =>
    read(
      api.POST("/api/clubs/{club}/machines/{machine_id}/put-back", {
        params: { path: { ...path, machine_id } },
      }),
    ),
  );
  const sprayer = value.kind === "sprayer";
  return (
    <Page
      sentence={
        machine
          ? `${machine.name}, as it stands.`
          : "A new machine: what does it hold, and what does it put down?"
      }
    >
      <CardForm
        what="machine"
        place="kit"
        card={machine}
        add="Add the machine"
        added="is in the kit"
        body={() => ({ ...value, output: sprayer && value.output.value.trim() ? value.output : null })}
        save={save}
        remove={remove}
        putBack={putBack}
        draft={draft}
        placed={["name", "kind", "capacity", "output", "note"]}
      >
        <Fields style={{ maxWidth: 760 }}>
          <TextField label="Name" name="name" value={value.name} onChange={(name) => change({ name })} />
          <PickField
            label="What it is"
            name="kind"
            value={value.kind}
            options={[
              { key: "sprayer", text: "Sprayer", note: "A tank of liquid, by the pass" },
              { key: "spreader", text: "Spreader", note: "A hopper of granules, by weight" },
            ]}
            onChange={(kind) =>
              change({
                kind: kind as Kind,
                capacity: {
                  ...value.capacity,
                  unit: kind === "sprayer" ? (us ? "gal" : "l") : us ? "lb" : "kg",
                },
              })
            }
          />
          <QuantityField
            label={sprayer ? "Tank holds" : "Hopper holds"}
            name="capacity"
            value={value.capacity}
            units={sprayer ? tankUnits(club.units) : weightUnits(club.units)}
            onChange={(capacity) => change({ capacity })}
          />
          {sprayer && (
            <QuantityField
              label="Output of one pass"
              name="output"
              value={value.output}
              units={outputUnits(club.units)}
              onChange={(output) => change({ output })}
              hint="Volume per area, measured by walking a known area with water. A timed bucket alone is not it."
            />
          )}
          <TextField
            label="Note"
            name="note"
            lines
            value={value.note}
            onChange={(note) => change({ note })}
          />
        </Fields>
      </CardForm>
    </Page>
  );
}
