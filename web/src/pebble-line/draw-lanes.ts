import type { TraceRows } from "@keen-pebble/core/simulate";
import { gridDistance } from "@keen-pebble/core/check";
import { DOWN, EVENT_NAMES, LEFT, RIGHT, UP, keysText } from "@keen-pebble/core/world";
import { TRAIL_STEPS, trailColour, trailScale } from "../field/trail-colour.ts";
import type { Palette } from "../look/palette.ts";
import type { PhasesOf } from "./draw-phases.ts";
import { drawPhases } from "./draw-phases.ts";
import type { LineScale } from "./line-scale.ts";
import { frameX, isOnLine } from "./line-scale.ts";

/** Where the lanes lie, in px from the line's top. */
export const CHECKS_Y = 36;
const RULER_Y = 20;
export const EVENTS_Y = 50;
export const KEYS_Y = 59;
const ROOM_Y = 77;
const GRID_TOP = 96;
const GRID_BASE = 114;

interface LaneInput {
  readonly rows: TraceRows;
  /** Whether frames are still to come, as of a walk that goes on. */
  readonly growing: boolean;
  /** Frames of the log; the run may have ended earlier. */
  readonly tileSize: number;
  readonly roomNames: readonly string[];
  /** By frame how far a game's walk is apart from ours, in px; null where there is none beside it. */
  readonly apart: Float32Array | null;
  /** The actor whose phases are shown in the lowest lane; null for none. */
  readonly phases: PhasesOf | null;
  /** Frames in which a line ended because what it was held until held. */
  readonly untils: readonly UntilEnd[];
}

/** Where a line that was held until something ended, and what that was. */
export interface UntilEnd {
  readonly frame: number;
  readonly text: string;
}

/** Draws ruler and lanes of a run. */
export function drawLanes(
  c: CanvasRenderingContext2D,
  scale: LineScale,
  { rows, growing, tileSize, roomNames, untils, apart, phases }: LaneInput,
  colours: Palette,
): void {
  const end = rows.count - 1;
  drawNames(c, scale, phases !== null ? "Phases" : apart === null ? "Off grid" : "px apart", colours);
  const last = apart === null ? gridLane(rows, tileSize) : apartLane(apart);
  c.save();
  c.beginPath();
  c.rect(scale.left - 6, 0, scale.width + 12, 200);
  c.clip();
  drawRuler(c, scale, end, growing, colours);
  drawEvents(c, scale, rows, colours);
  drawKeys(c, scale, rows, colours);
  drawUntils(c, scale, untils, colours);
  drawRooms(c, scale, rows, roomNames, colours);
  if (phases !== null) drawPhases(c, scale, rows, phases, colours);
  else drawDistance(c, scale, last, colours);
  c.restore();
  if (phases === null) drawDistanceNumbers(c, scale, last.most, colours);
}

/** The rows of the shown part, one more at each end. */
const firstOf = (scale: LineScale): number => Math.max(0, Math.floor(scale.from) - 1);
const lastOf = (scale: LineScale, rows: TraceRows): number =>
  Math.min(rows.count - 1, Math.ceil(scale.from + scale.frames) + 1);

function drawNames(c: CanvasRenderingContext2D, scale: LineScale, last: string, colours: Palette): void {
  c.font = `12px ${colours.text}`;
  c.textAlign = "right";
  c.textBaseline = "middle";
  c.fillStyle = colours.quiet;
  for (const [name, y] of [
    ["Checks", CHECKS_Y],
    ["Keys", KEYS_Y + 8],
    ["Room", ROOM_Y + 7],
    [last, GRID_BASE - 7],
  ] as const)
    c.fillText(name, scale.left - 12, y);
}

