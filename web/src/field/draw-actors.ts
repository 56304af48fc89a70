import type { ActorRows, ExplainedActor } from "@keen-pebble/core/simulate";
import type { Actor, Facing, Pair, Room, World } from "@keen-pebble/core/world";
import { FACINGS, FACING_DX, FACING_DY, allActors } from "@keen-pebble/core/world";
import { palette } from "../look/palette.ts";
import type { BenchState } from "../session/bench/bench-store.ts";
import { shade } from "./shades.ts";
import type { SheetImages } from "./tile-art.ts";
import type { View } from "./view.ts";
import { drawWalkerPicture, figurePicture } from "./walker-art.ts";
import { walkerRow } from "./walker-row.ts";

/** An actor as it is drawn: its place in px of the room. */
export interface ShownActor {
  readonly actor: Actor;
  readonly x: number;
  readonly y: number;
  readonly facing: Facing;
  readonly met: boolean;
}

/** After so many px the next image of a walking actor is shown. */
const PX_OF_IMAGE = 8;
/** The colour of an actor that has none of its own. */
export const ACTOR_COLOUR = "#7a4f2c";

/** The actors of a room in the shown frame; where the walker is elsewhere, or nothing runs, each where it begins. */
export function shownActors(world: World, room: Room, state: BenchState): ShownActor[] {
  const row = walkerRow(state);
  const rows = row?.rows.actors ?? null;
  if (row === null || rows === null || world.rooms[row.room]?.id !== room.id)
    return room.actors.map((actor) => ({
      actor,
      x: actor.cell[0] * world.tileSize,
      y: actor.cell[1] * world.tileSize,
      facing: actor.facing,
      met: false,
    }));
  return actorsOfRow(world, rows, row.frame);
}

/** The actors that a row has: those of the walker's room. */
export function actorsOfRow(world: World, rows: ActorRows, frame: number): ShownActor[] {
  const all = allActors(world);
  const shown: ShownActor[] = [];
  for (let i = rows.from[frame]!; i < rows.from[frame + 1]!; i++) {
    // The run may be of the world as it was a moment ago.
    const actor = all[rows.actor[i]!];
    if (actor === undefined) continue;
    shown.push({
      actor,
      x: rows.x[i]! / 256,
      y: rows.y[i]! / 256,
      facing: FACINGS[rows.facing[i]!]!,
      met: rows.met[i] === 1,
    });
  }
  return shown;
}

/** The room's actors; the chosen one with its body, its path, and what it weighed and chose in the shown frame. */
export function drawActors(
  c: CanvasRenderingContext2D,
  world: World,
  room: Room,
  state: BenchState,
  view: View,
  images: SheetImages,
): void {
  const side = world.tileSize * view.zoom;
  const shown = shownActors(world, room, state);
  const chosen = state.kit === "actors" ? shown.find(({ actor }) => actor.id === state.actor) : undefined;
  if (chosen !== undefined && state.walk === null) drawPath(c, world, chosen.actor, state, view);
  for (const each of shown) {
    const [x, y] = [view.left + each.x * view.zoom, view.top + each.y * view.zoom];
    drawActor(c, world, each, x, y, side, images);
    if (each.met) frame(c, each, view, palette().attention, 2);
  }
  if (chosen === undefined) return;
  frame(c, chosen, view, palette().accent, 2);
  const explained = state.explanation?.actors.find(({ id }) => id === chosen.actor.id);
  if (explained !== undefined && state.explanation?.frame === state.frame) drawChoice(c, world, explained, view);
}

/** An actor's picture: of its figure or sheet, or our own. */
export function drawActor(
  c: CanvasRenderingContext2D,
  world: World,
  { actor, facing, x: fromLeft, y: fromTop }: Omit<ShownActor, "met">,
  x: number,
  y: number,
  side: number,
  images: SheetImages,
): void {
  const { look } = actor;
  if (look !== undefined && "images" in look) {
    // It goes along one axis at a time: the px from the room's corner tell how far.
    const picture = figurePicture(world, look, images, facing, Math.floor((fromLeft + fromTop) / PX_OF_IMAGE));
    if (picture !== null) {
      const zoom = side / world.tileSize;
      drawWalkerPicture(c, picture, x, y, zoom);
      return;
    }
  }
  if (look !== undefined && "sheet" in look && "at" in look) {
    const image = images.get(look.sheet);
    const sheet = world.sheets.find(({ id }) => id === look.sheet);
    if (image !== undefined && sheet !== undefined) {
      const step = sheet.tile + sheet.spacing;
      c.imageSmoothingEnabled = false;
      c.drawImage(
        image,
        sheet.margin + look.at[0] * step,
        sheet.margin + look.at[1] * step,
        sheet.tile,
        sheet.tile,
        x,
        y,
        side,
        side,
      );
      return;
    }
  }
  drawOwn(c, look !== undefined && "fill" in look ? look.fill : ACTOR_COLOUR, FACINGS.indexOf(facing), x, y, side);
}

