import type { Schemas } from "../../api/client";
import type { TypedQuantity } from "../../parts/QuantityField";

export type JobIn = Schemas["JobIn"];
export type Row = Schemas["RateRowOut"];
export type Product = Schemas["ProductOut"];

/** What is picked on the reckon view; `rate` as typed. */
export interface Picked {
  product: number | null;
  row: number | null;
  rate: TypedQuantity;
  area: number | null;
  machine: number | null;
  passes: number;
  even: boolean;
}

export const nothing: Picked = {
  product: null, row: null, rate: { value: "", unit: "" }, area: null, machine: null, passes: 1, even: false,
}; // prettier-ignore

/** The job to reckon, once enough of it is picked. */
export function toJob(p: Picked): JobIn | null {
  if (p.product === null || p.row === null || p.area === null || !p.rate.value.trim()) return null;
  return {
    product_id: p.product,
    row_id: p.row,
    rate: p.rate,
    area_id: p.area,
    machine_id: p.machine,
    passes: p.passes,
    even: p.even,
  };
}

/** A job as an address, so that the reckon line and the book can open it. */
export function jobToSearch(job: JobIn): string {
  return new URLSearchParams({
    product: `${job.product_id}`, row: `${job.row_id}`, rate: `${job.rate.value}`, unit: job.rate.unit,
    area: `${job.area_id}`, machine: `${job.machine_id ?? ""}`, passes: `${job.passes}`,
  }).toString(); // prettier-ignore
}

const number = (text: string | null) => (text ? Number(text) : null);

export function fromSearch(search: URLSearchParams): Partial<Picked> | null {
  if (!search.has("product")) return null;
  return {
    product: number(search.get("product")),
    row: number(search.get("row")),
    rate: { value: search.get("rate") ?? "", unit: search.get("unit") ?? "" },
    area: number(search.get("area")),
    machine: number(search.get("machine")),
    passes: number(search.get("passes")) ?? 1,
  };
}

/** What is still to be picked, in words. */
export function missing(p: Picked): string {
  const parts = [
    p.product === null && "a product",
    p.product !== null && p.row === null && "a rate of its label",
    p.area === null && "an area",
  ].filter(Boolean);
  return parts.length ? `Pick ${parts.join(" and ")}.` : p.rate.value.trim() ? "" : "Set the rate.";
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
      now.first.measure.instruction === load.measure.instruction;
    if (same) {
      now.last = load;
      now.count += 1;
    } else groups.push({ first: load, last: load, count: 1 });
  }
  return groups;
}
