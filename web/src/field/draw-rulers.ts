import type { Room } from "@keen-pebble/core";
import { palette } from "../look/palette.ts";
import { TRAIL_STEPS, trailColour } from "./trail-colour.ts";
import type { View } from "./view.ts";

/** Column and row numbers along the room's top and left, the walker's own stressed. */
export function drawRulers(
  c: CanvasRenderingContext2D,
  view: View,
  room: Room,
  size: number,
  occupied: { readonly x: number; readonly y: number } | null,
  width: number,
  height: number,
): void {
  const colours = palette();
  const step = size * view.zoom;
  // Numbers stand as close as they can be read.
  const every = [1, 2, 5, 10, 20, 50, 100].find((n) => n * step >= 24) ?? 200;
  c.font = `11px ${colours.mono}`;
  c.textAlign = "center";
  c.textBaseline = "middle";
  const y = Math.max(9, view.top - 13);
  const x = Math.max(14, view.left - 14);
  const label = (text: number, atX: number, atY: number, stressed: boolean): void => {
    c.fillStyle = stressed ? colours.ink : colours.quiet;
    c.font = `${stressed ? "600 " : ""}11px ${colours.mono}`;
    c.fillText(String(text), atX, atY);
  };
  for (let cx = 0; cx < room.width; cx++) {
    const at = view.left + (cx + 0.5) * step;
    if ((cx % every === 0 || cx === occupied?.x) && at > 24 && at < width - 8) label(cx, at, y, cx === occupied?.x);
  }
  for (let cy = 0; cy < room.height; cy++) {
    const at = view.top + (cy + 0.5) * step;
    if ((cy % every === 0 || cy === occupied?.y) && at > 20 && at < height - 8) label(cy, x, at, cy === occupied?.y);
  }
}

/** What the trail's colours and the pale second trail mean, right-aligned at `right`. */
export function drawLegend(c: CanvasRenderingContext2D, right: number, y: number, frames: number, ghost: boolean): void {
  if (frames <= 0) return;
  const colours = palette();
  c.font = `12px ${colours.text}`;
  c.textBaseline = "middle";
  c.textAlign = "right";
  c.fillStyle = colours.quiet;
  let x = right;
  if (ghost) {
    c.fillText("Ghost: before the change", x, y);
    x -= c.measureText("Ghost: before the change").width + 32;
    c.fillStyle = "#fffdf6";
    c.fillRect(x, y - 3, 24, 6);
    c.strokeStyle = colours.lineStrong;
    c.lineWidth = 1;
    c.strokeRect(x - 0.5, y - 3.5, 25, 7);
    x -= 20;
    c.fillStyle = colours.quiet;
  }
  const last = String(frames);
  c.fillText(last, x, y);
  x -= c.measureText(last).width + 6 + 80;
  for (let i = 0; i < 80; i++) {
    c.fillStyle = trailColour(Math.floor((i / 80) * TRAIL_STEPS));
    c.fillRect(x + i, y - 2, 1.5, 4);
  }
  c.fillStyle = colours.quiet;
  c.fillText("Trail, frame 0", x - 6, y);
}
