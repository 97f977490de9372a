import type { Schemas } from "../../api/client";

const term = (text: string, over = "", under = "", op = "", struck = false): Schemas["TermOut"] => ({
  op,
  text,
  exact: text,
  over,
  under,
  over_cancels: struck,
  under_cancels: false,
});

const measure = (
  shape: Schemas["VesselOut"]["shape"],
  capacity: number,
  graduation: number,
  mark: number,
  unit: string,
  marks: number[],
): Schemas["MeasureOut"] => ({
  vessel: { key: shape, name: `sample ${shape}`, shape, unit, capacity, graduation, marks },
  fills: 0,
  mark,
  mark_text: `${mark}`,
  instruction: `${mark} ${unit}`,
  exact: `${mark} ${unit}`,
  rounding: "0 %",
  reading: "± 1 %",
  coarse: false,
  note: "",
});

const measures = [
  measure("syringe", 20, 0.5, 13.5, "mL", [0, 5, 10, 15, 20]),
  measure("cup", 250, 5, 165, "mL", [0, 50, 100, 150, 200, 250]),
  measure("jug", 1000, 20, 640, "mL", [0, 200, 400, 600, 800, 1000]),
  measure("scale", 5000, 1, 2310, "g", [0, 1000, 2000, 3000, 4000, 5000]),
];

const load = (part: Partial<Schemas["LoadOut"]>): Schemas["LoadOut"] => ({
  number: 1,
  name: "Tank 1",
  pass_number: 0,
  odd: false,
  where: "",
  pours: [{ product: "Sample SC", amount: "60 mL", measure: measures[0]! }],
  volume: "14 L",
  water: "13.9 L",
  covers: "280 m²",
  dial: "",
  spray: "",
  time: "",
  share: 0.7,
  acts: [
    { key: "half", text: "", pours: "", level: 0.35 },
    { key: "pour-0", text: "", pours: "Sample SC", level: 0.35 },
    { key: "top-up", text: "", pours: "", level: 0.7 },
  ],
  ...part,
});

const ring = (...points: [number, number][]) => points.map(([x, y]) => ({ x, y }));

const line = (key: string, part: Partial<Schemas["BudgetLineOut"]>): Schemas["BudgetLineOut"] => ({
  key,
  what: "Season's total",
  symbol: "kg/ha",
  used: 40,
  plan: 20,
  cap: 100,
  low: 60,
  scale: 120,
  used_text: "40 kg/ha",
  plan_text: "20 kg/ha",
  total_text: "60 kg/ha",
  cap_text: "100 kg/ha",
  whose: "",
  binds: true,
  over: false,
  ...part,
});

/** Made-up values that put each part into each of its states. */
export const samples = {
  rule: { low: 2, high: 5, value: 3, scale: 6.25, step: 0.1, symbol: "mL/100 m²", binds: true },
  steps: [
    {
      title: "Rate × area",
      terms: [{ ...term("3", "mL", "100 m²"), under_cancels: true }, term("2.8", "(100 m²)", "", "×", true)],
      result: term("8.4", "mL"),
      note: "",
    },
  ],
  judgements: (["within", "below", "above"] as const).flatMap((stand) =>
    (stand === "above" ? [false, true] : [false]).map((refused) => ({
      stand,
      refused,
      word: `${stand} the label`,
      sentence: refused ? "The label binds." : "The label's range is quoted here.",
    })),
  ),
  faults: [
    {
      field: "amount",
      value: "3 oz",
      problem: "“oz” can mean fluid ounces or ounces by weight.",
      remedy: "Say which.",
      choices: [
        { text: "3 fl oz", meaning: "" },
        { text: "3 oz wt", meaning: "" },
      ],
    },
  ],
  units: [
    { key: "fl_oz", text: "fl oz" },
    { key: "oz_wt", text: "oz wt" },
  ],
  measures,
  findings: [
    { key: "refuse", act: "refuse", sentence: "What the label or the law does not allow.", readings: [] },
    {
      key: "ask",
      act: "ask",
      sentence: "An amount that can be read in two ways.",
      readings: [{ text: "3", meaning: "3 fl oz" }],
    },
    { key: "warn", act: "warn", sentence: "What may do harm.", readings: [] },
    { key: "note", act: "note", sentence: "What is good to know.", readings: [] },
  ] satisfies Schemas["FindingOut"][],
  budget: [
    line("within", { whose: "the label" }),
    line("over", { plan: 75, plan_text: "75 kg/ha", total_text: "115 kg/ha", over: true }),
    line("usual", { what: "Nitrogen", binds: false, whose: "the grass's usual" }),
    line("free", { what: "Potash", cap: null, cap_text: "" }),
  ],
  grounds: [
    { key: "green", text: "Green" },
    { key: "tee", text: "Tee", note: "Two of them" },
    { key: "lawn", text: "Lawn" },
  ],
  plan: {
    left: 0,
    bottom: 0,
    right: 40,
    top: 24,
    north: true,
    outlines: [
      { ring: ring([0, 0], [40, 0], [40, 18], [26, 24], [0, 24]), hole: false },
      { ring: ring([10, 8], [18, 8], [18, 14], [10, 14]), hole: true },
    ],
    marks: [{ start: { x: 0, y: 4 }, end: { x: 40, y: 4 }, text: "40 m" }],
  },
  tank: load({}),
  hopper: load({
    name: "Hopper 1",
    volume: "",
    pours: [{ product: "Sample GR", amount: "12 kg", measure: measures[3]! }],
    share: 0.48,
  }),
  bottle: load({
    name: "Bottle 1",
    volume: "0.8 L",
    water: "740 mL",
    dial: "30 mL/L",
    spray: "26.7 L",
    time: "2 min 10 s",
    share: 0.8,
    acts: [
      { key: "pour-0", text: "", pours: "Sample SC", level: 0.06 },
      { key: "top-up", text: "", pours: "", level: 0.8 },
    ],
  }),
};
