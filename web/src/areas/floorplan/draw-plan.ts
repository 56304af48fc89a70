import type { Seam } from "@keen-pebble/core/edit";
import type { Remembered, TraceRows } from "@keen-pebble/core/simulate";
import type { Room, SideName, World } from "@keen-pebble/core/world";
import { drawStart } from "../../field/draw-start.ts";
import { OPPOSITE } from "@keen-pebble/core/edit";
import { fixturePicture } from "../../field/fixture-art.ts";
import { shownFixtures } from "../../field/fixture-looks.ts";
import type { RoomPicture } from "../../field/room-picture.ts";
import type { SheetImages } from "../../field/tile-art.ts";
import type { Trail } from "../../field/trail.ts";
import { strokeTrail } from "../../field/trail.ts";
import { trailColour } from "../../field/trail-colour.ts";
import type { Palette } from "../../look/palette.ts";
import type { PlanCursorState, PlanPlace } from "../../session/floorplan/plan-cursor.ts";
import { along } from "../../session/floorplan/plan-cursor.ts";
import type { PlanView } from "./plan-view.ts";
import { OUT, cornerOf, sidePoint } from "./plan-view.ts";

/** All that a picture of the plan shows. */
export interface PlanInput {
  readonly world: World;
  readonly seams: readonly Seam[];
  readonly picture: RoomPicture;
  readonly images: SheetImages;
  readonly chosen: string | null;
  readonly rows: TraceRows | null;
  /** The run's trail in each room. */
  readonly trails: readonly Trail[];
  readonly frame: number;
  readonly remembered: Remembered | null;
  readonly linking: {
    readonly room: string;
    readonly side: SideName;
    readonly at: number;
    readonly x: number;
    readonly y: number;
  } | null;
  /** Draws over a room's tiles and below its fixtures; its corner and cell in px of the screen. */
  /** The cell cursor, and what is held there. */
  readonly cursor: PlanCursorState;
  readonly over: ((c: CanvasRenderingContext2D, room: Room, x: number, y: number, cell: number) => void) | null;
}

/** Draws the plan: ribbons of linked sides, rooms with their fixtures, threads of portals, and the walk over all of it. */
export function drawPlan(
  c: CanvasRenderingContext2D,
  input: PlanInput,
  view: PlanView,
  width: number,
  height: number,
  colours: Palette,
): void {
  c.fillStyle = colours.sunk;
  c.fillRect(0, 0, width, height);
  drawDots(c, view, width, height, colours);
  for (const seam of input.seams) drawSeam(c, input.world, seam, view, colours);
  for (const room of input.world.rooms) drawRoom(c, input, room, view, width, height, colours);
  for (const seam of input.seams) drawUnmet(c, input.world, seam, view, colours);
  drawPortals(c, input.world, view, colours);
  for (const room of input.world.rooms) drawName(c, room, view, colours);
  drawStartOn(c, input.world, view);
  if (input.rows !== null) drawWalk(c, input, input.rows, view, colours);
  drawLinking(c, input, view, colours);
  drawCursor(c, input, view, colours);
}

function drawStartOn(c: CanvasRenderingContext2D, world: World, view: PlanView): void {
  const { start } = world;
  const corner = cornerOf(
    view,
    world.rooms.find(({ id }) => id === start.room)!,
  );
  const middle = (cell: number): number => (cell + 0.5) * view.cell;
  drawStart(c, world, corner.x + middle(start.cell[0]), corner.y + middle(start.cell[1]), Math.max(6, view.cell * 0.5));
}

function drawDots(c: CanvasRenderingContext2D, view: PlanView, width: number, height: number, colours: Palette): void {
  const step = view.cell * 2;
  if (step < 10) return;
  c.fillStyle = colours.lineStrong;
  for (let x = view.left % step; x < width; x += step)
    for (let y = view.top % step; y < height; y += step) c.fillRect(x, y, 1, 1);
}