function drawRuler(
  c: CanvasRenderingContext2D,
  scale: LineScale,
  end: number,
  growing: boolean,
  colours: Palette,
): void {
  const perFrame = scale.width / scale.frames;
  const every =
    [1, 2, 5, 10, 20, 50, 100, 200, 500, 1000, 2000, 5000, 10_000, 50_000, 100_000].find((n) => n * perFrame >= 56) ??
    1_000_000;
  const small = every / (every % 5 === 0 ? 5 : every);
  c.font = `12px ${colours.text}`;
  c.textAlign = "left";
  c.textBaseline = "alphabetic";
  for (let i = Math.floor(scale.from / small); i * small <= scale.from + scale.frames; i++) {
    const frame = i * small;
    const x = Math.round(frameX(scale, frame));
    const big = frame % every === 0;
    c.fillStyle = big ? colours.quiet : colours.lineStrong;
    c.fillRect(x, big ? 11 : 16, 1, big ? 9 : 4);
    // Half a number would be read as another one.
    if (big && x + 4 + c.measureText(String(frame)).width <= scale.left + scale.width)
      c.fillText(String(frame), x + 4, 14);
  }
  // The colours of the trail.
  const over = trailScale(end, growing);
  const most = Math.min(frameX(scale, end), scale.left + scale.width);
  for (let step = 0; step < TRAIL_STEPS; step++) {
    const begin = Math.max(frameX(scale, (step / TRAIL_STEPS) * over), scale.left);
    const stop = Math.min(frameX(scale, ((step + 1) / TRAIL_STEPS) * over), most);
    c.fillStyle = trailColour(step);
    if (stop > begin) c.fillRect(begin, RULER_Y, stop - begin + 0.4, 3);
  }
  c.fillStyle = colours.lineStrong;
  c.fillRect(scale.left, CHECKS_Y, scale.width, 1);
}

function drawEvents(c: CanvasRenderingContext2D, scale: LineScale, rows: TraceRows, colours: Palette): void {
  let last = -10;
  for (let i = 0; i < rows.events.length; i += 3) {
    const name = EVENT_NAMES[rows.events[i + 1]!];
    if (name === "arrive" || rows.events[i]! < scale.from || rows.events[i]! > scale.from + scale.frames) continue;
    const x = frameX(scale, rows.events[i]!);
    if (x - last < 3) continue;
    last = x;
    c.lineWidth = 1.5;
    c.strokeStyle = BAD.includes(name!) ? colours.attention : colours.ink;
    c.beginPath();
    if (name === "bump") {
      c.moveTo(x, EVENTS_Y - 4);
      c.lineTo(x, EVENTS_Y + 4);
      c.moveTo(x - 5, EVENTS_Y);
      c.lineTo(x - 1, EVENTS_Y);
    } else if (name === "wrap") {
      c.arc(x, EVENTS_Y, 3, 0, 5);
    } else if (name === "take") {
      diamond(c, x, colours.ochre);
    } else if (name === "open" || name === "close") {
      c.rect(x - 3, EVENTS_Y - 3.5, 6, 7);
      if (name === "close") {
        c.fillStyle = colours.ink;
        c.fill();
      }
    } else if (name === "leave" || name === "enter" || name === "portal" || name === "respawn") {
      c.moveTo(x - 3, EVENTS_Y - 3);
      c.lineTo(x + 1, EVENTS_Y);
      c.lineTo(x - 3, EVENTS_Y + 3);
    } else if (name === "checkpoint" || name === "switch" || name === "marker" || name === "win") {
      c.arc(x, EVENTS_Y, 2.5, 0, 7);
    } else {
      c.moveTo(x - 3, EVENTS_Y - 3);
      c.lineTo(x + 3, EVENTS_Y + 3);
      c.moveTo(x + 3, EVENTS_Y - 3);
      c.lineTo(x - 3, EVENTS_Y + 3);
    }
    c.stroke();
  }
}

/** Events that nobody wishes for. */
const BAD: readonly string[] = ["escape", "hurt", "lose", "refused"];

function diamond(c: CanvasRenderingContext2D, x: number, colour: string): void {
  c.moveTo(x, EVENTS_Y - 4);
  c.lineTo(x + 4, EVENTS_Y);
  c.lineTo(x, EVENTS_Y + 4);
  c.lineTo(x - 4, EVENTS_Y);
  c.closePath();
  c.fillStyle = colour;
  c.fill();
}

