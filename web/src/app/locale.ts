/** Countries that measure lawns in feet and gallons. */
const US = ["US", "LR", "MM"];

/** The units of the reader's country, by the language that the browser asks for: what a form begins with. */
export function unitsHere(): "us" | "metric" {
  try {
    const region = new Intl.Locale(navigator.language).maximize().region ?? "US";
    return US.includes(region) ? "us" : "metric";
  } catch {
    return "us";
  }
}
