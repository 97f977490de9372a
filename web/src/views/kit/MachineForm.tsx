import { api, read, send, type Schemas } from "../../api/client";
import { useChange } from "../../api/hooks";
import { useKitOptions } from "../../api/kit";
import { useDraft } from "../../app/draft";
import { useAccount } from "../../app/session";
import { CardForm } from "../../parts/CardForm";
import { Page } from "../../parts/Page";
import { PickField } from "../../parts/PickField";
import { QuantityField } from "../../parts/QuantityField";
import { Fields } from "../../parts/Section";
import { Switch } from "../../parts/Switch";
import { TextField } from "../../parts/TextField";
import { dialUnits, lengthUnits, outputUnits, tankUnits, volumeUnits } from "../../parts/units";
import { pressureUnits } from "./benches";
import { capacityUnits, toMachineIn, typedMachine, type Machine } from "./typedMachine";

type Kind = Machine["kind"];

/** A machine's form. What is half typed survives a reload. */
export function MachineForm({ machine }: { machine?: Machine }) {
  const account = useAccount();
  const us = account.units === "us";
  const draft = useDraft(`${account.slug}/machine/${machine?.id ?? "new"}`, typedMachine(machine, us));
  const { value, change } = draft;
  const save = useChange((path, body: Schemas["MachineIn"]) =>
    machine
      ? read(
          send.PUT("/api/accounts/{account}/machines/{machine_id}", {
            params: { path: { ...path, machine_id: machine.id } },
            body,
          }),
        )
      : read(send.POST("/api/accounts/{account}/machines", { params: { path }, body })),
  );
  const remove = useChange((path, machine_id: number) =>
    read(
      api.DELETE("/api/accounts/{account}/machines/{machine_id}", {
        params: { path: { ...path, machine_id } },
      }),
    ),
  );
  const putBack = useChange((path, machine_id: number) =>
    read(
      api.POST("/api/accounts/{account}/machines/{machine_id}/put-back", {
        params: { path: { ...path, machine_id } },
      }),
    ),
  );
  const options = useKitOptions().data;
  const sprayer = value.kind === "sprayer";
  const hose = value.form === "hose_end";
  const vessel = hose ? "bottle" : "tank";
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
        body={() => toMachineIn(value)}
        save={save}
        remove={remove}
        putBack={putBack}
        draft={draft}
        placed={[
          "name",
          "kind",
          "form",
          "capacity",
          "mark",
          "output",
          "width",
          "nozzle_count",
          "nozzle_spacing",
          "pressure",
          "dials",
          "dial_unit",
          "setting_step",
          "note",
        ]}
      >
        <Fields style={{ maxWidth: 760 }}>
          <TextField
            needed
            label="Name"
            name="name"
            value={value.name}
            onChange={(name) => change({ name })}
          />
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
                form: "",
                capacity: {
                  ...value.capacity,
                  unit: kind === "sprayer" ? (us ? "gal" : "l") : us ? "lb" : "kg",
                },
              })
            }
          />
          <PickField
            label="Built as"
            name="form"
            value={value.form || null}
            placeholder="Choose"
            options={(options?.forms ?? []).filter((f) => f.kind === value.kind)}
            onChange={(form) =>
              change({
                form,
                capacity: {
                  ...value.capacity,
                  unit: form === "hose_end" && !value.capacity.value && us ? "fl_oz" : value.capacity.unit,
                },
              })
            }
          />
          <QuantityField
            needed
            label={hose ? "Bottle holds" : sprayer ? "Tank holds" : "Hopper holds"}
            name="capacity"
            value={value.capacity}
            units={capacityUnits(value.kind, value.form, account.units)}
            onChange={(capacity) => change({ capacity })}
          />
          {sprayer && (
            <QuantityField
              label={`Between two marks of the ${vessel}`}
              name="mark"
              value={value.mark}
              units={(hose ? volumeUnits : tankUnits)(account.units)}
              onChange={(mark) => change({ mark })}
              hint="The sheet then says to which mark to fill. Empty where the tank has none."
            />
          )}
          {sprayer && (
            <QuantityField
              label="Output of one pass"
              name="output"
              value={value.output}
              units={outputUnits(account.units)}
              onChange={(output) => change({ output })}
              hint="If it is known; it counts until a calibration does. A timed bucket alone is not it."
            />
          )}
          {sprayer && !hose && value.output.value.trim() && (
            <Switch value={value.output_assumed} onChange={(output_assumed) => change({ output_assumed })}>
              A guess: say so wherever it counts, until it is measured
            </Switch>
          )}
          <QuantityField
            label={sprayer ? "Swath" : "Width of a pass"}
            name="width"
            value={value.width}
            units={lengthUnits(account.units)}
            onChange={(width) => change({ width })}
            hint={
              sprayer
                ? "The width that is wetted in one pass."
                : "From track to track, if no pan test tells it."
            }
          />
          {hose && (
            <>
              <TextField
                label="Positions of the dial"
                name="dials"
                value={value.dials}
                onChange={(dials) => change({ dials })}
                hint="As printed on it, one after the other: 1, 2, 4, 8. One, where it is fixed."
              />
              <PickField
                label="They count"
                name="dial_unit"
                value={value.dial_unit}
                options={dialUnits(account.units)}
                onChange={(dial_unit) => change({ dial_unit })}
                hint="What the dial draws into each gallon or litre of spray."
              />
            </>
          )}
          {!sprayer && (
            <TextField
              label="Between two clicks of the dial"
              name="setting_step"
              value={value.setting_step}
              onChange={(setting_step) => change({ setting_step })}
              hint="Settings are then told as the dial has them. Empty where it turns freely."
              input={{ inputMode: "decimal" }}
            />
          )}
          {sprayer && !hose && (
            <>
              <PickField
                label="Size of the tips"
                name="nozzle_size"
                value={value.nozzle_size}
                options={[
                  { key: "", text: "None" },
                  ...(options?.sizes ?? []).map((s) => ({ key: s.key, text: s.text, note: s.flow })),
                ]}
                onChange={(nozzle_size) => change({ nozzle_size })}
                hint="Another size asks for a new calibration."
              />
              <TextField
                label="How many tips"
                name="nozzle_count"
                value={value.nozzle_count}
                onChange={(nozzle_count) => change({ nozzle_count })}
                input={{ inputMode: "numeric" }}
              />
              <QuantityField
                label="Tips apart"
                name="nozzle_spacing"
                value={value.nozzle_spacing}
                units={lengthUnits(account.units)}
                onChange={(nozzle_spacing) => change({ nozzle_spacing })}
              />
              <QuantityField
                label="Working pressure"
                name="pressure"
                value={value.pressure}
                units={pressureUnits(account.units)}
                onChange={(pressure) => change({ pressure })}
              />
              <PickField
                label="Droplets at that pressure"
                name="droplets"
                value={value.droplets}
                options={[{ key: "", text: "None" }, ...(options?.droplets ?? [])]}
                onChange={(droplets) => change({ droplets })}
                hint="As the maker of the tip gives it."
              />
            </>
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