function drawRoom(
  c: CanvasRenderingContext2D,
  { world, picture, images, chosen, remembered, over }: PlanInput,
  room: Room,
  view: PlanView,
  width: number,
  height: number,
  colours: Palette,
): void {
  const { x, y } = cornerOf(view, room);
  const [across, down] = [room.width * view.cell, room.height * view.cell];
  picture.draw(c, world, room, view.cell / world.tileSize, x, y, width, height, images);
  over?.(c, room, x, y, view.cell);
  c.imageSmoothingEnabled = view.cell < 16;
  for (const { fixture, look, gone } of shownFixtures(world, room.id, remembered)) {
    c.globalAlpha = gone ? 0.25 : 1;
    c.drawImage(
      fixturePicture(look),
      x + fixture.cell[0] * view.cell,
      y + fixture.cell[1] * view.cell,
      view.cell,
      view.cell,
    );
    c.globalAlpha = 1;
  }
  c.strokeStyle = room.id === chosen ? colours.accent : colours.lineStrong;
  c.lineWidth = room.id === chosen ? 3 : 1;
  c.strokeRect(x - 0.5, y - 0.5, across + 1, down + 1);
}

/** The room's name above it; drawn last, so that nothing runs over it. */
function drawName(c: CanvasRenderingContext2D, room: Room, view: PlanView, colours: Palette): void {
  const { x, y } = cornerOf(view, room);
  const size = `${room.width} x ${room.height}`;
  c.textBaseline = "alphabetic";
  c.textAlign = "left";
  c.font = `600 13px ${colours.text}`;
  const after = c.measureText(room.name).width + 8;
  const both = after + 50 < room.width * view.cell;
  c.fillStyle = colours.sunk;
  c.fillRect(x - 2, y - 21, after + (both ? 52 : -4), 18);
  c.fillStyle = colours.ink;
  c.fillText(room.name, x, y - 8);
  c.font = `12px ${colours.text}`;
  c.fillStyle = colours.quiet;
  if (both) c.fillText(size, x + after, y - 8);
}

/** A ribbon from side to side, with an arrowhead where there is no way back; a wrap is a loop round the room. */
function drawSeam(c: CanvasRenderingContext2D, world: World, seam: Seam, view: PlanView, colours: Palette): void {
  const room = world.rooms.find(({ id }) => id === seam.room)!;
  c.lineJoin = "round";
  if (seam.rule.kind === "wrap") {
    if (seam.side === "west" || seam.side === "north") drawWrap(c, room, seam.side, view, colours);
    return;
  }
  const { rule } = seam;
  const other = world.rooms.find(({ id }) => id === rule.room)!;
  // A seam that is answered is drawn once, from the room that stands first.
  if (!seam.oneWay && world.rooms.indexOf(other) < world.rooms.indexOf(room)) return;
  // Only what can be walked makes the ribbon as wide as it is.
  const [from, to] = seam.open ?? [seam.from, seam.to];
  const half = view.cell / 2;
  const [ux, uy] = seam.side === "east" || seam.side === "west" ? [0, 1] : [1, 0];
  const back = OPPOSITE[seam.side];
  const a = sidePoint(view, room, seam.side, from);
  const b = sidePoint(view, room, seam.side, to);
  const p = sidePoint(view, other, back, from + rule.offset);
  const q = sidePoint(view, other, back, to + rule.offset);
  const reach = Math.max(24, Math.hypot(p.x - a.x, p.y - a.y) / 2.2);
  const [ox, oy] = OUT[seam.side];
  const [bx, by] = OUT[back];
  const edge = (m: { x: number; y: number }, n: { x: number; y: number }, sign: number, begin: boolean): void => {
    const [mx, my, nx, ny] = [
      m.x + ux * half * sign,
      m.y + uy * half * sign,
      n.x + ux * half * sign,
      n.y + uy * half * sign,
    ];
    if (begin) c.moveTo(mx, my);
    else c.lineTo(mx, my);
    const [o, d] = begin ? [[ox, oy] as const, [bx, by] as const] : [[bx, by] as const, [ox, oy] as const];
    c.bezierCurveTo(mx + o[0] * reach, my + o[1] * reach, nx + d[0] * reach, ny + d[1] * reach, nx, ny);
  };
  c.beginPath();
  edge(a, p, -1, true);
  edge(q, b, 1, false);
  c.closePath();
  c.globalAlpha = 0.22;
  c.fillStyle = colours.accent;
  c.fill();
  c.globalAlpha = 1;
  c.strokeStyle = colours.accent;
  c.lineWidth = 1.5;
  c.stroke();
  if (seam.oneWay) {
    const [x, y] = [(a.x + b.x + p.x + q.x) / 4, (a.y + b.y + p.y + q.y) / 4];
    c.fillStyle = colours.accent;
    c.beginPath();
    c.moveTo(x + ox * 9, y + oy * 9);
    c.lineTo(x - ox * 5 + oy * 8, y - oy * 5 + ox * 8);
    c.lineTo(x - ox * 5 - oy * 8, y - oy * 5 - ox * 8);
    c.fill();
    label(c, "one way", x + 16, y, colours);
  }
}

