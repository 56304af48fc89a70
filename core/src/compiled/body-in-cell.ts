import type { Compiled } from "./compiled.ts";

/** Whether the body's interior, or a probe, is in a cell's square; the walker's place is counted from the cell's corner. */
export function bodyIn(c: Compiled, x: number, y: number): boolean {
  const { body, tileUnits: t } = c;
  if (body.kind === "box") return x + body.left < t && x + body.right > 0 && y + body.top < t && y + body.bottom > 0;
  for (let i = 0; i < body.probes.length; i += 2) {
    const px = x + body.probes[i]!;
    const py = y + body.probes[i + 1]!;
    if (px >= 0 && py >= 0 && px < t && py < t) return true;
  }
  return false;
}