/** Calls back for each stretch of frames 1 to the last in which a column keeps its value. */
function stretches(
  column: Uint8Array,
  first: number,
  count: number,
  each: (from: number, to: number, value: number) => void,
): void {
  let from = first;
  for (let frame = first + 1; frame <= count; frame++) {
    if (frame === count || column[frame] !== column[from]) {
      each(from, frame, column[from]!);
      from = frame;
    }
  }
}

function drawKeys(c: CanvasRenderingContext2D, scale: LineScale, rows: TraceRows, colours: Palette): void {
  c.textBaseline = "middle";
  c.textAlign = "center";
  c.font = `12px ${colours.mono}`;
  let filled = -1;
  stretches(rows.keys, Math.max(1, firstOf(scale)), lastOf(scale, rows) + 1, (from, to, keys) => {
    const x = frameX(scale, from - 1);
    const width = frameX(scale, to - 1) - x;
    // Of stretches that are narrower than a px one a px is drawn.
    if (x + width < filled) return;
    filled = x + 1;
    const middle = KEYS_Y + 8;
    if (keys === 0) {
      c.fillStyle = colours.lineStrong;
      for (let dot = x + 3; dot < x + width - 2; dot += 4) c.fillRect(dot, middle, 1, 1);
      return;
    }
    const upright = (keys & (UP | DOWN)) !== 0 && (keys & (LEFT | RIGHT)) === 0;
    c.fillStyle = upright ? colours.dataWash : colours.accentWash;
    c.beginPath();
    c.roundRect(x + 0.5, KEYS_Y, Math.max(1, width - 1), 15, 3);
    c.fill();
    const arrow = arrowOf(keys);
    c.fillStyle = colours.ink;
    c.strokeStyle = colours.ink;
    if (arrow !== null) {
      if (width >= 14) drawArrow(c, x + Math.min(width / 2, 14), middle, arrow);
    } else if (width >= keysText(keys).length * 8) c.fillText(keysText(keys), x + width / 2, middle + 1);
  });
}

/** A small flag at the end of each line that was held until something. */
function drawUntils(
  c: CanvasRenderingContext2D,
  scale: LineScale,
  untils: readonly UntilEnd[],
  colours: Palette,
): void {
  let last = -10;
  c.fillStyle = colours.ochre;
  for (const { frame } of untils) {
    const x = Math.round(frameX(scale, frame));
    if (x - last < 3 || !isOnLine(scale, frame)) continue;
    last = x;
    c.fillRect(x - 1, KEYS_Y, 2, 15);
    c.beginPath();
    c.moveTo(x - 1, KEYS_Y);
    c.lineTo(x - 7, KEYS_Y + 3);
    c.lineTo(x - 1, KEYS_Y + 6);
    c.fill();
  }
}

function arrowOf(keys: number): readonly [number, number] | null {
  return keys === LEFT ? [-1, 0] : keys === RIGHT ? [1, 0] : keys === UP ? [0, -1] : keys === DOWN ? [0, 1] : null;
}

function drawArrow(c: CanvasRenderingContext2D, x: number, y: number, [dx, dy]: readonly [number, number]): void {
  c.lineWidth = 1.5;
  c.lineCap = "round";
  c.beginPath();
  c.moveTo(x - dx * 5, y - dy * 5);
  c.lineTo(x + dx * 5, y + dy * 5);
  c.moveTo(x + dx * 2 - dy * 3, y + dy * 2 - dx * 3);
  c.lineTo(x + dx * 5, y + dy * 5);
  c.lineTo(x + dx * 2 + dy * 3, y + dy * 2 + dx * 3);
  c.stroke();
}

function drawRooms(
  c: CanvasRenderingContext2D,
  scale: LineScale,
  rows: TraceRows,
  names: readonly string[],
  colours: Palette,
): void {
  c.textAlign = "left";
  c.textBaseline = "middle";
  c.font = `12px ${colours.text}`;
  stretches(rows.room, firstOf(scale), lastOf(scale, rows) + 1, (from, to, room) => {
    const x = Math.max(scale.left, frameX(scale, from));
    const width = frameX(scale, Math.min(to, rows.count - 1)) - x;
    c.fillStyle = colours.sunk;
    c.beginPath();
    c.roundRect(x, ROOM_Y, Math.max(1, width), 14, 3);
    c.fill();
    const name = names[room] ?? "";
    c.fillStyle = colours.ink;
    if (c.measureText(name).width + 12 < width) c.fillText(name, x + 8, ROOM_Y + 7.5);
  });
}

