import { uniformInt } from "pure-rand/distribution/uniformInt";
import { xorshift128plus } from "pure-rand/generator/xorshift128plus";

/** A colour `#rrggbb` made lighter (above 0) or darker (below 0), up to 1 or -1. */
export function shade(colour: string, by: number): string {
  const value = Number.parseInt(colour.slice(1), 16);
  const target = by < 0 ? 0 : 255;
  const amount = Math.abs(by);
  const part = (shift: number): number => {
    const channel = (value >> shift) & 255;
    return Math.round(channel + (target - channel) * amount);
  };
  return `rgb(${part(16)}, ${part(8)}, ${part(0)})`;
}

/** Whole numbers that look random and are the same everywhere for the same seed: each call gives one below its bound. */
export function scatter(seed: number): (below: number) => number {
  const generator = xorshift128plus(seed);
  // The first ones of neighbouring seeds are alike.
  for (let i = 0; i < 4; i++) generator.next();
  return (below) => uniformInt(generator, 0, below - 1);
}
