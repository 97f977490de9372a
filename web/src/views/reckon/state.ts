import type { Schemas } from "../../api/client";
import type { Option } from "../../parts/PickField";
import type { Group } from "../../parts/ManyField";
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

/** What is picked of areas with one press: all of a site, of a use, of a grass, where that is several and not all. */
export function areaGroups(list: Schemas["AreaOut"][] = []): Group[] {
  const by = (name: (a: Schemas["AreaOut"]) => string) => {
    const found = new Map<string, string[]>();
    for (const a of list) if (name(a)) found.set(name(a), [...(found.get(name(a)) ?? []), `${a.id}`]);
    return [...found].filter(([, keys]) => keys.length > 1 && keys.length < list.length);
  };
  const plural = (use: string) => (use.endsWith("s") ? use : `${use}s`);
  return [
    ...by((a) => a.site).map(([site, keys]) => ({ text: `All of ${site}`, keys })),
    ...by((a) => a.use).map(([use, keys]) => ({ text: `All ${plural(use)}`, keys })),
    ...by((a) => a.grass_name).map(([grass, keys]) => ({ text: `All ${grass.toLowerCase()}`, keys })),
  ].slice(0, 10);
}

/** A component's rate on one area; `row` and `rate` are empty until the label's row for it is known. */
export interface PickedDose {
  row: number | null;
  rate: TypedQuantity;
}

/** One area of the job with a dose a component, in the mix's order; `spray` is how much is mixed for its spots. */
export interface PickedPart {
  area: number;
  doses: PickedDose[];
  share: string;
  spray?: TypedQuantity;
  zone: string;
}