/** What the lowest lane shows: a distance in px for each frame, and which frames are marked. */
interface DistanceLane {
  readonly count: number;
  readonly most: number;
  readonly at: (frame: number) => number;
  readonly isMarked: (frame: number) => boolean;
}

/** How far off the grid; standing still there is what a grid game must not do. */
function gridLane(rows: TraceRows, tileSize: number): DistanceLane {
  const { x, y } = rows;
  const at = (frame: number): number => gridDistance(tileSize * 256, x[frame]!, y[frame]!) / 256;
  const rests = (frame: number): boolean => frame > 0 && x[frame] === x[frame - 1] && y[frame] === y[frame - 1];
  return { count: rows.count, most: tileSize / 2, at, isMarked: (frame) => rests(frame) && at(frame) > 0 };
}

/** How far a game's walk is apart from ours; in another room it is as far as can be. */
function apartLane(apart: Float32Array): DistanceLane {
  const most = Math.ceil(apart.reduce((far, each) => (each > far ? each : far), 1));
  const at = (frame: number): number => (Number.isNaN(apart[frame]) ? most : apart[frame]!);
  return { count: apart.length, most, at, isMarked: (frame) => at(frame) > 0 };
}

function drawDistance(
  c: CanvasRenderingContext2D,
  scale: LineScale,
  { count, most, at, isMarked }: DistanceLane,
  colours: Palette,
): void {
  const high = GRID_BASE - GRID_TOP;
  const end = count - 1;
  // One column a px: of the frames that fall into it the farthest counts.
  const columns = Math.ceil((Math.min(end - scale.from, scale.frames) / scale.frames) * scale.width);
  const marked: number[] = [];
  c.beginPath();
  c.moveTo(scale.left, GRID_BASE);
  for (let column = 0; column <= columns; column++) {
    const from = Math.min(end, Math.floor(scale.from + (column / scale.width) * scale.frames));
    const to = Math.max(from, Math.min(end, Math.ceil(scale.from + ((column + 1) / scale.width) * scale.frames) - 1));
    let far = 0;
    let isAny = false;
    for (let frame = from; frame <= to; frame++) {
      far = Math.max(far, at(frame));
      isAny ||= isMarked(frame);
    }
    const y = GRID_BASE - (far / most) * high;
    c.lineTo(scale.left + column, y);
    if (isAny) marked.push(scale.left + column, y);
  }
  c.lineTo(scale.left + columns, GRID_BASE);
  c.globalAlpha = 0.18;
  c.fillStyle = colours.accent;
  c.fill();
  c.globalAlpha = 0.6;
  c.lineWidth = 1;
  c.strokeStyle = colours.accent;
  c.stroke();
  c.globalAlpha = 1;
  c.fillStyle = colours.attention;
  for (let i = 0; i < marked.length; i += 2) {
    c.globalAlpha = 0.25;
    c.fillRect(marked[i]!, marked[i + 1]!, 1, GRID_BASE - marked[i + 1]!);
    c.globalAlpha = 1;
    c.fillRect(marked[i]!, marked[i + 1]! - 1, 1, 2);
  }
  c.fillStyle = colours.quiet;
  c.fillRect(scale.left, GRID_BASE, scale.width, 1);
}

function drawDistanceNumbers(c: CanvasRenderingContext2D, scale: LineScale, most: number, colours: Palette): void {
  c.fillStyle = colours.quiet;
  c.font = `11px ${colours.mono}`;
  c.textAlign = "left";
  c.textBaseline = "middle";
  c.fillText(String(most), scale.left + scale.width + 6, GRID_TOP + 2);
  c.fillText("0", scale.left + scale.width + 6, GRID_BASE - 1);
}
