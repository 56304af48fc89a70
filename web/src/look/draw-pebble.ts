import type { Palette } from "./palette.ts";
import type { PebbleKind } from "./pebble.tsx";

/** Draws a pebble on a canvas, in the shapes that `Pebble` has. */
export function drawPebble(
  c: CanvasRenderingContext2D,
  kind: PebbleKind,
  x: number,
  y: number,
  radius: number,
  { accent, attention, quiet }: Palette,
): void {
  const quarter = Math.PI / 2;
  const gap = kind === "fail" ? Math.max(1, radius * 0.22) : 0;
  c.fillStyle = kind === "fail" ? attention : accent;
  c.strokeStyle = quiet;
  c.lineWidth = 1.5;
  if (kind === "unreached") {
    c.beginPath();
    c.arc(x, y, radius - 0.75, 0, 4 * quarter);
    c.stroke();
    return;
  }
  c.beginPath();
  c.arc(x - gap, y, radius, quarter, 3 * quarter);
  c.fill();
  c.beginPath();
  c.arc(x + gap, y, radius, -quarter, quarter);
  c.fill();
}
