import type { Room } from "@keen-pebble/core/world";
import { brushLine, floodCells, rectCells, rectOf } from "./paint-cells.ts";
import type { Cell, Rect } from "./paint-cells.ts";
import { copyPiece, flipPiece, layPiece, turnPiece } from "./piece.ts";
import type { Pen } from "./bench-store.ts";
import { LARGEST_BRUSH, benchStore } from "./bench-store.ts";
import { edit, endStroke, notice, projectStore } from "../project/project.ts";

/** The shown room, and whether it may be painted now. */
function shownRoom(): Room | null {
  const { room, walk } = benchStore.getState();
  return walk === null ? (projectStore.getState().project?.world.rooms.find((each) => each.id === room) ?? null) : null;
}

/** Number of the tile that the pen lays: the empty one for the eraser. */
function penTile(): number {
  const { pen, tile } = benchStore.getState();
  const tiles = projectStore.getState().project?.world.tiles ?? [];
  return pen === "erase" ? 0 : Math.max(0, tiles.findIndex((each) => each.id === tile));
}

/** Chooses a way to paint. */
export function choosePen(pen: Pen): void {
  benchStore.setState({ pen, tool: "paint", laying: false, ...(pen === "select" ? {} : { selection: null }) });
}

/** Makes the brush larger or smaller. */
export function changeBrush(by: number): void {
  benchStore.setState((state) => ({ brush: Math.min(Math.max(state.brush + by, 1), LARGEST_BRUSH) }));
}

/** Takes the tile of a cell to paint with. */
export function pickTile(cell: Cell): void {
  const room = shownRoom();
  if (!room || !isInside(room, cell)) return;
  const tile = projectStore.getState().project!.world.tiles[room.cells[cell.y * room.width + cell.x]!]!;
  benchStore.setState((state) => ({ tile: tile.id, chosenTiles: [tile.id], tool: "paint", pen: state.pen === "erase" || state.pen === "select" ? "brush" : state.pen }));
}

/** The stroke under way: its name, and where the pointer was last. */
let stroke: { readonly name: string; last: Cell } | null = null;

/** The pointer goes down on a cell. */
export function beginStroke(cell: Cell): void {
  const room = shownRoom();
  if (room === null) return;
  const { pen, laying } = benchStore.getState();
  stroke = { name: crypto.randomUUID(), last: cell };
  if (laying) layDown(cell);
  else if (pen === "bucket") paintCells(room, floodCells(room, cell), penTile());
  else if (pen === "brush" || pen === "erase") paintCells(room, brushLine(room, cell, cell, benchStore.getState().brush), penTile());
  else benchStore.setState({ drag: { from: cell, to: cell } });
}

/** The pointer moves to a cell. */
export function moveStroke(cell: Cell): void {
  const room = shownRoom();
  if (stroke === null || room === null || (cell.x === stroke.last.x && cell.y === stroke.last.y)) return;
  const { pen, drag, brush, laying } = benchStore.getState();
  if (drag !== null) benchStore.setState({ drag: { ...drag, to: cell } });
  else if (!laying && (pen === "brush" || pen === "erase")) paintCells(room, brushLine(room, stroke.last, cell, brush), penTile());
  stroke.last = cell;
}

/** The pointer goes up: a line or a box is painted, a rectangle is chosen. */
export function finishStroke(): void {
  const room = shownRoom();
  const { pen, drag, brush } = benchStore.getState();
  if (stroke !== null && room !== null && drag !== null) {
    if (pen === "line") paintCells(room, brushLine(room, drag.from, drag.to, brush), penTile());
    if (pen === "box") paintCells(room, rectCells(room, rectOf(drag.from, drag.to)), penTile());
    if (pen === "select") benchStore.setState({ selection: rectOf(drag.from, drag.to) });
  }
  stroke = null;
  benchStore.setState({ drag: null });
  endStroke();
}

/** Lets go of what is under way without painting it: a drag, then the piece that is being laid, then the rectangle. */
export function letGo(): void {
  const { drag, laying } = benchStore.getState();
  stroke = null;
  benchStore.setState(drag !== null ? { drag: null } : laying ? { laying: false } : { selection: null });
}

