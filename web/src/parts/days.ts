const say = (at: string | Date, how: Intl.DateTimeFormatOptions) =>
  new Date(at).toLocaleString("en-GB", how).replace(/^(\w{3}), /, "$1 ");
const ofDay = (on: string, how: Intl.DateTimeFormatOptions) =>
  say(`${on}T12:00Z`, { ...how, timeZone: "UTC" });

/** A day of the calendar as one says it: 9 June. */
export const dayOf = (on: string) => ofDay(on, { day: "numeric", month: "long" });

/** A day of some year in short: 9 Jun. */
export const shortDay = (on: string) => ofDay(on, { day: "numeric", month: "short" });

/** A day with its weekday and year, as a record has it: Tue 4 Aug 2026. */
export const dated = (on: string) =>
  ofDay(on, { weekday: "short", day: "numeric", month: "short", year: "numeric" });

/** A time with its day: Tue 4 Aug 2026, 14:30; of a place, where its zone is given, else of the device. */
export const datedAt = (at: string, zone?: string) =>
  say(at, {
    weekday: "short",
    day: "numeric",
    month: "short",
    year: "numeric",
    hour: "2-digit",
    minute: "2-digit",
    timeZone: zone,
  });

/** The day of a time on the device's clock: Tue 4 Aug 2026. */
export const dayAt = (at: string) =>
  say(at, { weekday: "short", day: "numeric", month: "short", year: "numeric" });

/** A time of these days on a place's clock: Tue 4 Aug, 14:30. */
export const stamp = (at: string, zone: string) =>
  say(at, {
    weekday: "short",
    day: "numeric",
    month: "short",
    hour: "2-digit",
    minute: "2-digit",
    timeZone: zone,
  });

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