function drawWrap(c: CanvasRenderingContext2D, room: Room, side: SideName, view: PlanView, colours: Palette): void {
  const { x, y } = cornerOf(view, room);
  const [across, down] = [room.width * view.cell, room.height * view.cell];
  const gap = 20;
  c.beginPath();
  if (side === "west") c.roundRect(x - gap, y + down / 2, across + 2 * gap, down / 2 + gap, 10);
  else c.roundRect(x + across / 2, y - gap, across / 2 + gap, down + 2 * gap, 10);
  for (const [alpha, wide] of [
    [0.25, 8],
    [1, 1.5],
  ] as const) {
    c.globalAlpha = alpha;
    c.strokeStyle = colours.accent;
    c.lineWidth = wide;
    c.stroke();
  }
  c.globalAlpha = 1;
  if (side === "west") label(c, "wraps", x, y + down + gap, colours);
  else label(c, "wraps", x + across + gap - 22, y + down / 2, colours);
}

function drawUnmet(
  c: CanvasRenderingContext2D,
  world: World,
  { room: id, side, unmet, rule }: Seam,
  view: PlanView,
  colours: Palette,
): void {
  if (rule.kind !== "link") return;
  const room = world.rooms.find((each) => each.id === id)!;
  c.strokeStyle = colours.attention;
  c.lineWidth = 4;
  for (const at of unmet) {
    const { x, y } = sidePoint(view, room, side, at);
    const half = view.cell / 2 - 1;
    c.beginPath();
    if (side === "east" || side === "west") {
      c.moveTo(x, y - half);
      c.lineTo(x, y + half);
    } else {
      c.moveTo(x - half, y);
      c.lineTo(x + half, y);
    }
    c.stroke();
  }
}

function drawPortals(c: CanvasRenderingContext2D, world: World, view: PlanView, colours: Palette): void {
  for (const room of world.rooms) {
    for (const fixture of room.fixtures) {
      if (fixture.kind !== "portal") continue;
      const target = world.rooms.find(({ id }) => id === fixture.to.room);
      if (target === undefined) continue;
      const [a, b] = [cornerOf(view, room), cornerOf(view, target)];
      const from = { x: a.x + (fixture.cell[0] + 0.5) * view.cell, y: a.y + (fixture.cell[1] + 0.5) * view.cell };
      const to = { x: b.x + (fixture.to.cell[0] + 0.5) * view.cell, y: b.y + (fixture.to.cell[1] + 0.5) * view.cell };
      const bend = { x: (from.x + to.x) / 2 + (to.y - from.y) * 0.18, y: (from.y + to.y) / 2 - (to.x - from.x) * 0.18 };
      for (const [colour, wide] of [
        [colours.paper, 5],
        [colours.data, 2],
      ] as const) {
        c.strokeStyle = colour;
        c.lineWidth = wide;
        c.lineCap = "round";
        c.setLineDash([1, 6]);
        c.beginPath();
        c.moveTo(from.x, from.y);
        c.quadraticCurveTo(bend.x, bend.y, to.x, to.y);
        c.stroke();
      }
      c.setLineDash([]);
    }
  }
}

