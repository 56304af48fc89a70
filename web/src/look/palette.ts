import { onThemeChange } from "./theme.ts";

/** Colours that canvases draw with, by their roles in `theme.css`. */
export interface Palette {
  readonly ground: string;
  readonly paper: string;
  readonly sunk: string;
  readonly ink: string;
  readonly quiet: string;
  readonly line: string;
  readonly lineStrong: string;
  readonly accent: string;
  readonly attention: string;
  readonly attentionText: string;
  readonly data: string;
  readonly dataWash: string;
  readonly accentWash: string;
  readonly ochre: string;
  readonly text: string;
  readonly mono: string;
}

let known: Palette | null = null;

/** The palette of the theme in use. */
export function palette(): Palette {
  if (known) return known;
  const style = getComputedStyle(document.documentElement);
  const read = (name: string): string => style.getPropertyValue(`--kp-${name}`).trim();
  known = {
    ground: read("ground"),
    paper: read("paper"),
    sunk: read("sunk"),
    ink: read("ink"),
    quiet: read("quiet"),
    line: read("line"),
    lineStrong: read("line-strong"),
    accent: read("accent"),
    attention: read("attention"),
    attentionText: read("attention-text"),
    data: read("data"),
    dataWash: read("data-wash"),
    accentWash: read("accent-wash"),
    ochre: read("ochre"),
    text: read("text-face"),
    mono: read("mono-face"),
  };
  return known;
}

/** Calls back when the theme changes, so that canvases draw again. */
export function onPaletteChange(changed: () => void): () => void {
  return onThemeChange(() => {
    known = null;
    changed();
  });
}
