/** A day of the calendar as one says it: 9 June. */
export const dayOf = (on: string) =>
  new Date(`${on}T12:00Z`).toLocaleDateString("en-GB", { day: "numeric", month: "long", timeZone: "UTC" });

/** The days of the week to pick from, as they are numbered: from 0, Monday. */
export const WEEKDAYS = ["Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday", "Sunday"].map(
  (text, n) => ({ key: `${n}`, text }),
);

/** Days between two dates, as they are written. */
export const daysTo = (from: string, to: string) =>
  Math.round((Date.parse(to) - Date.parse(from)) / 86_400_000);

/** How long it is until then, in seconds: `48 min left`, `5 h 10 min left`, `2 days left`, `over for 12 min`. */
export const leftTo = (seconds: number) => {
  const minutes = Math.max(1, Math.round(Math.abs(seconds) / 60));
  const hours = Math.floor(minutes / 60);
  const rest = minutes % 60 ? `${minutes % 60} min` : "";
  const short = [hours ? `${hours} h` : "", rest].filter(Boolean).join(" ");
  const long = hours >= 48 ? `${Math.floor(hours / 24)} days` : short;
  return seconds > 0 ? `${long} left` : `over for ${long}`;
};
