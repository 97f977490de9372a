import type { Schemas } from "../../api/client";

const ring = (...points: [number, number][]) => points.map(([x, y]) => ({ x, y }));
const outline = ring([0, 0], [40, 0], [40, 18], [26, 24], [0, 24]);

const spacing = (pans: number, cv: number, verdict: string, chosen = false): Schemas["SpacingOut"] => ({
  pans,
  width: `${pans} m`,
  metres: pans,
  cv,
  cv_text: `${Math.round(cv * 100)} %`,
  cv_n_text: `${Math.round(cv * 97)} %`,
  verdict,
  chosen,
});

const tip = (number: number, off: number, state: Schemas["TipOut"]["state"]): Schemas["TipOut"] => ({
  number,
  caught: `${(1.2 * (1 + off)).toFixed(2)} L`,
  from_mean: off,
  from_new: null,
  state,
  sentence: "Its distance from the mean.",
});

const pass = (y: number, part: Partial<Schemas["PassOut"]> = {}): Schemas["PassOut"] => ({
  kind: "stripe",
  round: 1,
  guide: false,
  line: ring([5, y], [35, y]),
  ...part,
});

const can = (number: number, share: number, x: number | null): Schemas["CanOut"] => ({
  number,
  text: `${(share * 6).toFixed(1)} mm`,
  share,
  state: share < 0.75 ? "dry" : share > 1.25 ? "wet" : "even",
  x,
  y: x === null ? null : 6 + (number % 2) * 9,
});

/** A landing map of a slope from nothing to two and a half times the rate: every shade of the ramp. */
const shades = btoa(
  Array.from({ length: 40 * 24 }, (_, i) => String.fromCharCode(Math.round(((i % 40) / 39) * 250))).join(""),
);

const plan: Schemas["PassesOut"] = {
  sentence: "",
  left: 0,
  bottom: 0,
  right: 40,
  top: 24,
  north: true,
  outlines: [{ ring: outline, hole: false }],
  zones: [
    { name: "drain, a made-up one", buffer: true, ring: ring([16, 8], [24, 8], [24, 14], [16, 14]) },
    { name: "drain, a made-up one", buffer: false, ring: ring([19, 10], [21, 10], [21, 12], [19, 12]) },
  ],
  sides: outline.map((p, i) => ({ ...p, text: `${i + 1}` })),
  passes: [
    pass(2, { kind: "edge", line: ring([2, 2], [38, 2], [38, 16], [25, 22], [2, 22], [2, 2]) }),
    pass(6),
    pass(10, { guide: true }),
    pass(14),
    pass(8, { round: 2 }),
    pass(12, { round: 2 }),
  ],
  refills: [{ x: 30, y: 10, text: "1" }],
  direction: 0,
  facts: [],
  steps: [],
  notes: [],
  has_plan: true,
  has_positions: false,
};

/** Made-up values for the parts of Kit, Passes and Water. */
export const field = {
  runs: [
    { text: "1.20 L", off: -0.03, odd: false },
    { text: "1.22 L", off: 0.01, odd: false },
    { text: "1.60 L", off: 0.22, odd: true },
  ],
  tips: [tip(1, 0.01, "good"), tip(2, 0.14, "change"), tip(3, -0.09, "clean")],
  pattern: {
    catches: [0.2, 0.5, 0.9, 1, 0.8, 0.4, 0.1],
    track: 3,
    apart_m: 1,
    middle_m: -0.3,
    skewed: false,
    swath: [1.2, 1.1, 1.3, 1.2],
    mean: 1.2,
    spacings: [
      spacing(2, 0.04, "very good"),
      spacing(3, 0.12, "good"),
      spacing(4, 0.09, "very good", true),
      spacing(5, 0.31, "poor"),
    ],
  } satisfies Schemas["PatternOut"],
  curve: {
    product_id: 1,
    product: "A made-up feed",
    symbol: "kg/100 m²",
    problem: "",
    points: [
      { setting: 4, rate: 0.6, text: "4" },
      { setting: 6, rate: 1.1, text: "6" },
      { setting: 8, rate: 1.9, text: "8" },
    ],
    tested: [
      { setting: 4, rate: 0.6, text: "4" },
      { setting: 6, rate: 1.0, text: "6" },
      { setting: 6, rate: 1.2, text: "6" },
      { setting: 8, rate: 1.9, text: "8" },
    ],
  } satisfies Schemas["CurveOut"],
  history: [
    { on: "2031-03-02", rate: 4.6, text: "a bench", bench: true, inForce: false },
    { on: "2031-06-11", rate: 4.8, text: "a bench", bench: true, inForce: true },
    { on: "2031-08-20", rate: 5.3, text: "a round", bench: false, inForce: false },
  ],
  plan,
  landed: {
    sentence: "Every shade of the ramp",
    columns: 40,
    rows: 24,
    left: 0,
    bottom: 0,
    block: 1,
    cells: shades,
    histogram: Array.from({ length: 20 }, (_, i) => 0.02 + 0.1 * Math.exp(-(((i - 10) / 3) ** 2))),
    label_low: 0.7,
    label_high: 1.2,
    cv: "24 %",
    facts: [],
    notes: [],
  } satisfies Schemas["LandedOut"],
  placed: [0.5, 0.9, 1, 1.1, 1.5].map((share, i) => can(i + 1, share, 4 + i * 8)),
  loose: [0.5, 1, 1.5].map((share, i) => can(i + 1, share, null)),
  tasks: [
    {
      id: -1,
      area_id: 1,
      area: "A lawn",
      text: "Something to see to",
      made_at: "2031-06-11T08:00:00Z",
      done_at: null,
      done_by: "",
    },
    {
      id: -2,
      area_id: 1,
      area: "A lawn",
      text: "Something seen to",
      made_at: "2031-06-11T08:00:00Z",
      done_at: "2031-06-12T08:00:00Z",
      done_by: "somebody",
    },
  ] satisfies Schemas["TaskOut"][],
};

/** An audit that draws these cans. */
export const audit = (cans: Schemas["CanOut"][]): Schemas["AuditOut"] => ({
  sentence: "",
  rate: "",
  low_quarter: "",
  christiansen: "",
  share: 0.6,
  reachable: 0.7,
  cans,
  notes: [],
  run: null,
  working: [],
});
