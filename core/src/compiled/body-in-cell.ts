import type { Compiled } from "./compiled.ts";

/**
 * Whether the body's interior, or a probe, is in a cell's square, or in a rectangle of cells.
 * @param x the walker's place in units, counted from the corner of the cell
 * @param width units across, of one cell where it is left out
 */
export function bodyIn(c: Compiled, x: number, y: number, width = c.tileUnits, height = c.tileUnits): boolean {
  const { body } = c;
  if (body.kind === "box")
    return x + body.left < width && x + body.right > 0 && y + body.top < height && y + body.bottom > 0;
  for (let i = 0; i < body.probes.length; i += 2) {
    const px = x + body.probes[i]!;
    const py = y + body.probes[i + 1]!;
    if (px >= 0 && py >= 0 && px < width && py < height) return true;
  }
  return false;
}
