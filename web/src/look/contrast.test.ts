import { readFileSync } from "node:fs";
import path from "node:path";
import { describe, expect, it } from "vitest";

const css = readFileSync(path.join(import.meta.dirname, "theme.css"), "utf8");

/** The colours of a theme by their roles; what a theme does not say itself is as in the light one. */
function roles(selector: string): ReadonlyMap<string, string> {
  const from = css.indexOf(`${selector} {`);
  const block = css.slice(from, css.indexOf("}", from));
  return new Map([...block.matchAll(/--kp-([a-z-]+): (#[0-9a-f]{6});/g)].map(([, role, colour]) => [role!, colour!]));
}

/** Contrast of two colours, 1 to 21 (WCAG 2.2, 1.4.3). */
function contrast(one: string, other: string): number {
  const [lighter, darker] = [luminance(one), luminance(other)].sort((a, b) => b - a);
  return (lighter! + 0.05) / (darker! + 0.05);
}

function luminance(colour: string): number {
  const [red, green, blue] = [1, 3, 5].map((at) => {
    const part = parseInt(colour.slice(at, at + 2), 16) / 255;
    return part <= 0.04045 ? part / 12.92 : ((part + 0.055) / 1.055) ** 2.4;
  });
  return 0.2126 * red! + 0.7152 * green! + 0.0722 * blue!;
}

const GROUNDS = ["ground", "paper", "field", "sunk"];
const TEXTS = ["ink", "quiet", "accent-text", "attention-text", "data-text"];

describe.each([
  ["light", ":root"],
  ["dark", ':root[data-theme="dark"]'],
])("in the %s theme", (_name, selector) => {
  const colours = roles(selector);
  const pairs = (fronts: readonly string[]) => fronts.flatMap((front) => GROUNDS.map((ground) => [front, ground]));

  it.each(pairs(TEXTS))("%s is read on %s", (text, ground) => {
    expect(contrast(colours.get(text)!, colours.get(ground)!)).toBeGreaterThanOrEqual(4.5);
  });

  it.each(pairs(["control", "accent"]))("what is drawn as %s is seen on %s", (control, ground) => {
    expect(contrast(colours.get(control)!, colours.get(ground)!)).toBeGreaterThanOrEqual(3);
  });

  it("what stands on the accent is read", () => {
    expect(contrast(colours.get("on-accent")!, colours.get("accent")!)).toBeGreaterThanOrEqual(4.5);
  });
});
