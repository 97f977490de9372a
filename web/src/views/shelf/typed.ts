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

/** The label's rules as the form holds them, by the keys of the server's table. */
export interface TypedRules {
  quantities: Record<string, TypedQuantity>;
  texts: Record<string, string>;
  apart: { what: string; days: string; note: string; product_id: number | null }[];
}

export interface TypedProduct {
  version: number | null;
  name: string;
  kind: string;
  also?: string[];
  printed?: Schemas["PrintedIn"][];
  formulation: string;
  density: TypedQuantity;
  group_code: string;
  registration: string;
  looks: string;
  expect: string;
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

function typedRules(rules: Schemas["RulesIn"] | undefined): TypedRules {
  const typed: TypedRules = { quantities: {}, texts: {}, apart: [] };
  for (const [key, held] of Object.entries(rules ?? {})) {
    if (held === null || held === undefined) continue;
    if (Array.isArray(held))
      typed.apart = held.map((x) => ({
        what: x.what,
        days: `${x.days ?? 0}`,
        note: x.note ?? "",
        product_id: x.product_id ?? null,
      }));
    else if (typeof held === "object") typed.quantities[key] = { value: `${held.value}`, unit: held.unit };
    else typed.texts[key] = `${held}`;
  }
  return typed;
}

/** What goes to the server of the rules: what is left empty is not ruled. */
function toRulesIn({ quantities, texts, apart }: TypedRules): Schemas["RulesIn"] {
  return {
    ...Object.fromEntries(Object.entries(quantities).filter(([, q]) => q.value.trim())),
    ...Object.fromEntries(Object.entries(texts).filter(([, text]) => text.trim())),
    incompatible: apart
      .filter((x) => x.what.trim())
      .map(({ days, ...x }) => ({ ...x, days: Number(days) || 0 })),
  } as Schemas["RulesIn"];
}

/** A product as its form holds it: everything as text, so that nothing is lost while it is half typed. */
export function typedProduct(product: Product | undefined, us: boolean): TypedProduct {
  return {
    version: product?.version ?? null,
    name: product?.name ?? "",
    kind: product?.kind ?? "",
    also: product?.also ?? [],
    printed: product?.printed ?? [],
    formulation: product?.formulation ?? "",
    density: {
      value: product?.density?.value ?? "",
      unit: product?.density?.unit ?? (us ? "lb/gal" : "kg/l"),
    },
    group_code: product?.group_code ?? "",
    registration: product?.registration ?? "",
    looks: product?.looks ?? "",
    expect: product?.expect ?? "",
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
    rules: typedRules(product?.rules),
    stains: product?.stains ?? false,
    ppe_mixing: product?.ppe_mixing ?? "",
    ppe_applying: product?.ppe_applying ?? "",
    note: product?.note ?? "",
  };
}

const text = (value: string | number | null | undefined) => `${value ?? ""}`;

/** What was read in a label's text, as the form holds it: only what was found, so that the rest stays as it was typed. */
export function typedCard(card: Schemas["ProductIn"], us: boolean): Partial<TypedProduct> {
  const blank = typedProduct(undefined, us);
  const found: Partial<TypedProduct> = {};
  for (const key of ["name", "kind", "formulation", "group_code", "registration"] as const)
    if (card[key]) found[key] = card[key];
  for (const key of ["ppe_mixing", "ppe_applying"] as const) if (card[key]) found[key] = card[key];
  if (card.also?.length) found.also = card.also;
  if (card.stains) found.stains = true;
  if (card.density) found.density = { value: text(card.density.value), unit: card.density.unit };
  if (card.contents?.length)
    found.contents = card.contents.map((c) => ({ ...c, amount: text(c.amount), slow: text(c.slow) }));
  if (card.packages?.length)
    found.packages = card.packages.map((p) => ({ value: text(p.value), unit: p.unit, price: p.price ?? "" }));
  if (card.rates.length)
    found.rates = card.rates.map((r) => ({
      ...blank.rates[0]!,
      phrase: r.phrase,
      target: r.target ?? "",
      uses: r.uses ?? [],
      intent: r.intent ?? "any",
      interval_low: text(r.interval_low),
      interval_high: text(r.interval_high),
    }));
  if (Object.values(card.rules ?? {}).some((rule) => rule && rule !== "either" && `${rule}`.length > 0))
    found.rules = typedRules(card.rules);
  return found;
}

const untyped = (c: TypedContent) => !c.amount.trim() && (c.basis !== "active" || !c.name.trim());

/** The lines that a type of product is filled in with first; what was typed already stays. */
export function opened(rows: TypedContent[], opens: string[], bases: Schemas["OptionOut"][]): TypedContent[] {
  if (!rows.every(untyped)) return rows;
  return opens.map((basis) => ({
    ...blankContent,
    basis,
    name: basis === "active" ? "" : (bases.find((b) => b.key === basis)?.text ?? ""),
  }));
}

const filled = (q: TypedQuantity) => (q.value.trim() ? q : null);

/** What goes to the server: empty lines left out, in their order. */
export function toProductIn(typed: TypedProduct): Schemas["ProductIn"] {
  return {
    ...typed,
    also: typed.also ?? [],
    printed: (typed.printed ?? []).filter((p) => p.setting.trim()),
    density: filled(typed.density),
    packages: typed.packages.filter((p) => p.value.trim() || p.price.trim()),
    contents: typed.contents.filter((c) => !untyped(c)).map((c) => ({ ...c, slow: c.slow.trim() || null })),
    rates: typed.rates.filter((r) => r.phrase.trim() || r.use.trim()),
    rules: toRulesIn(typed.rules),
  };
}
