import type { Outline } from "@keen-pebble/core/edit";
import type { Pair } from "@keen-pebble/core/world";

/** The rectangle along a line, so many px thick, its corners rounded to whole px. */
export function turnedWall([ax, ay]: Pair, [bx, by]: Pair, thickness: number): Outline {
  const length = Math.sqrt((bx - ax) ** 2 + (by - ay) ** 2);
  if (length === 0) return [];
  const across = [(-(by - ay) / length) * (thickness / 2), ((bx - ax) / length) * (thickness / 2)] as const;
  const corner = (x: number, y: number, side: 1 | -1): Pair => [
    Math.round(x + side * across[0]),
    Math.round(y + side * across[1]),
  ];
  return [corner(ax, ay, -1), corner(bx, by, -1), corner(bx, by, 1), corner(ax, ay, 1)];
}
