const MOST = 6;

/** The lines that were asked lately on this device, the last first. */
export function lately(account: string): string[] {
  try {
    const kept: unknown = JSON.parse(localStorage.getItem(`lines:${account}`) ?? "[]");
    return Array.isArray(kept) ? kept.filter((x): x is string => typeof x === "string") : [];
  } catch {
    return [];
  }
}

/** Note a line that was answered. */
export function noteLine(account: string, line: string) {
  const others = lately(account).filter((x) => x !== line);
  try {
    localStorage.setItem(`lines:${account}`, JSON.stringify([line, ...others].slice(0, MOST)));
  } catch {
    // A device that keeps nothing still reckons.
  }
}