/** Copies the chosen rectangle; with `cut` the empty tile is left there. */
export function copySelection(cut: boolean): void {
  const room = shownRoom();
  const { selection } = benchStore.getState();
  const world = projectStore.getState().project?.world;
  if (!room || !world || selection === null) return;
  const piece = copyPiece(room, selection, world.tiles.map((tile) => tile.id));
  if (piece === null) return;
  if (cut) {
    stroke = { name: crypto.randomUUID(), last: selection };
    paintCells(room, rectCells(room, selection), 0);
    stroke = null;
    endStroke();
  }
  benchStore.setState({ piece, ...(cut ? {} : { laying: false }) });
}

/** Takes the copied piece up to lay it down with a click. */
export function takeUpPiece(): void {
  if (benchStore.getState().piece !== null) benchStore.setState({ laying: true, tool: "paint", pen: "select", selection: null });
}

/** Flips or turns the piece: the copied one, or what is in the rectangle. */
export function changePiece(how: "flip x" | "flip y" | "turn"): void {
  const { piece, laying } = benchStore.getState();
  if (piece === null || !laying) return;
  benchStore.setState({ piece: how === "turn" ? turnPiece(piece) : flipPiece(piece, how === "flip x" ? "x" : "y") });
}

function layDown(cell: Cell): void {
  const room = shownRoom();
  const { piece } = benchStore.getState();
  const world = projectStore.getState().project?.world;
  if (!room || !world || piece === null) return;
  const numbers = new Map(world.tiles.map((tile, i) => [tile.id, i]));
  const { cells, tiles } = layPiece(room, piece, cell);
  const gone = tiles.find((tile) => !numbers.has(tile));
  if (gone !== undefined) {
    notice(`The piece has a tile ${gone}, which is no longer there; it was laid without it.`);
  }
  setCells(room, cells, tiles.map((tile, i) => numbers.get(tile) ?? room.cells[cells[i]!]!));
}

function paintCells(room: Room, cells: readonly number[], tile: number): void {
  setCells(room, cells, cells.map(() => tile));
}

function setCells(room: Room, cells: readonly number[], tiles: readonly number[]): void {
  const changed = cells.map((_, i) => i).filter((i) => room.cells[cells[i]!] !== tiles[i]);
  if (changed.length === 0) return;
  edit({ kind: "set-cells", room: room.id, cells: changed.map((i) => cells[i]!), before: changed.map((i) => room.cells[cells[i]!]!), after: changed.map((i) => tiles[i]!) }, stroke?.name ?? null);
}

function isInside(room: Room, { x, y }: Cell): boolean {
  return x >= 0 && y >= 0 && x < room.width && y < room.height;
}

/** What the pointer would do if it went down now, as rectangles of cells, for the field to show. */
export function preview(): { readonly rects: readonly Rect[]; readonly cells: readonly number[] } | null {
  const room = shownRoom();
  const { tool, pen, drag, pointer, brush, laying, piece } = benchStore.getState();
  const size = projectStore.getState().project?.world.tileSize;
  if (tool !== "paint" || room === null || size === undefined) return null;
  if (drag !== null) return pen === "line" ? { rects: [], cells: brushLine(room, drag.from, drag.to, brush) } : { rects: [rectOf(drag.from, drag.to)], cells: [] };
  if (pointer === null) return null;
  const cell = { x: Math.floor(pointer.x / size), y: Math.floor(pointer.y / size) };
  if (laying && piece !== null) return { rects: [{ x: cell.x - Math.floor(piece.width / 2), y: cell.y - Math.floor(piece.height / 2), width: piece.width, height: piece.height }], cells: [] };
  if (!isInside(room, cell)) return null;
  const before = Math.floor((brush - 1) / 2);
  const wide = pen === "brush" || pen === "erase" || pen === "line";
  return { rects: [wide ? { x: cell.x - before, y: cell.y - before, width: brush, height: brush } : { ...cell, width: 1, height: 1 }], cells: [] };
}
