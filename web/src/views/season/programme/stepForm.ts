import type { Schemas } from "../../../api/client";
import type { Step } from "../../../api/programme";
import { todayHere } from "../../../parts/DateField";

export interface TypedProduct {
  product: string;
  target: string;
  rate: { value: string; unit: string };
  instead: boolean;
}
export interface TypedStep {
  name: string;
  timing: Schemas["WhenIn"]["timing"];
  begin: string;
  end: string;
  every: string;
  monthly: string;
  sum: string;
  base: string;
  soil: { value: string; unit: string };
  rising: string;
  disease: string;
  cold: { value: string; unit: string };
  offset: string;
  side: string;
  goesBy: string;
  grace: string;
  products: TypedProduct[];
  areas: string[];
  site: string;
  use: string;
  grass: string;
  water: { value: string; unit: string };
  why: string;
}

export const noProduct: TypedProduct = {
  product: "",
  target: "",
  rate: { value: "", unit: "" },
  instead: false,
};
export const OVERSEED = "overseed";

/** A step as its form holds it: a kept one, or a new one of a year. */
export function typed(step: Step | undefined, year: number, us: boolean): TypedStep {
  const when = step?.when;
  const first = year === new Date().getFullYear() ? todayHere() : `${year}-04-01`;
  return {
    name: step?.name ?? "",
    timing: when?.timing ?? "dated",
    begin: when?.begin ?? first,
    end: when?.end ?? `${first.slice(0, 4)}-${first.slice(5) < "10-31" ? "10-31" : "12-31"}`,
    every: when?.every ? `${when.every}` : "14",
    monthly: when?.monthly || "1, 15",
    sum: when?.sum ? `${when.sum}` : "200",
    base: `${when?.base ?? 0}`,
    soil: when?.soil ?? { value: us ? "55" : "12.8", unit: us ? "degF" : "degC" },
    cold: when?.cold ?? { value: us ? "43" : "6", unit: us ? "degF" : "degC" },
    disease: when?.disease ?? "",
    rising: when?.rising === false ? "down" : "up",
    offset: `${Math.abs(when?.offset ?? 7)}`,
    side: (when?.offset ?? -1) < 0 ? "before" : "after",
    goesBy: step?.anchor
      ? step.anchor
      : step?.event_id
        ? `event:${step.event_id}`
        : step?.after_id
          ? `step:${step.after_id}`
          : "",
    grace: `${when?.grace ?? 7}`,
    products: step?.products.length
      ? step.products.map((p) => ({
          product: `${p.product_id}`,
          target: p.target,
          rate: { value: p.rate?.exact ?? "", unit: p.rate?.unit ?? "" },
          instead: p.instead,
        }))
      : [noProduct],
    areas: step?.area_ids.map(String) ?? [],
    site: step?.site_id ? `${step.site_id}` : "",
    use: step?.use ?? "",
    grass: step?.grass ?? "",
    water: { value: step?.water?.exact ?? "", unit: step?.water?.unit ?? (us ? "in" : "mm") },
    why: step?.why ?? "",
  };
}

/** What is sent of a form. */
export function stepIn(v: TypedStep): Schemas["StepIn"] {
  const alone = v.timing === "dated";
  const [kind, id] = v.goesBy.split(":");
  return {
    name: v.name,
    when: {
      timing: v.timing,
      begin: v.begin,
      end: alone ? null : v.end || null,
      every: v.timing === "every" || v.timing === "threshold" ? v.every : "",
      monthly: v.monthly,
      sum: v.sum,
      base: v.base,
      soil: v.soil,
      rising: v.rising === "up",
      cold: v.cold,
      disease: v.disease,
      offset: v.timing === "event" ? `${v.side === "before" ? "-" : ""}${v.offset || "0"}` : 0,
      grace: v.grace,
    },
    products: v.products
      .filter((p) => p.product)
      .map((p) => ({
        product_id: Number(p.product),
        target: p.target,
        rate: p.rate.value ? p.rate : null,
        instead: p.instead,
      })),
    area_ids: v.areas.map(Number),
    site_id: v.site ? Number(v.site) : null,
    use: v.use,
    grass: v.grass,
    anchor: v.timing === "event" && kind === OVERSEED ? "overseed" : "",
    event_id: v.timing === "event" && kind === "event" ? Number(id) : null,
    after_id: v.timing === "event" && kind === "step" ? Number(id) : null,
    water: v.water.value ? v.water : null,
    why: v.why,
  };
}
