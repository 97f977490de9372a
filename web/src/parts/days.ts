/** A day of the calendar as one says it: 9 June. */
export const dayOf = (on: string) =>
  new Date(`${on}T12:00Z`).toLocaleDateString("en-GB", { day: "numeric", month: "long", timeZone: "UTC" });

/** The days of the week as they are numbered: from 0, Monday. */
export const WEEKDAYS = ["Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday", "Sunday"];

/** Days between two dates, as they are written. */
export const daysTo = (from: string, to: string) =>
  Math.round((Date.parse(to) - Date.parse(from)) / 86_400_000);
