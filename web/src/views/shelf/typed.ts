import type { Schemas } from "../../api/client";
import type { TypedQuantity } from "../../parts/QuantityField";

export type Product = Schemas["ProductOut"];

export interface TypedRate {
  id: number | null;
  use: string;
  phrase: string;
  target: string;
  grasses: string[];
  uses: string[];
  height_low: string;
  height_high: string;
  height_unit: string;
  intent: string;
  interval_low: string;
  interval_high: string;
}

export interface TypedContent {
  name: string;
  basis: string;
  amount: string;
  unit: string;
  slow: string;
}

export interface TypedPackage {
  value: string;
  unit: string;
  price: string;
}

/** The rules that are a number and a unit, and the unit each opens with. */
export const ruleQuantities = {
  temperature_low: "temperature",
  temperature_high: "temperature",
  wind_low: "wind",
  wind_high: "wind",
  rain_before: "hours",
  rain_after: "hours",
  water_in_delay: "hours",
  water_in_depth: "depth",
  water_in_time: "minutes",
  mow_before: "hours",
  mow_after: "hours",
  bag_clippings: "days",
  seed_before: "days",
  seed_after: "days",
  reentry: "hours",
  buffer: "distance",
  mixed_life: "hours",
} as const;

export type RuleQuantity = keyof typeof ruleQuantities;
const opens = (us: boolean) =>
  ({
    temperature: us ? "degF" : "degC",
    wind: us ? "mph" : "mps",
    hours: "h",
    depth: us ? "in" : "mm",
    minutes: "min",
    days: "day",
    distance: us ? "ft" : "m",
  }) as const;

export interface TypedRules {
  quantities: Record<RuleQuantity, TypedQuantity>;
  most_per_application: string;
  most_per_season: string;
  active_per_season: string;
  applications_per_season: string;
  consecutive: string;
  leaf: string;
  reentry_note: string;
  fill_note: string;
  revised: string;
  incompatible: { what: string; days: string; note: string }[];
}

export interface TypedProduct {
  name: string;
  kind: string;
  formulation: string;
  density: TypedQuantity;
  group_code: string;
  contents: TypedContent[];
  rates: TypedRate[];
  packages: TypedPackage[];
  rules: TypedRules;
  stains: boolean;
  ppe_mixing: string;
  ppe_applying: string;
  note: string;
}

export const blankRate: TypedRate = {
  id: null,
  use: "",
  phrase: "",
  target: "",
  grasses: [],
  uses: [],
  height_low: "",
  height_high: "",
  height_unit: "in",
  intent: "any",
  interval_low: "",
  interval_high: "",
};
export const blankContent: TypedContent = { name: "", basis: "active", amount: "", unit: "%", slow: "" };
export const blankPackage = (unit: string): TypedPackage => ({ value: "", unit, price: "" });

function typedRules(rules: Schemas["RulesIn"] | undefined, us: boolean): TypedRules {
  const units = opens(us);
  const quantities = Object.fromEntries(
    (Object.keys(ruleQuantities) as RuleQuantity[]).map((key) => {
      const held = rules?.[key];
      return [key, { value: held ? `${held.value}` : "", unit: held?.unit ?? units[ruleQuantities[key]] }];
    }),
  ) as Record<RuleQuantity, TypedQuantity>;
  const count = (n: number | null | undefined) => (n === null || n === undefined ? "" : `${n}`);
  return {
    quantities,
    most_per_application: rules?.most_per_application ?? "",
    most_per_season: rules?.most_per_season ?? "",
    active_per_season: rules?.active_per_season ?? "",
    applications_per_season: count(rules?.applications_per_season),
    consecutive: count(rules?.consecutive),
    leaf: rules?.leaf ?? "either",
    reentry_note: rules?.reentry_note ?? "",
    fill_note: rules?.fill_note ?? "",
    revised: rules?.revised ?? "",
    incompatible: rules?.incompatible.map((i) => ({ what: i.what, days: `${i.days}`, note: i.note })) ?? [],
  };
}

/** A product as its form holds it: everything as text, so that nothing is lost while it is half typed. */
export function typedProduct(product: Product | undefined, us: boolean): TypedProduct {
  return {
    name: product?.name ?? "",
    kind: product?.kind ?? "",
    formulation: product?.formulation ?? "",
    density: {
      value: product?.density?.value ?? "",
      unit: product?.density?.unit ?? (us ? "lb/gal" : "kg/l"),
    },
    group_code: product?.group_code ?? "",
    contents: product?.contents.map(({ name, basis, amount, unit, slow }) => ({
      name,
      basis,
      amount,
      unit,
      slow,
    })) ?? [blankContent],
    rates: product?.rates.map((r) => ({
      id: r.id,
      use: r.use,
      phrase: r.phrase,
      target: r.target,
      grasses: r.grasses,
      uses: r.uses,
      height_low: r.height_low,
      height_high: r.height_high,
      height_unit: r.height_unit,
      intent: r.intent,
      interval_low: r.interval_low,
      interval_high: r.interval_high,
    })) ?? [{ ...blankRate, height_unit: us ? "in" : "mm" }],
    packages: product?.packages.map(({ value, unit, price }) => ({ value, unit, price })) ?? [
      blankPackage(us ? "lb" : "kg"),
    ],
    rules: typedRules(product?.rules, us),
    stains: product?.stains ?? false,
    ppe_mixing: product?.ppe_mixing ?? "",
    ppe_applying: product?.ppe_applying ?? "",
    note: product?.note ?? "",
  };
}

const filled = (q: TypedQuantity) => (q.value.trim() ? q : null);
const whole = (text: string) => (text.trim() ? Number(text) : null);

/** What goes to the server: empty lines left out, in their order. */
export function toProductIn(typed: TypedProduct): Schemas["ProductIn"] {
  const { quantities, ...rules } = typed.rules;
  return {
    ...typed,
    density: filled(typed.density),
    packages: typed.packages.filter((p) => p.value.trim() || p.price.trim()),
    contents: typed.contents
      .filter((c) => c.name.trim() || c.amount.trim())
      .map((c) => ({ ...c, slow: c.slow.trim() || null })),
    rates: typed.rates.filter((r) => r.phrase.trim() || r.use.trim()),
    rules: {
      ...rules,
      ...(Object.fromEntries(Object.entries(quantities).map(([k, q]) => [k, filled(q)])) as Record<
        RuleQuantity,
        TypedQuantity | null
      >),
      applications_per_season: whole(rules.applications_per_season),
      consecutive: whole(rules.consecutive),
      revised: rules.revised || null,
      incompatible: rules.incompatible
        .filter((i) => i.what.trim())
        .map((i) => ({ what: i.what, days: Number(i.days) || 0, note: i.note })),
    },
  };
}
