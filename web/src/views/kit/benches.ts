import type { Schemas } from "../../api/client";
import type { Option } from "../../parts/PickField";
import type { TypedQuantity } from "../../parts/QuantityField";
import { areaUnits, cupUnits, grainUnits, lengthUnits, tankUnits, volumeUnits } from "../../parts/units";

type System = "us" | "metric";
type Machine = Schemas["MachineOut"];
export type Figures = Schemas["BenchAskIn"]["figures"];
export type Method = Figures["method"];

/** A field of a bench beside its runs. Quantities have units; the others are typed or picked as they are. */
export interface BenchField {
  key: string;
  label: string;
  kind: "quantity" | "number" | "clock" | "product" | "course" | "way" | "size";
  units?: (system: System) => Option[];
  optional?: boolean;
  hint?: string;
}

/** How the runs of a bench are typed: one a row, with or without a time, or all on one line. */
interface Runs {
  label: string;
  units?: (system: System) => Option[];
  clock?: "needed" | "wanted";
  many?: string;
}

export interface Bench {
  method: Method;
  name: string;
  about: string;
  steps: string[];
  fields: BenchField[];
  runs?: Runs;
}

const swath: BenchField = { key: "width", label: "Swath", kind: "quantity", units: lengthUnits };
const paced: BenchField[] = [
  { key: "distance", label: "Distance timed", kind: "quantity", units: lengthUnits },
  { key: "pace_seconds", label: "It took, s", kind: "clock" },
  swath,
];
const dry: BenchField[] = [
  { key: "product_id", label: "Product", kind: "product" },
  { key: "setting", label: "Setting", kind: "number" },
];

const wet: Bench[] = [
  {
    method: "strip",
    name: "Walk a strip",
    about: "Water used on a strip of known size. The surest way on foot.",
    steps: [
      "Mark a strip, the longer the better, on hard ground or where water does no harm. Measure its length and the wetted swath.",
      "Fill to a mark with clean water. Spray the strip at the pace and pressure of the job; start the clock with the spray.",
      "Measure what it takes to fill to the mark again. Do it three times.",
    ],
    fields: [{ key: "length", label: "Length of the strip", kind: "quantity", units: lengthUnits }, swath],
    runs: { label: "Used", units: volumeUnits, clock: "wanted" },
  },
  {
    method: "flow",
    name: "Time the flow",
    about: "A bucket, a clock, and a measured pace. The flow alone is no output.",
    steps: [
      "Catch all the nozzles of the swath in a vessel for a timed while, at working pressure. Three times.",
      "Then walk or drive a measured distance at the pace of the job, and time it.",
      "Measure the wetted swath.",
    ],
    fields: paced,
    runs: { label: "Caught", units: volumeUnits, clock: "needed" },
  },
  {
    method: "catch",
    name: "Catch one nozzle on a course",
    about: "A course of such a length that what one nozzle gives reads as the output.",
    steps: [
      "Measure the ground that one nozzle covers: the spacing of a boom, the whole swath of a wand.",
      "Mark the distance that is told here, and time yourself over it at the pace of the job.",
      "Catch one nozzle for that time. What is caught reads as the output. Three nozzles, or three times.",
    ],
    fields: [
      { key: "course", label: "Course", kind: "course" },
      { key: "nozzle_width", label: "One nozzle covers", kind: "quantity", units: lengthUnits },
      { key: "walk_seconds", label: "Time over the course, s", kind: "clock", optional: true },
    ],
    runs: { label: "Caught", units: cupUnits },
  },
  {
    method: "emptying",
    name: "Empty a known volume",
    about: "How long a measured filling lasts while you walk.",
    steps: [
      "Pour in a measured volume of clean water.",
      "Spray it out at the pace and pressure of the job; start the clock with the spray, stop it with the last drop.",
      "Time a measured distance at the same pace, and measure the swath.",
    ],
    fields: [{ key: "volume", label: "Poured in", kind: "quantity", units: tankUnits }, ...paced],
    runs: { label: "Empty after", clock: "needed" },
  },
  {
    method: "tips",
    name: "Check the nozzles",
    about: "Every tip of a boom against the others, and against a new one.",
    steps: [
      "Hang a vessel under every tip. Catch all of them for the same time, at working pressure.",
      "Read them from the left, standing behind the boom.",
      "Clean those that give little, change those that give much, and catch again.",
    ],
    fields: [
      { key: "seconds", label: "Caught for, s", kind: "clock" },
      { key: "nozzle_size", label: "Size of the tips", kind: "size", optional: true },
      { key: "pressure", label: "Pressure", kind: "quantity", units: pressures, optional: true },
    ],
    runs: {
      label: "Caught by tip, from the left",
      units: cupUnits,
      many: "One after the other, with spaces.",
    },
  },
];