/** The walk over all rooms, coloured by frame up to the shown one, and the walker as a ring. */
function drawWalk(
  c: CanvasRenderingContext2D,
  { world, trails, frame }: PlanInput,
  rows: TraceRows,
  view: PlanView,
  colours: Palette,
): void {
  const zoom = view.cell / world.tileSize;
  const half = world.tileSize / 2;
  c.lineJoin = "round";
  c.lineCap = "round";
  world.rooms.forEach((room, number) => {
    const { x, y } = cornerOf(view, room);
    const trail = trails[number]!;
    const place = { zoom, left: x, top: y };
    c.strokeStyle = "rgba(28, 33, 36, 0.75)";
    c.lineWidth = 4;
    strokeTrail(c, trail, place, 0, frame, null);
    c.lineWidth = 2.5;
    strokeTrail(c, trail, place, 0, frame, trailColour);
  });
  const at = Math.min(frame, rows.count - 1);
  const room = world.rooms[rows.room[at]!];
  if (room === undefined) return;
  const corner = cornerOf(view, room);
  const [x, y] = [corner.x + (rows.x[at]! / 256 + half) * zoom, corner.y + (rows.y[at]! / 256 + half) * zoom];
  c.beginPath();
  c.arc(x, y, 6, 0, 7);
  c.fillStyle = colours.paper;
  c.fill();
  c.strokeStyle = colours.ink;
  c.lineWidth = 2.5;
  c.stroke();
}

function drawLinking(
  c: CanvasRenderingContext2D,
  { world, linking }: PlanInput,
  view: PlanView,
  colours: Palette,
): void {
  const room = linking === null ? undefined : world.rooms.find(({ id }) => id === linking.room);
  if (linking === null || room === undefined) return;
  const from = sidePoint(view, room, linking.side, linking.at);
  c.strokeStyle = colours.accent;
  c.lineWidth = 3;
  c.setLineDash([6, 5]);
  c.beginPath();
  c.moveTo(from.x, from.y);
  c.lineTo(linking.x, linking.y);
  c.stroke();
  c.setLineDash([]);
}

/** The cell cursor: a cell, or a stroke along a side; a link that is drawn from another side ends at it. */
function drawCursor(
  c: CanvasRenderingContext2D,
  { world, cursor: { at, held } }: PlanInput,
  view: PlanView,
  colours: Palette,
): void {
  const room = world.rooms.find(({ id }) => id === at?.room);
  if (at === null || room === undefined) return;
  const end = placeOn(view, room, at);
  const from = held === null || held === "start" ? undefined : world.rooms.find(({ id }) => id === held.room);
  c.lineCap = "butt";
  if (from !== undefined) {
    const begin = placeOn(view, from, held as PlanPlace);
    for (const [colour, wide] of [
      [colours.paper, 6],
      [colours.accent, 3],
    ] as const) {
      c.strokeStyle = colour;
      c.lineWidth = wide;
      c.beginPath();
      c.moveTo(begin.x, begin.y);
      c.lineTo(end.x, end.y);
      c.stroke();
    }
  }
  // Around the cell, so that what stands in it is seen.
  const half = Math.max(8, view.cell / 2 + 2);
  const isUpright = at.side === "east" || at.side === "west";
  for (const [colour, wide] of [
    [colours.paper, 6],
    [colours.ink, 3],
  ] as const) {
    c.strokeStyle = colour;
    c.lineWidth = wide;
    c.beginPath();
    if (at.side === null) c.rect(end.x - half, end.y - half, 2 * half, 2 * half);
    else {
      c.moveTo(end.x - (isUpright ? 0 : half + 2), end.y - (isUpright ? half + 2 : 0));
      c.lineTo(end.x + (isUpright ? 0 : half + 2), end.y + (isUpright ? half + 2 : 0));
    }
    c.stroke();
  }
}

/** The middle of a cell, or of its side, on the canvas. */
function placeOn(view: PlanView, room: Room, at: PlanPlace): { readonly x: number; readonly y: number } {
  if (at.side !== null) return sidePoint(view, room, at.side, along(at));
  const { x, y } = cornerOf(view, room);
  return { x: x + (at.cx + 0.5) * view.cell, y: y + (at.cy + 0.5) * view.cell };
}

function label(c: CanvasRenderingContext2D, text: string, x: number, y: number, colours: Palette): void {
  c.font = `12px ${colours.text}`;
  const wide = c.measureText(text).width + 16;
  c.fillStyle = colours.paper;
  c.strokeStyle = colours.lineStrong;
  c.lineWidth = 1;
  c.beginPath();
  c.roundRect(x, y - 10, wide, 20, 10);
  c.fill();
  c.stroke();
  c.fillStyle = colours.ink;
  c.textAlign = "left";
  c.textBaseline = "middle";
  c.fillText(text, x + 8, y + 0.5);
}
