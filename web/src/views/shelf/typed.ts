import type { Schemas } from "../../api/client";
import type { TypedQuantity } from "../../parts/QuantityField";

export type Product = Schemas["ProductOut"];

export interface TypedRate {
  id: number | null;
  use: string;
  phrase: string;
}

export interface TypedContent {
  name: string;
  basis: string;
  amount: string;
  unit: string;
}

export interface TypedProduct {
  name: string;
  kind: string;
  formulation: string;
  density: TypedQuantity;
  group_code: string;
  contents: TypedContent[];
  rates: TypedRate[];
  package: TypedQuantity;
  price: string;
  stains: boolean;
  ppe_mixing: string;
  ppe_applying: string;
  note: string;
}

export const blankRate: TypedRate = { id: null, use: "", phrase: "" };
export const blankContent: TypedContent = { name: "", basis: "active", amount: "", unit: "%" };

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
    contents: product?.contents.map(({ name, basis, amount, unit }) => ({ name, basis, amount, unit })) ?? [
      blankContent,
    ],
    rates: product?.rates.map(({ id, use, phrase }) => ({ id, use, phrase })) ?? [blankRate],
    package: { value: product?.package?.exact ?? "", unit: product?.package?.unit ?? (us ? "lb" : "kg") },
    price: product?.price ?? "",
    stains: product?.stains ?? false,
    ppe_mixing: product?.ppe_mixing ?? "",
    ppe_applying: product?.ppe_applying ?? "",
    note: product?.note ?? "",
  };
}

const filled = (q: TypedQuantity) => (q.value.trim() ? q : null);

/** What goes to the server: empty lines left out, in their order. */
export function toProductIn(typed: TypedProduct): Schemas["ProductIn"] {
  return {
    ...typed,
    density: filled(typed.density),
    package: filled(typed.package),
    contents: typed.contents.filter((c) => c.name.trim() || c.amount.trim()),
    rates: typed.rates.filter((r) => r.phrase.trim() || r.use.trim()),
  };
}