const hose: Bench[] = [
  {
    method: "dial",
    name: "Time the hose",
    about: "What a hose-end puts down by its dial, the flow at this tap, and the time on the ground.",
    steps: [
      "Set the dial. Fill a bucket of known size from the nozzle, and time it.",
      "Spray clean water evenly over a known area, and time that.",
      "Change the dial or the time until it is the rate of the label.",
    ],
    fields: [
      { key: "dial", label: "The dial sets", kind: "quantity", units: cupUnits },
      { key: "dial_per", label: "in each", kind: "quantity", units: tankUnits },
      { key: "bucket", label: "The bucket holds", kind: "quantity", units: tankUnits },
      { key: "bucket_seconds", label: "Full after, s", kind: "clock" },
      { key: "area", label: "Area sprayed", kind: "quantity", units: areaUnits },
      { key: "seconds", label: "It took, s", kind: "clock" },
    ],
  },
];

const spread: Bench[] = [
  {
    method: "weight",
    name: "Weigh it over an area",
    about: "Weighed in, spread on a known area, the rest weighed out.",
    steps: [
      "Mark a strip as long as you can; its width is the distance between passes. Use the product itself.",
      "Weigh what goes in. Walk at the pace of the job, open walking, close before you stop.",
      "Weigh what is left: the difference was put down. Three times at one setting; then another setting.",
    ],
    fields: [
      ...dry,
      { key: "length", label: "Length walked", kind: "quantity", units: lengthUnits },
      { key: "width", label: "Width of a pass", kind: "quantity", units: lengthUnits },
    ],
    runs: { label: "Put down", units: grainUnits },
  },
  {
    method: "pans",
    name: "Pans across the swath",
    about: "The pattern of a throw, how far apart to walk, and whether it is skewed.",
    steps: [
      "Lay pans in a line across the path, over one and a half times the throw, one of them on the track. No wind.",
      "Walk over the line three to five times, always in the same direction, at the setting of the job.",
      "Weigh each pan, from the left as you walk.",
    ],
    fields: [
      ...dry.map((f) => ({ ...f, optional: f.key === "setting" })),
      { key: "apart", label: "Pans apart, middle to middle", kind: "quantity", units: lengthUnits },
      {
        key: "track",
        label: "Pan on the track",
        kind: "number",
        optional: true,
        hint: "Empty: the middle one.",
      },
      { key: "passes", label: "Passes over the pans", kind: "number", optional: true },
      { key: "pan_area", label: "One pan’s area", kind: "quantity", units: areaUnits, optional: true },
      { key: "way", label: "The ground is walked", kind: "way" },
    ],
    runs: {
      label: "Caught by pan, from the left",
      units: () => grainUnits("metric"),
      many: "One after the other, with spaces.",
    },
  },
];

const tray: Bench = {
  method: "tray",
  name: "Catch it in a tray",
  about: "A tray under a drop spreader, over a measured length.",
  steps: [
    "Hang the tray under the gate. Use the product itself.",
    "Push it over a measured length at the pace of the job.",
    "Weigh what the tray caught. Three times at one setting; then another setting.",
  ],
  fields: [
    ...dry,
    { key: "length", label: "Length pushed", kind: "quantity", units: lengthUnits },
    { key: "width", label: "Width of the spreader", kind: "quantity", units: lengthUnits },
  ],
  runs: { label: "Caught", units: grainUnits },
};

