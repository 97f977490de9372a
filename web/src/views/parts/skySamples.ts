import type { Schemas } from "../../api/client";

type Day = Schemas["DayOfWeatherOut"];

const on = (n: number) => new Date(Date.UTC(2031, 5, 1 + n)).toISOString().slice(0, 10);

const day = (n: number, part: Partial<Day> = {}): Day => ({
  on: on(n),
  label: `Sun ${n + 1}`,
  high: 22 + 4 * Math.sin(n / 3),
  low: 12 + 3 * Math.sin(n / 3),
  rain: n % 6 === 2 ? 8 : 0,
  wet: 4 + (n % 5) * 2,
  humidity: 80,
  wind: 2,
  soil: 17,
  forecast: n > 20 ? 1 : 0,
  said: "a made-up day",
  ...part,
});

const shares = Array.from({ length: 28 }, (_, n) =>
  n < 3 ? null : 0.2 + 1.3 * Math.max(0, Math.sin((n - 6) / 5)),
);

const risk = (part: Partial<Schemas["StripRiskOut"]>): Schemas["StripRiskOut"] => ({
  disease: "dollar_spot",
  name: "Dollar spot",
  model: "smith_kerns",
  model_name: "Smith and Kerns",
  tier: "a published model",
  source: "",
  valid: "",
  threshold: "at 20 % probability",
  why: "",
  shares,
  score: "",
  others: [],
  states: shares.map((s) => (s === null ? "too_few" : s >= 1 ? "high" : "low")),
  ...part,
});

const scout = (id: number, n: number, seen: boolean): Schemas["ScoutOut"] => ({
  id,
  area_id: 1,
  area: "A green",
  on: on(n),
  day: on(n),
  kind: "disease",
  what: "dollar_spot",
  name: "Dollar spot",
  seen,
  severity: "",
  score: "",
  named: "",
  spot: "",
  x: null,
  y: null,
  across: null,
  where: "",
  note: "",
  by: "",
  text: seen ? "Dollar spot seen" : "No dollar spot seen",
  struck: "",
  photos: [],
});

const clock: Schemas["ClockOut"] = {
  product_id: 1,
  area_id: 1,
  area: "A green",
  product: "A regulator",
  since: on(4),
  stage: "holds",
  share: 0.8,
  sentence: "It holds.",
  due: on(17),
  earliest: on(16),
  latest: on(19),
  calendar_first: on(25),
  calendar_last: on(32),
  school: "",
  upto: "2026-08-05",
  lacks: "",
  cautions: [],
  track: Array.from({ length: 24 }, (_, i) => i / 13),
  active: "trinexapac-ethyl",
  version: 0,
  own: "",
  base: "0",
  offered: [
    { key: "200/0", text: "200 °C·d (360 °F·d), base 0 °C (32 °F): greens of cool grass, published" },
  ],
  season: "2,140 °C·d (3,852 °F·d) since 1 January, base 0 °C (32 °F)",
  together: "",
  shape: [1, 0.9, 0.8, 0.9, 1],
};

const fresh = (state: Schemas["FreshOut"]["state"], sentence: string): Schemas["FreshOut"] => ({
  state,
  sentence,
  station: state === "none" ? "" : "A mast",
  last: null,
  issued: null,
  problem: "",
  air: "",
  wind: "",
});

const strip: Schemas["StripOut"] = {
  area_id: 1,
  area: "A green",
  fresh: fresh("fresh", ""),
  units: { air: "°C", rain: "mm" },
  today: 21,
  days: Array.from({ length: 28 }, (_, n) => day(n, n === 9 ? { high: null, low: null, wet: null } : {})),
  risks: [
    risk({}),
    risk({
      disease: "rust",
      name: "Rust",
      shares: shares.map((s) => s && s * 0.5),
      threshold: "at 2 days in a row",
    }),
  ],
  covers: [
    {
      product: "A fungicide",
      codes: "FRAC 7",
      on: on(8),
      least: on(14),
      until: on(18),
      most: on(22),
      against: ["Dollar spot"],
      sentence: "",
    },
  ],
  scouts: [scout(1, 12, true), scout(2, 20, false)],
  clocks: [clock],
  jobs: [
    { on: on(19), text: "A fungicide", state: "missed" },
    { on: on(24), text: "A fungicide", state: "planned" },
  ],
};

const fits = ["no", "go", "mind", "unknown"] as const;
const hours: Schemas["FitHourOut"][] = Array.from({ length: 44 }, (_, i) => {
  const fit = fits[Math.floor((i + 4) / 6) % 4]!;
  return {
    at: new Date(Date.UTC(2031, 5, 1, 4 + i)).toISOString(),
    day: i < 20 ? "Sun 1" : "Mon 2",
    hour: (i + 4) % 24,
    fit,
    air: "18 °C",
    wind: "2 m/s",
    rain: "0 mm",
    reasons: fit === "go" ? [] : [{ key: "leaf", fit, text: "The leaf is wet; it should be dry." }],
  };
});

const due = (part: Partial<Schemas["DueLineOut"]>): Schemas["DueLineOut"] => ({
  key: "1",
  kind: "disease",
  area_id: 1,
  area: "A green",
  site: "",
  disease: "dollar_spot",
  title: "Dollar spot on A green",
  state: "late",
  state_text: "late",
  by: on(21),
  by_text: "today",
  why: "3 risk days went unprotected already.",
  delay: "",
  curative: false,
  product_id: 1,
  product: "A fungicide",
  rate: "20 mL/100 m²",
  amount: "120 mL",
  cost: "8.00 EUR",
  zones: [],
  round_id: null,
  planned: null,
  window: { verdict: "go", begin: null, end: null, text: "Sun 22 Jun, 06:00 to 09:00", good: true },
  ...part,
});

const planned = (missed: boolean): Schemas["PlannedOut"] => ({
  id: 1,
  text: "Sat 21 Jun, 06:00 to 09:00",
  product: "A fungicide",
  by: "somebody",
  missed,
  cost: missed ? "2 risk days go unprotected until the next window" : "",
});

const start = "2030-01-01T00:00:00Z";

/** Made-up values for the parts of Sky and Season. */
export const sky = {
  strip,
  hours,
  fresh: [
    fresh("fresh", "Measured up to this hour; forecast of 2 hours ago."),
    fresh(
      "stale",
      "Old weather: measured up to 9 hours ago; the forecast is 20 hours old and no longer sure.",
    ),
    fresh("none", "No weather comes in yet: set up a station, or bring in a file."),
  ],
  due: [
    due({}),
    due({ key: "2", state: "due", state_text: "due today", planned: planned(true) }),
    due({
      key: "3",
      state: "coming",
      state_text: "coming",
      by_text: "by Friday, 27 June",
      planned: planned(false),
    }),
    due({ key: "4", state: "due", state_text: "due today", window: null, product: "", product_id: null }),
    due({ key: "5", round_id: 4 }),
  ],
  long: {
    field: "air",
    name: "Air",
    unit: "°C",
    start,
    foretold: 2000,
    values: Array.from({ length: 2000 }, (_, i) =>
      i > 700 && i < 760 ? null : 12 + 8 * Math.sin(i / 400) + 4 * Math.sin(i / 3.8),
    ),
  } satisfies Schemas["LongOut"],
};
