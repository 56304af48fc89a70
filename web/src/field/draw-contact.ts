import type { Explanation, TestedCell, World } from "@keen-pebble/core";
import { palette } from "../look/palette.ts";
import type { View } from "./view.ts";

/** The cells that were tested in the shown frame, and where the body was tried: blocked ones filled. */
export function drawTested(c: CanvasRenderingContext2D, explanation: Explanation, view: View, size: number): void {
  const colours = palette();
  const { zoom, left, top } = view;
  const step = size * zoom;
  const candidates = explanation.choices.flat();
  const places = [...candidates.flatMap((candidate) => candidate.places), ...(explanation.reverse ? [explanation.reverse.place] : [])];
  const cells = new Map<string, TestedCell>();
  for (const place of places) for (const cell of place.cells) cells.set(`${cell.cx},${cell.cy},${cell.blocks}`, cell);
  c.lineJoin = "miter";
  for (const cell of [...cells.values()].sort((a, b) => Number(a.blocks) - Number(b.blocks))) {
    const x = left + cell.cx * step;
    const y = top + cell.cy * step;
    if (cell.blocks) {
      c.globalAlpha = 0.34;
      c.fillStyle = colours.attention;
      c.fillRect(x, y, step, step);
      c.globalAlpha = 1;
    }
    c.strokeStyle = "#fffdf6";
    c.lineWidth = 4;
    c.strokeRect(x + 2, y + 2, step - 4, step - 4);
    c.strokeStyle = cell.blocks ? colours.attention : colours.accent;
    c.lineWidth = 2;
    c.strokeRect(x + 2, y + 2, step - 4, step - 4);
  }
  for (const place of places) {
    if (place.free) continue;
    const at = [left + (place.x / 256) * zoom + 0.5, top + (place.y / 256) * zoom + 0.5, step - 1, step - 1] as const;
    c.setLineDash([4, 3]);
    c.strokeStyle = "#1c2124";
    c.lineWidth = 1.5;
    c.strokeRect(...at);
    c.setLineDash([]);
  }
  if (explanation.bumping) drawBump(c, explanation, view, size);
}

/** A short stroke at the side that was hit. */
function drawBump(c: CanvasRenderingContext2D, explanation: Explanation, view: View, size: number): void {
  const [dx, dy] = explanation.intent;
  const { zoom, left, top } = view;
  const half = (size * zoom) / 2;
  const x = left + (explanation.to[0] / 256) * zoom + half + dx * half;
  const y = top + (explanation.to[1] / 256) * zoom + half + dy * half;
  c.strokeStyle = palette().attention;
  c.lineCap = "round";
  c.lineWidth = 4;
  c.beginPath();
  c.moveTo(x - dy * half * 0.7, y - dx * half * 0.7);
  c.lineTo(x + dy * half * 0.7, y + dx * half * 0.7);
  c.stroke();
}

/** Names the cell that stopped the walker, on a label that points at it. */
export function drawStop(c: CanvasRenderingContext2D, explanation: Explanation, world: World, view: View, width: number, height: number): void {
  const cell = explanation.stoppedBy;
  if (cell === null) return;
  const colours = palette();
  const tile = cell.tile < 0 ? null : world.tiles[cell.tile];
  const title = `${cell.cx},${cell.cy} ${tile ? tile.name : "The map's edge"} stops the body`;
  const detail = tile ? `carries ${tile.flags.join(", ")}` : "beyond a side that is a wall";
  c.font = `600 13px ${colours.text}`;
  const across = Math.max(c.measureText(title).width, 120) + 26;
  const step = world.tileSize * view.zoom;
  const px = view.left + (cell.cx + 0.5) * step;
  const py = view.top + (cell.cy + 0.5) * step;
  const toRight = px + step + across + 40 < width;
  const x = toRight ? px + step + 16 : px - step - 16 - across;
  const y = Math.max(8, Math.min(height - 60, py - 76));
  c.strokeStyle = colours.paper;
  c.lineWidth = 5;
  lead(c, px, py, toRight ? x : x + across, y + 22);
  c.strokeStyle = colours.attention;
  c.lineWidth = 1.5;
  lead(c, px, py, toRight ? x : x + across, y + 22);
  c.save();
  c.shadowColor = "rgba(34, 38, 43, 0.28)";
  c.shadowBlur = 10;
  c.shadowOffsetY = 2;
  c.fillStyle = colours.paper;
  c.beginPath();
  c.roundRect(x, y, across, 44, 6);
  c.fill();
  c.restore();
  c.fillStyle = colours.attention;
  c.fillRect(x, y + 6, 3, 32);
  c.beginPath();
  c.arc(px, py, 3.5, 0, 7);
  c.fill();
  c.textAlign = "left";
  c.textBaseline = "alphabetic";
  c.fillStyle = colours.ink;
  c.fillText(title, x + 13, y + 18);
  c.font = `12px ${colours.text}`;
  c.fillStyle = colours.quiet;
  c.fillText(detail, x + 13, y + 35);
}

function lead(c: CanvasRenderingContext2D, px: number, py: number, x: number, y: number): void {
  c.beginPath();
  c.moveTo(px, py);
  c.lineTo(px, y);
  c.lineTo(x, y);
  c.stroke();
}
