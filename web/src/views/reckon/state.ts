import type { Schemas } from "../../api/client";
import type { Option } from "../../parts/PickField";
import type { TypedQuantity } from "../../parts/QuantityField";

export type JobIn = Schemas["JobIn"];
export type Row = Schemas["RateRowOut"];
export type Product = Schemas["ProductOut"];
export type Fits = Record<number, Schemas["RowFitOut"][]>;

/** Products and areas as options of a pick. */
export const productOptions = (list: Product[] = []): Option[] =>
  list.map((p) => ({
    key: `${p.id}`,
    text: p.name,
    note: `${p.kind_text}, ${p.formulation_text}${p.stock ? `, ${p.stock} in stock` : ""}`,
  }));
export const areaOptions = (list: Schemas["AreaOut"][] = []): Option[] =>
  list.map((a) => ({
    key: `${a.id}`,
    text: a.name,
    note: `${a.size.text}, ${a.grass_name}${a.height ? `, ${a.height.text}` : ""}`,
  }));

/** One area of the job; `row` and `rate` are empty until the label's row for it is known. */
export interface PickedPart {
  area: number;
  row: number | null;
  rate: TypedQuantity;
  share: string;
  zone: string;
}

/** What somebody looked at; empty where nobody did. */
export interface Said {
  leaf: "" | "dry" | "wet";
  air: TypedQuantity;
  wind: TypedQuantity;
  soil: TypedQuantity;
  dry_before: boolean;
  dry_after: boolean;
}

/** What is picked on the reckon view; rates as typed. */
export interface Picked {
  product: number | null;
  target: string;
  parts: PickedPart[];
  machine: number | null;
  passes: number;
  even: boolean;
  on: string;
  clock: string;
  said: Said;
}

const unsaid = { value: "", unit: "" };
export const nobodyLooked: Said = {
  leaf: "",
  air: unsaid,
  wind: unsaid,
  soil: unsaid,
  dry_before: false,
  dry_after: false,
};

export const nothing: Picked = {
  product: null,
  target: "",
  parts: [],
  machine: null,
  passes: 1,
  even: false,
  on: "",
  clock: "",
  said: nobodyLooked,
};
const noRate: TypedQuantity = { value: "", unit: "" };
export const partOf = (area: number): PickedPart => ({ area, row: null, rate: noRate, share: "", zone: "" });

/** The same parts with their rows to be found anew, as after another product or purpose is picked. */
export const unmatched = (parts: PickedPart[]) => parts.map((p) => ({ ...p, row: null, rate: noRate }));

/** The job to reckon, once enough of it is picked. */
export function toJob(p: Picked): JobIn | null {
  if (p.product === null || !p.parts.length) return null;
  if (p.parts.some((x) => x.row === null || !x.rate.value.trim())) return null;
  return {
    product_id: p.product,
    parts: p.parts.map((x) => ({
      area_id: x.area,
      row_id: x.row!,
      rate: x.rate,
      share: x.share,
      zone: x.zone,
    })),
    machine_id: p.machine,
    passes: p.passes,
    even: p.even,
    target: p.target,
    on: p.on || null,
    clock: p.clock,
    said: {
      ...p.said,
      air: filled(p.said.air),
      wind: filled(p.said.wind),
      soil: filled(p.said.soil),
    },
  };
}

const filled = (x: TypedQuantity) => (x.value.trim() ? x : null);

/** A job as an address, so that the reckon line can open it. */
export function jobToSearch(job: JobIn): string {
  return new URLSearchParams({ job: JSON.stringify(job) }).toString();
}

export function fromSearch(search: URLSearchParams): Partial<Picked> | null {
  const area = search.get("area");
  if (area) return { parts: [partOf(Number(area))] };
  const text = search.get("job");
  if (!text) return null;
  const job = JSON.parse(text) as JobIn;
  return {
    product: job.product_id,
    parts: job.parts.map((p) => ({
      area: p.area_id,
      row: p.row_id,
      rate: { value: `${p.rate.value}`, unit: p.rate.unit },
      share: p.share,
      zone: p.zone,
    })),
    machine: job.machine_id ?? null,
    passes: job.passes,
    target: job.target,
    on: job.on ?? "",
    clock: job.clock,
  };
}

/** Parts whose row is not chosen yet, with the row that the label means for their ground and the rate it opens with. */
export function matched(parts: PickedPart[], fits: Fits): PickedPart[] | null {
  if (!parts.some((p) => p.row === null && fits[p.area]?.length)) return null;
  return parts.map((p) => {
    const first = fits[p.area]?.[0];
    return p.row === null && first
      ? { ...p, row: first.row_id, rate: { value: first.start.exact, unit: first.start.unit } }
      : p;
  });
}

/** What is still to be picked, in words. */
export function missing(p: Picked): string {
  const parts = [p.product === null && "a product", !p.parts.length && "an area"].filter(Boolean);
  if (parts.length) return `Pick ${parts.join(" and ")}.`;
  return p.parts.some((x) => x.row !== null && !x.rate.value.trim()) ? "Set the rate." : "";
}

export type LoadOut = Schemas["LoadOut"];

/** Loads that follow each other and are alike, together: the sheet lists each, the reckoning needs each kind once. */
export function alike(loads: LoadOut[]): { first: LoadOut; last: LoadOut; count: number }[] {
  const groups: { first: LoadOut; last: LoadOut; count: number }[] = [];
  for (const load of loads) {
    const now = groups.at(-1);
    const same =
      now &&
      now.first.product === load.product &&
      now.first.volume === load.volume &&
      now.first.where === load.where &&
      now.first.measure.instruction === load.measure.instruction;
    if (same) {
      now.last = load;
      now.count += 1;
    } else groups.push({ first: load, last: load, count: 1 });
  }
  return groups;
}

/** The parts of the place, as its sub-rule shows them. */
export const reckonParts = (account: string) => [
  { to: `/a/${account}/reckon`, text: "A dose" },
  { to: `/a/${account}/reckon/back`, text: "Backwards" },
  { to: `/a/${account}/reckon/compare`, text: "Side by side" },
  { to: `/a/${account}/reckon/measure`, text: "Measuring" },
];