/** One product of the mix; a dye may go in `taste`, without a rate. */
export interface PickedComponent {
  product: number | null;
  target: string;
  taste: boolean;
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
  mix: PickedComponent[];
  parts: PickedPart[];
  machine: number | null;
  passes: number;
  even: boolean;
  by_pass: boolean;
  crossing?: JobIn["crossing"];
  dial: TypedQuantity;
  undiluted: boolean;
  spots?: boolean;
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

export const noProduct: PickedComponent = { product: null, target: "", taste: false };
export const nothing: Picked = {
  mix: [noProduct],
  parts: [],
  machine: null,
  passes: 1,
  even: false,
  by_pass: false,
  crossing: "",
  dial: unsaid,
  undiluted: false,
  spots: false,
  on: "",
  clock: "",
  said: nobodyLooked,
};
export const noDose: PickedDose = { row: null, rate: { value: "", unit: "" } };
export const partOf = (area: number, mix: PickedComponent[]): PickedPart => ({
  area,
  doses: mix.map(() => noDose),
  share: "",
  zone: "",
});

/** The same parts with the dose of one component changed where `change` says so. */
const dosed = (
  parts: PickedPart[],
  place: number,
  change: (dose: PickedDose, part: PickedPart) => PickedDose,
) => parts.map((p) => ({ ...p, doses: p.doses.map((d, c) => (c === place ? change(d, p) : d)) }));

/** Another product or purpose in one place of the mix: its label rows are to be found anew. */
export const withComponent = (p: Picked, place: number, part: Partial<PickedComponent>): Partial<Picked> => ({
  mix: p.mix.map((c, i) => (i === place ? { ...c, ...part } : c)),
  parts: dosed(p.parts, place, () => noDose),
});

/** One more product in the tank. */
export const added = (p: Picked): Partial<Picked> => ({
  mix: [...p.mix, noProduct],
  parts: p.parts.map((x) => ({ ...x, doses: [...x.doses, noDose] })),
});

/** The mix without one of its products. */
export const removed = (p: Picked, place: number): Partial<Picked> => ({
  mix: p.mix.filter((_, i) => i !== place),
  parts: p.parts.map((x) => ({ ...x, doses: x.doses.filter((_, i) => i !== place) })),
});

/** Some parts of the job with another dose of one component. */
export const withDose = (
  p: Picked,
  place: number,
  at: number[],
  dose: Partial<PickedDose>,
): Partial<Picked> => ({
  parts: p.parts.map((x, i) =>
    at.includes(i) ? { ...x, doses: x.doses.map((d, c) => (c === place ? { ...d, ...dose } : d)) } : x,
  ),
});

/** The job to reckon, once enough of it is picked. */
export function toJob(p: Picked): JobIn | null {
  if (!p.parts.length || p.mix.some((c) => c.product === null)) return null;
  if (p.spots && p.parts.some((x) => !x.spray?.value.trim())) return null;
  if (
    p.parts.some((x) => x.doses.some((d, c) => !p.mix[c]?.taste && (d.row === null || !d.rate.value.trim())))
  )
    return null;
  return {
    mix: p.mix.map((c) => ({ product_id: c.product!, target: c.target })),
    parts: p.parts.map((x) => ({
      area_id: x.area,
      doses: x.doses.map((d, c) => (p.mix[c]!.taste ? {} : { row_id: d.row, rate: d.rate })),
      share: p.spots ? "" : x.share,
      spray: p.spots && x.spray ? filled(x.spray) : null,
      zone: x.zone,
    })),
    spots: p.spots ?? false,
    machine_id: p.machine,
    passes: p.passes,
    even: p.even,
    by_pass: p.by_pass,
    crossing: p.passes > 1 ? (p.crossing ?? "") : "",
    dial: filled(p.dial ?? unsaid),
    undiluted: p.undiluted ?? false,
    on: p.on || null,
    clock: p.clock,
    said: saidIn(p.said),
  };
}

/** What somebody looked at, as it is sent. */
export const saidIn = (said: Said) => ({
  ...said,
  air: filled(said.air),
  wind: filled(said.wind),
  soil: filled(said.soil),
});

const filled = (x: TypedQuantity) => (x.value.trim() ? x : null);

/** A job as an address, so that the reckon line can open it. */
export function jobToSearch(job: JobIn): string {
  return new URLSearchParams({ job: JSON.stringify(job) }).toString();
}

export function fromSearch(
  search: URLSearchParams,
): Partial<Picked> | ((now: Picked) => Partial<Picked>) | null {
  const area = search.get("area");
  const product = search.get("product");
  if (area && product) {
    const mix = [{ product: Number(product), target: "", taste: false }];
    const machine = Number(search.get("machine")) || null;
    return { mix, parts: [partOf(Number(area), mix)], ...(machine && { machine }) };
  }
  if (area) return (now) => ({ parts: [partOf(Number(area), now.mix)] });
  const text = search.get("job");
  if (!text) return null;
  const job = JSON.parse(text) as JobIn;
  return {
    mix: job.mix.map((c, i) => ({
      product: c.product_id,
      target: c.target,
      taste: job.parts.every((p) => p.doses[i]?.row_id == null),
    })),
    parts: job.parts.map((p) => ({
      area: p.area_id,
      doses: p.doses.map((d) =>
        d.row_id != null && d.rate
          ? { row: d.row_id, rate: { value: `${d.rate.value}`, unit: d.rate.unit } }
          : noDose,
      ),
      share: p.share,
      spray: p.spray ? { value: `${p.spray.value}`, unit: p.spray.unit } : undefined,
      zone: p.zone,
    })),
    spots: job.spots,
    machine: job.machine_id ?? null,
    passes: job.passes,
    by_pass: job.by_pass,
    crossing: job.crossing,
    dial: job.dial ? { value: `${job.dial.value}`, unit: job.dial.unit } : unsaid,
    undiluted: job.undiluted,
    on: job.on ?? "",
    clock: job.clock,
  };
}

/** Parts whose row of one component is not chosen yet, with the row that the label means and the rate it opens with. */
export function matched(parts: PickedPart[], place: number, fits: Fits): PickedPart[] | null {
  if (!parts.some((p) => p.doses[place]?.row === null && fits[p.area]?.length)) return null;
  return dosed(parts, place, (dose, part) => {
    const first = fits[part.area]?.[0];
    return dose.row === null && first
      ? { row: first.row_id, rate: { value: first.start.exact, unit: first.start.unit } }
      : dose;
  });
}

/** What is still to be picked, in words. */
export function missing(p: Picked): string {
  const parts = [p.mix.some((c) => c.product === null) && "a product", !p.parts.length && "an area"].filter(
    Boolean,
  );
  if (parts.length) return `Pick ${parts.join(" and ")}.`;
  const open = p.parts.some((x) =>
    x.doses.some((d, c) => !p.mix[c]?.taste && d.row !== null && !d.rate.value.trim()),
  );
  if (open) return "Set the rate.";
  return p.spots && p.parts.some((x) => !x.spray?.value.trim()) ? "Enter how much to mix." : "";
}

export type LoadOut = Schemas["LoadOut"];

/** Loads that follow each other and are alike, together: the sheet lists each, the reckoning needs each kind once. */
export function alike(loads: LoadOut[]): { first: LoadOut; last: LoadOut; count: number }[] {
  const groups: { first: LoadOut; last: LoadOut; count: number }[] = [];
  for (const load of loads) {
    const now = groups.at(-1);
    const same =
      now &&
      now.first.volume === load.volume &&
      now.first.where === load.where &&
      now.first.pass_number === load.pass_number &&
      now.first.pours.every((p, i) => {
        const other = load.pours[i];
        return p.amount === other?.amount && p.measure?.instruction === other.measure?.instruction;
      });
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
  { to: `/a/${account}/reckon/mixes`, text: "Kept mixes" },
];
