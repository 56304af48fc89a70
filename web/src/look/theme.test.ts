import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { onThemeChange, startTheme, switchTheme, themeInUse } from "./theme.ts";

let dark = false;
let heard: (() => void) | null = null;
beforeEach(() => {
  dark = false;
  localStorage.clear();
  vi.stubGlobal("matchMedia", () => ({
    matches: dark,
    addEventListener: (_type: string, listener: () => void) => (heard = listener),
  }));
  startTheme();
});
afterEach(() => vi.unstubAllGlobals());

const shown = (): string | undefined => document.documentElement.dataset["theme"];
const systemTurns = (to: boolean): void => {
  dark = to;
  heard!();
};

it("follows the system until another theme is chosen, and again when that is the system's", () => {
  expect(shown()).toBe("light");
  systemTurns(true);
  expect(shown()).toBe("dark");
  switchTheme();
  expect([shown(), themeInUse()]).toEqual(["light", "light"]);
  systemTurns(false);
  systemTurns(true);
  expect(shown()).toBe("light");
  // Back to what the system has: it is followed again.
  switchTheme();
  expect(shown()).toBe("dark");
  systemTurns(false);
  expect(shown()).toBe("light");
});

it("tells whoever draws with its colours", () => {
  const told = vi.fn();
  const stop = onThemeChange(told);
  switchTheme();
  expect(told).toHaveBeenCalledTimes(1);
  stop();
  switchTheme();
  expect(told).toHaveBeenCalledTimes(1);
});

it("a kept theme that is none counts as none", () => {
  localStorage.setItem("theme", "sepia");
  expect(themeInUse()).toBe("light");
});
