import type { Schemas } from "../../api/client";
import { typedOf } from "../../parts/QuantityField";
import { tankUnits, volumeUnits, weightUnits } from "../../parts/units";

export type Machine = Schemas["MachineOut"];

/** A machine as its form holds it: everything as text, so that nothing is lost while it is half typed. */
export function typedMachine(machine: Machine | undefined, us: boolean) {
  return {
    version: machine?.version ?? null,
    name: machine?.name ?? "",
    kind: (machine?.kind ?? "sprayer") as Machine["kind"],
    capacity: { value: machine?.capacity.exact ?? "", unit: machine?.capacity.unit ?? (us ? "gal" : "l") },
    mark: typedOf(machine?.mark, machine?.capacity.unit ?? (us ? "gal" : "l")),
    form: machine?.form ?? "",
    output: {
      value: machine?.typed_output?.exact ?? "",
      unit: machine?.typed_output?.unit ?? (us ? "gal/kft2" : "l/m2_100"),
    },
    output_assumed: machine?.output_assumed ?? false,
    width: typedOf(machine?.width, us ? "ft" : "m"),
    nozzle_size: machine?.nozzle_size ?? "",
    nozzle_count: `${machine?.nozzle_count ?? ""}`,
    nozzle_spacing: typedOf(machine?.nozzle_spacing, us ? "in" : "cm"),
    pressure: typedOf(machine?.pressure, us ? "psi" : "bar"),
    droplets: `${machine?.droplets ?? ""}`,
    dials: machine?.dials ?? "",
    dial_unit: machine?.dial_unit || (us ? "fl_oz/gal" : "ml/l"),
    setting_step: `${machine?.setting_step ?? ""}`,
    note: machine?.note ?? "",
  };
}

export type TypedMachine = ReturnType<typeof typedMachine>;

/** What goes to the server: what is left empty is not known, and a spreader has no output. */
export function toMachineIn(typed: TypedMachine): Schemas["MachineIn"] {
  const known = typed.kind === "sprayer" && typed.output.value.trim();
  return {
    ...typed,
    output: known ? typed.output : null,
    droplets: typed.droplets ? Number(typed.droplets) : null,
    setting_step: typed.setting_step || null,
  };
}

/** The units of what a machine holds: a bottle's, a tank's or a hopper's. */
export const capacityUnits = (kind: Machine["kind"], form: string, system: "us" | "metric") =>
  (form === "hose_end" ? volumeUnits : kind === "sprayer" ? tankUnits : weightUnits)(system);
