import type { Schemas } from "../../api/client";

export type Method = Schemas["MethodOut"];

/** A measurement as its bench holds it: every figure as text. */
export interface Sketch {
  method: string;
  unit: string;
  values: Record<string, string>;
  series: Record<string, string>;
  parts: { sign: number; shape: string; values: Record<string, string> }[];
  ring: string;
  rule: string;
}

export function blankSketch(us: boolean): Sketch {
  return {
    method: "",
    unit: us ? "ft" : "m",
    values: {},
    series: {},
    parts: [blankPart],
    ring: "",
    rule: "",
  };
}

export const blankPart = { sign: 1, shape: "rectangle", values: {} as Record<string, string> };

/** Figures typed with spaces, commas with spaces, or on lines, one by one. `1 1/2` stays one figure. */
export function figures(text: string): string[] {
  return text
    .split(/[;\n\t]+|,\s+|\s{2,}|(?<=\d)\s+(?!\d+\/\d)/)
    .map((x) => x.trim())
    .filter(Boolean);
}

/** The measurement to ask about, once something is typed. */
export function toMeasure(sketch: Sketch): Schemas["MeasureIn"] | null {
  if (!sketch.method) return null;
  const series = Object.fromEntries(Object.entries(sketch.series).map(([k, text]) => [k, figures(text)]));
  const typed =
    Object.values(sketch.values).some((v) => v.trim()) ||
    Object.values(series).some((v) => v.length) ||
    sketch.parts.some((p) => Object.values(p.values).some((v) => v.trim())) ||
    sketch.ring.trim();
  if (!typed) return null;
  return {
    method: sketch.method,
    unit: sketch.unit,
    values: sketch.values,
    series,
    parts: sketch.method === "composed" ? sketch.parts : [],
    ring: sketch.ring,
    rule: sketch.rule,
  };
}
