import type { Pair } from "../../world/world.ts";
import { turn } from "./outline.ts";

/** The corners of the smallest convex figure around some points, clockwise on the screen, none on a straight edge. */
export function hullOf(points: readonly Pair[]): Pair[] {
  const sorted = [...points].sort((a, b) => a[0] - b[0] || a[1] - b[1]);
  const half = (each: readonly Pair[]): Pair[] => {
    const chain: Pair[] = [];
    for (const point of each) {
      while (chain.length > 1 && turn(chain.at(-2)!, chain.at(-1)!, point) <= 0) chain.pop();
      chain.push(point);
    }
    return chain.slice(0, -1);
  };
  return [...half(sorted), ...half(sorted.reverse())];
}
