import type { Schemas } from "../../api/client";
import type { TypedQuantity } from "../../parts/QuantityField";

/** A walking plan as it is typed; empty fields are taken from the machine and the ground. */
export interface Typed {
  area: number | null;
  machine: number | null;
  spacing: TypedQuantity;
  direction: string;
  edges: string;
  edges_last: boolean;
  guides: string;
  second: Schemas["PlanIn"]["second"];
  keep_off: boolean;
  pace: TypedQuantity;
  length: TypedQuantity;
  product: number | null;
  row: number | null;
  rate: TypedQuantity;
  walked: {
    line: TypedQuantity;
    pace: string;
    late: TypedQuantity;
    slow_over: TypedQuantity;
    slow: string;
  };
}

export function blank(us: boolean): Typed {
  const length = us ? "ft" : "m";
  const none = { value: "", unit: length };
  return {
    area: null,
    machine: null,
    spacing: none,
    direction: "",
    edges: "1",
    edges_last: false,
    guides: "0",
    second: "none",
    keep_off: true,
    pace: { value: "", unit: us ? "mph" : "kmh" },
    length: none,
    product: null,
    row: null,
    rate: { value: "", unit: "" },
    walked: steady(us),
  };
}

/** Ways to walk, to begin from. */
export function steady(us: boolean): Typed["walked"] {
  const none = { value: "", unit: us ? "ft" : "m" };
  return { line: { value: "", unit: us ? "in" : "cm" }, pace: "", late: none, slow_over: none, slow: "" };
}

export function asWalked(us: boolean, how: string): Typed["walked"] {
  const length = us ? "ft" : "m";
  const hand = (inches: number, pace: number, late: number, over: number, slow: number) => ({
    line: { value: `${us ? inches : Math.round(inches * 2.5)}`, unit: us ? "in" : "cm" },
    pace: `${pace}`,
    late: { value: `${us ? late : Math.round(late * 3) / 10}`, unit: length },
    slow_over: { value: `${us ? over : Math.round(over * 3) / 10}`, unit: length },
    slow: `${slow}`,
  });
  if (how === "by_eye") return hand(6, 6, 1, 0, 100);
  if (how === "tired") return hand(10, 12, 2, 0, 100);
  if (how === "slow_ends") return hand(4, 4, 0, 6, 70);
  return steady(us);
}

/** The plan to send, or nothing while there is no ground for it. */
export function toPlan(v: Typed): Schemas["PlanIn"] | null {
  if (v.area === null || (v.machine === null && !v.spacing.value.trim())) return null;
  const rated = v.product !== null && v.row !== null && v.rate.value.trim() !== "";
  return {
    area_id: v.area,
    machine_id: v.machine,
    spacing: v.spacing.value.trim() ? v.spacing : null,
    direction: v.direction,
    edges: Number(v.edges) || 0,
    edges_last: v.edges_last,
    guides: Number(v.guides) || 0,
    second: v.second,
    keep_off: v.keep_off,
    pace: v.pace.value.trim() ? v.pace : null,
    length: v.length.value.trim() ? v.length : null,
    product_id: rated ? v.product : null,
    row_id: rated ? v.row : null,
    rate: rated ? v.rate : null,
  };
}
