import { keepSetting, keptSetting } from "../session/project/local-settings.ts";

/** What the page is drawn in. */
export type Theme = "light" | "dark";

const KEPT = "theme";
const systemIsDark = (): MediaQueryList => window.matchMedia("(prefers-color-scheme: dark)");
const listeners = new Set<() => void>();

/** The theme in use: the one that was chosen, else the system's. */
export function themeInUse(): Theme {
  const chosen = keptSetting(KEPT);
  return chosen === "light" || chosen === "dark" ? chosen : systemTheme();
}

const systemTheme = (): Theme => (systemIsDark().matches ? "dark" : "light");

/** Puts the theme on the page, and follows the system from then on. */
export function startTheme(): void {
  systemIsDark().addEventListener("change", apply);
  apply();
}

/** Chooses the other theme. The one that the system has is followed again. */
export function switchTheme(): void {
  const other: Theme = themeInUse() === "dark" ? "light" : "dark";
  keepSetting(KEPT, other === systemTheme() ? "" : other);
  apply();
}

/** Calls back when the theme changes; gives back what stops that. */
export function onThemeChange(changed: () => void): () => void {
  listeners.add(changed);
  return () => listeners.delete(changed);
}

function apply(): void {
  document.documentElement.dataset["theme"] = themeInUse();
  for (const changed of [...listeners]) changed();
}
