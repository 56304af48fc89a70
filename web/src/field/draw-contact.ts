import type { Explanation } from "@keen-pebble/core/simulate";
import type { Body, World } from "@keen-pebble/core/world";
import { roundPx } from "@keen-pebble/core/analyse";
import { palette } from "../look/palette.ts";
import type { View } from "./view.ts";

/** A rectangle on the canvas. */
interface Area {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** Where the body's box, or the box around its probes, lies on the canvas for a place of the walker in px. */
export function bodyArea(body: Body, x: number, y: number, { zoom, left, top }: View): Area {
  const [l, t, w, h] = body.kind === "box" ? body.box : spanOf(body.points);
  return { x: left + (x + l) * zoom, y: top + (y + t) * zoom, width: w * zoom, height: h * zoom };
}

function spanOf(points: readonly (readonly [number, number])[]): readonly [number, number, number, number] {
  const xs = points.map(([x]) => x);
  const ys = points.map(([, y]) => y);
  const [left, top] = [Math.min(...xs), Math.min(...ys)];
  return [left, top, Math.max(...xs) - left, Math.max(...ys) - top];
}

/** The cells that were tested in the shown frame, blocked ones filled, and the places at which the body was tried in vain. */
export function drawTested(
  c: CanvasRenderingContext2D,
  explanation: Explanation,
  body: Body,
  view: View,
  size: number,
): void {
  const colours = palette();
  const { zoom, left, top } = view;
  const step = size * zoom;
  c.lineJoin = "miter";
  const cells = [...explanation.tested, ...(explanation.reverse?.place.cells ?? [])];
  for (const cell of cells.sort((a, b) => Number(a.blocks) - Number(b.blocks))) {
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
  const places = [
    ...explanation.choices.flat().flatMap((candidate) => candidate.places),
    ...(explanation.reverse ? [explanation.reverse.place] : []),
    ...explanation.axes.flatMap(({ place }) => (place === null ? [] : [place])),
  ];
  for (const place of places) {
    if (place.free) continue;
    const area = bodyArea(body, place.x / 256, place.y / 256, view);
    c.setLineDash([4, 3]);
    c.strokeStyle = "#1c2124";
    c.lineWidth = 1.5;
    c.strokeRect(area.x + 0.5, area.y + 0.5, area.width - 1, area.height - 1);
    c.setLineDash([]);
  }
}

/** The body's box or its probes, and at its sides the gaps to what blocks it, or how deep it is in. */
export function drawBody(c: CanvasRenderingContext2D, body: Body, x: number, y: number, view: View): void {
  const { zoom, left, top } = view;
  c.lineJoin = "miter";
  if (body.kind === "box") {
    const area = bodyArea(body, x, y, view);
    for (const [colour, width] of OUTLINE) {
      c.strokeStyle = colour;
      c.lineWidth = width;
      c.strokeRect(area.x + 0.5, area.y + 0.5, area.width - 1, area.height - 1);
    }
    return;
  }
  for (const [px, py] of body.points) {
    const at = [left + (x + px) * zoom, top + (y + py) * zoom] as const;
    for (const [colour, width] of OUTLINE) {
      c.strokeStyle = colour;
      c.lineWidth = width;
      c.beginPath();
      c.moveTo(at[0] - 4, at[1]);
      c.lineTo(at[0] + 4, at[1]);
      c.moveTo(at[0], at[1] - 4);
      c.lineTo(at[0], at[1] + 4);
      c.stroke();
    }
  }
}

const OUTLINE = [
  ["#fffdf6", 3],
  ["#1c2124", 1],
] as const;

/** Gaps of less than this share of a cell are written at the body's side. */
const NEAR = 0.75;

/** px between the body and what blocks it, written at its sides; or by how much it overlaps. */
export function drawGaps(
  c: CanvasRenderingContext2D,
  { gaps, to }: Explanation,
  body: Body,
  view: View,
  size: number,
): void {
  const colours = palette();
  const area = bodyArea(body, to[0] / 256, to[1] / 256, view);
  const middle = { x: area.x + area.width / 2, y: area.y + area.height / 2 };
  if (gaps.overlap !== null) {
    c.fillStyle = colours.attention;
    c.globalAlpha = 0.45;
    c.fillRect(area.x, area.y, Math.max(2, area.width), Math.max(2, area.height));
    c.globalAlpha = 1;
    tag(c, `overlap ${roundPx(gaps.overlap)}`, middle.x, area.y - 10, colours.attention, colours.paper);
    return;
  }
  const near = size * 256 * NEAR;
  for (const [side, dx, dy] of [
    ["left", -1, 0],
    ["right", 1, 0],
    ["top", 0, -1],
    ["bottom", 0, 1],
  ] as const) {
    const gap = gaps[side];
    // A gap of a px or so is what one looks for; flush ones need no number.
    if (gap === null || gap === 0 || gap > near) continue;
    const length = (gap / 256) * view.zoom;
    const x = middle.x + (dx * area.width) / 2;
    const y = middle.y + (dy * area.height) / 2;
    c.strokeStyle = colours.attention;
    c.lineWidth = 2;
    c.beginPath();
    c.moveTo(x, y);
    c.lineTo(x + dx * length, y + dy * length);
    c.moveTo(x + dx * length - dy * 5, y + dy * length - dx * 5);
    c.lineTo(x + dx * length + dy * 5, y + dy * length + dx * 5);
    c.stroke();
    tag(c, roundPx(gap), x + dx * (length + 14), y + dy * (length + 10), colours.ink, colours.paper);
  }
}

function tag(c: CanvasRenderingContext2D, text: string, x: number, y: number, ink: string, paper: string): void {
  c.font = `600 11px ${palette().mono}`;
  c.textAlign = "center";
  c.textBaseline = "middle";
  const width = c.measureText(text).width + 8;
  c.fillStyle = paper;
  c.beginPath();
  c.roundRect(x - width / 2, y - 8, width, 16, 4);
  c.fill();
  c.fillStyle = ink;
  c.fillText(text, x, y + 0.5);
}

/** So many frames of the present velocity the arrow is long. */
const AHEAD = 8;

/** The velocity after the frame, as an arrow of some frames' way from the body's middle. */
export function drawVelocity(c: CanvasRenderingContext2D, { velocity, to }: Explanation, body: Body, view: View): void {
  const [vx, vy] = [(velocity[0] / 256) * view.zoom * AHEAD, (velocity[1] / 256) * view.zoom * AHEAD];
  const length = Math.hypot(vx, vy);
  if (length < 2) return;
  const area = bodyArea(body, to[0] / 256, to[1] / 256, view);
  const [x, y] = [area.x + area.width / 2, area.y + area.height / 2];
  const [ux, uy] = [vx / length, vy / length];
  c.lineCap = "round";
  for (const [colour, width] of [
    ["#fffdf6", 5],
    [palette().data, 2.5],
  ] as const) {
    c.strokeStyle = colour;
    c.lineWidth = width;
    c.beginPath();
    c.moveTo(x, y);
    c.lineTo(x + vx, y + vy);
    c.moveTo(x + vx - ux * 6 - uy * 4, y + vy - uy * 6 + ux * 4);
    c.lineTo(x + vx, y + vy);
    c.lineTo(x + vx - ux * 6 + uy * 4, y + vy - uy * 6 - ux * 4);
    c.stroke();
  }
}

/** A short stroke at the side of the body that was hit. */
export function drawBump(c: CanvasRenderingContext2D, explanation: Explanation, body: Body, view: View): void {
  if (!explanation.bumping) return;
  const area = bodyArea(body, explanation.to[0] / 256, explanation.to[1] / 256, view);
  const side = explanation.stoppedBy?.side ?? null;
  const { intent } = explanation;
  const dx = side === "left" ? -1 : side === "right" ? 1 : side === "top" || side === "bottom" ? 0 : intent[0];
  const dy = side === "top" ? -1 : side === "bottom" ? 1 : side === "left" || side === "right" ? 0 : intent[1];
  const x = area.x + area.width / 2 + (dx * area.width) / 2;
  const y = area.y + area.height / 2 + (dy * area.height) / 2;
  const half = { x: area.width * 0.4 + 2, y: area.height * 0.4 + 2 };
  c.strokeStyle = palette().attention;
  c.lineCap = "round";
  c.lineWidth = 4;
  c.beginPath();
  c.moveTo(x - dy * half.x, y - dx * half.y);
  c.lineTo(x + dy * half.x, y + dx * half.y);
  c.stroke();
}

const SIDES = {
  left: ", at its left",
  right: ", at its right",
  top: ", above it",
  bottom: ", below it",
  corner: ", at its corner",
  inside: ", where it is",
} as const;

/** Names the cell that stopped the walker, on a label that points at it. */
export function drawStop(
  c: CanvasRenderingContext2D,
  explanation: Explanation,
  world: World,
  view: View,
  width: number,
  height: number,
): void {
  const cell = explanation.stoppedBy;
  if (cell === null) return;
  const colours = palette();
  const tile = cell.tile < 0 ? null : world.tiles[cell.tile];
  const title = `${cell.cx},${cell.cy} ${tile ? tile.name : "The map's edge"} stops the body`;
  const where = cell.side === null ? "" : SIDES[cell.side];
  const detail = `${tile ? `carries ${tile.flags.join(", ")}` : "beyond a side that is a wall"}${where}`;
  c.font = `600 13px ${colours.text}`;
  const across = Math.max(c.measureText(title).width, c.measureText(detail).width, 120) + 26;
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
