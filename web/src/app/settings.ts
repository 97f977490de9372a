import { useSyncExternalStore } from "react";
import type { ThemeName } from "./theme";

interface Settings {
  theme: ThemeName;
  singleKeys: boolean;
}

const KEY = "settings";
const listeners = new Set<() => void>();

function load(): Settings {
  const preferred: ThemeName = matchMedia("(prefers-contrast: more)").matches
    ? "sunlight"
    : matchMedia("(prefers-color-scheme: dark)").matches
      ? "ink"
      : "paper";
  const base: Settings = { theme: preferred, singleKeys: true };
  try {
    return { ...base, ...(JSON.parse(localStorage.getItem(KEY) ?? "{}") as Partial<Settings>) };
  } catch {
    return base;
  }
}

let settings = load();
document.documentElement.dataset.theme = settings.theme;

export function setSettings(part: Partial<Settings>) {
  settings = { ...settings, ...part };
  localStorage.setItem(KEY, JSON.stringify(settings));
  document.documentElement.dataset.theme = settings.theme;
  listeners.forEach((tell) => tell());
}

/** What this device remembers: the theme, and whether single keys are shortcuts. */
export function useSettings(): Settings {
  return useSyncExternalStore(
    (tell) => {
      listeners.add(tell);
      return () => listeners.delete(tell);
    },
    () => settings,
  );
}