/** Our own picture: a shell that looks where it faces. */
function drawOwn(c: CanvasRenderingContext2D, fill: string, facing: number, x: number, y: number, side: number): void {
  const [cx, cy, r] = [x + side / 2, y + side / 2, side * 0.36];
  c.fillStyle = shade(fill, -0.55);
  c.beginPath();
  c.arc(cx, cy, r + Math.max(1, side * 0.05), 0, 7);
  c.fill();
  c.fillStyle = fill;
  c.beginPath();
  c.arc(cx, cy, r, 0, 7);
  c.fill();
  c.fillStyle = shade(fill, 0.3);
  c.beginPath();
  c.arc(cx - r * 0.25, cy - r * 0.3, r * 0.45, 0, 7);
  c.fill();
  const length = Math.hypot(FACING_DX[facing]!, FACING_DY[facing]!) || 1;
  const [dx, dy] = [FACING_DX[facing]! / length, FACING_DY[facing]! / length];
  for (const aside of [-0.38, 0.38]) {
    const [ex, ey] = [cx + r * (dx * 0.62 - dy * aside), cy + r * (dy * 0.62 + dx * aside)];
    c.fillStyle = "#fffdf6";
    c.beginPath();
    c.arc(ex, ey, Math.max(1.5, side * 0.085), 0, 7);
    c.fill();
    c.fillStyle = "#1c2124";
    c.beginPath();
    c.arc(ex + dx * side * 0.03, ey + dy * side * 0.03, Math.max(0.8, side * 0.045), 0, 7);
    c.fill();
  }
}

/** A line round an actor's body. */
function frame(
  c: CanvasRenderingContext2D,
  { actor, x, y }: ShownActor,
  { left, top, zoom }: View,
  colour: string,
  width: number,
): void {
  const [bx, by, across, down] = actor.body;
  for (const [stroke, wide] of [
    ["#fffdf6", width + 2],
    [colour, width],
  ] as const) {
    c.strokeStyle = stroke;
    c.lineWidth = wide;
    c.strokeRect(left + (x + bx) * zoom, top + (y + by) * zoom, across * zoom, down * zoom);
  }
}

/** The paths of the chosen actor's plan, cell by cell; that of the shown phase with its numbers. */
function drawPath(c: CanvasRenderingContext2D, world: World, actor: Actor, state: BenchState, view: View): void {
  const side = world.tileSize * view.zoom;
  const middle = ([x, y]: Pair) => [view.left + (x + 0.5) * side, view.top + (y + 0.5) * side] as const;
  actor.plan.forEach((phase, at) => {
    if (phase.do !== "path") return;
    const isDrawn = state.actorPen === "path" && state.path === at;
    const cells = phase.then === "round" && phase.cells.length > 1 ? [...phase.cells, phase.cells[0]!] : phase.cells;
    for (const [colour, width] of [
      ["#fffdf6", 6],
      [palette().accent, isDrawn ? 3 : 2],
    ] as const) {
      c.strokeStyle = colour;
      c.lineWidth = width;
      c.lineJoin = "round";
      c.setLineDash(isDrawn ? [] : [2, 5]);
      c.beginPath();
      cells.forEach((cell, i) => {
        const [x, y] = middle(cell);
        if (i === 0) c.moveTo(x, y);
        // Along x first: so it walks.
        else {
          c.lineTo(x, middle(cells[i - 1]!)[1]);
          c.lineTo(x, y);
        }
      });
      c.stroke();
    }
    c.setLineDash([]);
    c.textAlign = "center";
    c.textBaseline = "middle";
    c.font = `600 ${Math.max(9, Math.min(12, side * 0.4))}px "IBM Plex Mono", monospace`;
    phase.cells.forEach((cell, i) => {
      const [x, y] = middle(cell);
      const r = Math.max(6, Math.min(9, side * 0.3));
      c.fillStyle = palette().accent;
      c.beginPath();
      c.arc(x, y, r, 0, 7);
      c.fill();
      c.fillStyle = "#fffdf6";
      c.fillText(String(i + 1), x, y + 0.5);
    });
  });
}

/** Where the chosen actor could have gone in the shown frame, with the walker's distance from there; what it chose is full. */
function drawChoice(c: CanvasRenderingContext2D, world: World, explained: ExplainedActor, view: View): void {
  const side = world.tileSize * view.zoom;
  const { at, chose, directions, target } = explained;
  // The directions were weighed from the cell that it left in this frame.
  const from = (units: number, leg: number): number =>
    leg > 0 ? Math.floor(units / (world.tileSize * 256)) : Math.ceil(units / (world.tileSize * 256));
  const [cx, cy] = [from(at[0], explained.leg[0]), from(at[1], explained.leg[1])];
  c.textAlign = "center";
  c.textBaseline = "middle";
  c.font = '600 11px "IBM Plex Mono", monospace';
  directions.forEach(({ distance, dx, dy, is }, way) => {
    const open = is === "open";
    const [x, y] = [view.left + (cx + dx + 0.5) * side, view.top + (cy + dy + 0.5) * side];
    c.globalAlpha = 0.9;
    c.fillStyle = way === chose ? palette().accent : open ? "#fffdf6" : "#1c2124";
    c.beginPath();
    c.arc(x, y, Math.max(7, Math.min(10, side * 0.3)), 0, 7);
    c.fill();
    c.globalAlpha = 1;
    c.fillStyle = way === chose || !open ? "#fffdf6" : "#1c2124";
    c.fillText(open ? String(distance ?? "") : is === "shut" ? "×" : "↩", x, y + 0.5);
  });
  if (target === null) return;
  const [x, y] = [view.left + (target[0] + 0.5) * side, view.top + (target[1] + 0.5) * side];
  c.strokeStyle = palette().accent;
  c.lineWidth = 2;
  c.beginPath();
  c.arc(x, y, side * 0.42, 0, 7);
  c.stroke();
}