function pressures(system: System): Option[] {
  const all = [
    { key: "psi", text: "psi" },
    { key: "bar", text: "bar" },
    { key: "kpa", text: "kPa" },
  ];
  return system === "us" ? all : [all[1]!, all[2]!, all[0]!];
}
export const pressureUnits = pressures;

/** The benches for a machine, the usual one first. */
export function benchesOf(machine: Machine): Bench[] {
  if (machine.kind === "spreader")
    return machine.form === "drop"
      ? [tray, spread[0]!]
      : machine.form === "broadcast"
        ? spread
        : [...spread, tray];
  if (machine.form === "hose_end") return hose;
  const boom = machine.form === "walking_boom" || machine.form === "ride_on";
  return boom ? [wet[1]!, wet[2]!, wet[4]!, wet[0]!, wet[3]!] : wet;
}

export interface Typed {
  quantities: Record<string, TypedQuantity>;
  values: Record<string, string>;
  runs: string[];
  seconds: string[];
  out: number[];
  unit: string;
}

/** An empty bench, with what the machine's card knows already. */
export function blank(bench: Bench, machine: Machine, system: System): Typed {
  const quantities: Record<string, TypedQuantity> = {};
  for (const f of bench.fields)
    if (f.kind === "quantity") quantities[f.key] = { value: "", unit: f.units!(system)[0]!.key };
  const { width, nozzle_spacing, pressure } = machine;
  if (quantities.width && width) quantities.width = { value: width.exact, unit: width.unit };
  if (quantities.nozzle_width && nozzle_spacing)
    quantities.nozzle_width = { value: nozzle_spacing.exact, unit: nozzle_spacing.unit };
  if (quantities.pressure && pressure) quantities.pressure = { value: pressure.exact, unit: pressure.unit };
  return {
    quantities,
    values: { way: "back_and_forth", nozzle_size: machine.nozzle_size },
    runs: bench.runs?.many ? [""] : ["", "", ""],
    seconds: ["", "", ""],
    out: [],
    unit: bench.runs?.units?.(system)[0]?.key ?? "",
  };
}

const given = (text: string | undefined) => !!text?.trim();

/** The runs as they are sent: those left out are empty, so that the others keep their places. */
const sent = (list: string[], out: number[]) => list.map((v, i) => (out.includes(i) ? "" : v));

/** The figures to send, or nothing while something that is needed is missing. */
export function toFigures(bench: Bench, typed: Typed, spacing: number | null): Figures | null {
  const body: Record<string, unknown> = { method: bench.method };
  for (const f of bench.fields) {
    const quantity = f.kind === "quantity";
    const there = quantity ? given(typed.quantities[f.key]?.value) : given(typed.values[f.key]);
    if (!there && !f.optional && !(f.key === "product_id")) return null;
    if (there) body[f.key] = quantity ? typed.quantities[f.key] : typed.values[f.key];
  }
  if (given(typed.values.product_id)) body.product_id = Number(typed.values.product_id);
  const many = bench.runs?.many;
  const runs = many ? typed.runs[0]!.split(/[\s;]+/).filter(Boolean) : sent(typed.runs, typed.out);
  if (bench.runs?.units) {
    if (!runs.some(given)) return null;
    body.runs = runs;
    body.unit = typed.unit;
  }
  if (bench.runs?.clock) {
    const seconds = sent(typed.seconds, typed.out);
    const paired = runs.every((r, i) => given(r) === given(seconds[i]));
    if (bench.runs.units && !paired && bench.runs.clock === "needed") return null;
    if (!bench.runs.units && !seconds.some(given)) return null;
    body.seconds = bench.runs.clock === "wanted" && !paired ? [] : seconds;
  }
  if (spacing !== null) body.spacing = spacing;
  return body as unknown as Figures;
}
