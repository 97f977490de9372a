/** A time on the ground's clock: 5 Aug, 06:15. */
export const stamp = (at: string, zone: string) =>
  new Date(at).toLocaleString("en-GB", {
    day: "numeric",
    month: "short",
    hour: "2-digit",
    minute: "2-digit",
    timeZone: zone,
  });
