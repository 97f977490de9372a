import type { Option } from "./PickField";

/** The units a field offers, in the order of the account's system. Keys are the server's; the texts are only labels. */
const texts: Record<string, string> = {
  ft2: "ft²",
  yd2: "yd²",
  acre: "acre",
  m2: "m²",
  ha: "ha",
  in: "in",
  mm: "mm",
  cm: "cm",
  gal: "gal",
  fl_oz: "fl oz",
  qt: "qt",
  pt: "pt",
  l: "L",
  ml: "mL",
  lb: "lb",
  oz_wt: "oz wt",
  kg: "kg",
  g: "g",
  "lb/kft2": "lb/1000 ft²",
  "lb/acre": "lb/acre",
  "kg/m2_100": "kg/100 m²",
  "g/m2": "g/m²",
  "kg/ha": "kg/ha",
  "gal/kft2": "gal/1000 ft²",
  "gal/acre": "gal/acre",
  "l/m2_100": "L/100 m²",
  "l/ha": "L/ha",
  h: "h",
  min: "min",
  day: "days",
  week: "weeks",
  mph: "mph",
  kmh: "km/h",
  mps: "m/s",
  degF: "°F",
  degC: "°C",
  ft: "ft",
  m: "m",
  yd: "yd",
  tsp: "tsp",
  tbsp: "tbsp",
  "lb/gal": "lb/gal",
  "kg/l": "kg/L",
  "g/ml": "g/mL",
  "g/l": "g/L",
  "%": "%",
  "fl_oz/gal": "fl oz/gal",
  "tbsp/gal": "tbsp/gal",
  "tsp/gal": "tsp/gal",
  "ml/l": "mL/L",
};

function options(keys: string[]): Option[] {
  return keys.map((key) => ({ key, text: texts[key] ?? key }));
}

type System = "us" | "metric";
const ordered = (us: string[], metric: string[]) => (system: System) =>
  options(system === "us" ? [...us, ...metric] : [...metric, ...us]);

export const areaUnits = ordered(["ft2", "acre", "yd2"], ["m2", "ha"]);
export const heightUnits = ordered(["in"], ["mm", "cm"]);
export const volumeUnits = ordered(["fl_oz", "gal", "qt", "pt"], ["ml", "l"]);
export const tankUnits = ordered(["gal"], ["l"]);
export const weightUnits = ordered(["lb", "oz_wt"], ["kg", "g"]);
/** Small weights first, as a scale at a bench has them. */
export const grainUnits = ordered(["lb", "oz_wt"], ["g", "kg"]);
export const packageUnits = (system: System, liquid: boolean) => (liquid ? volumeUnits : weightUnits)(system);
export const outputUnits = ordered(["gal/kft2", "gal/acre"], ["l/m2_100", "l/ha"]);
export const spreadUnits = ordered(["lb/kft2", "lb/acre"], ["kg/m2_100", "g/m2", "kg/ha"]);
export const densityUnits = ordered(["lb/gal"], ["kg/l", "g/ml", "g/l"]);
export const contentUnits = ordered(["%", "lb/gal"], ["g/l"]);
export const lengthUnits = ordered(["ft", "yd", "in"], ["m", "cm"]);
export const distanceUnits = ordered(["ft", "yd"], ["m"]);
export const depthUnits = ordered(["in"], ["mm", "cm"]);
export const temperatureUnits = ordered(["degF"], ["degC"]);
export const windUnits = ordered(["mph"], ["mps", "kmh"]);
export const hourUnits = options(["h", "min", "day"]);
export const dayUnits = options(["day", "week"]);
/** What a hose-end's dial counts. */
export const dialUnits = ordered(["fl_oz/gal", "tbsp/gal", "tsp/gal"], ["ml/l"]);
export const cupUnits = ordered(["fl_oz", "tbsp", "tsp", "qt"], ["ml", "l"]);
export const doseUnits = (system: System, liquid: boolean) =>
  liquid ? ordered(["fl_oz", "tsp", "tbsp", "qt", "pt", "gal"], ["ml", "l"])(system) : weightUnits(system);
