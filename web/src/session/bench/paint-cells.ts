import { cellsOnLine } from "./cells-on-line.ts";

/** A place in cells. */
export interface Cell {
  readonly x: number;
  readonly y: number;
}

/** A rectangle of cells. */
export interface Rect extends Cell {
  readonly width: number;
  readonly height: number;
}

/** A room's size and tile numbers, as tools read it. */
export interface Grid {
  readonly width: number;
  readonly height: number;
  readonly cells: ArrayLike<number>;
}

/** Cell indices that a square brush covers along a line; what lies outside the room is left out. */
export function brushLine(grid: Grid, from: Cell, to: Cell, size: number): number[] {
  const before = Math.floor((size - 1) / 2);
  const found = new Set<number>();
  for (const [x, y] of cellsOnLine(from.x, from.y, to.x, to.y)) {
    for (let dy = -before; dy < size - before; dy++) {
      for (let dx = -before; dx < size - before; dx++) add(grid, found, x + dx, y + dy);
    }
  }
  return [...found];
}

/** The rectangle with these two cells as opposite corners. */
export function rectOf(a: Cell, b: Cell): Rect {
  return {
    x: Math.min(a.x, b.x),
    y: Math.min(a.y, b.y),
    width: Math.abs(a.x - b.x) + 1,
    height: Math.abs(a.y - b.y) + 1,
  };
}

/** Cell indices of a rectangle, as far as it lies in the room. */
export function rectCells(grid: Grid, rect: Rect): number[] {
  const found = new Set<number>();
  for (let y = rect.y; y < rect.y + rect.height; y++)
    for (let x = rect.x; x < rect.x + rect.width; x++) add(grid, found, x, y);
  return [...found];
}

/** Cell indices of a rectangle's rim, so many cells thick. */
export function frameCells(grid: Grid, rect: Rect, thick: number): number[] {
  const right = rect.x + rect.width - thick;
  const bottom = rect.y + rect.height - thick;
  return rectCells(grid, rect).filter((cell) => {
    const x = cell % grid.width;
    const y = Math.floor(cell / grid.width);
    return x < rect.x + thick || x >= right || y < rect.y + thick || y >= bottom;
  });
}

/** Cell indices that hang together with a cell over its four sides and hold the same tile. */
export function floodCells(grid: Grid, at: Cell): number[] {
  const { width, height, cells } = grid;
  if (at.x < 0 || at.y < 0 || at.x >= width || at.y >= height) return [];
  const first = at.y * width + at.x;
  const tile = cells[first];
  const seen = new Uint8Array(width * height);
  const found = [first];
  seen[first] = 1;
  const look = (cell: number): void => {
    if (seen[cell] || cells[cell] !== tile) return;
    seen[cell] = 1;
    found.push(cell);
  };
  for (let i = 0; i < found.length; i++) {
    const cell = found[i]!;
    const x = cell % width;
    if (x > 0) look(cell - 1);
    if (x < width - 1) look(cell + 1);
    // Nothing lies beyond a room either, but a look there makes all of them slower by a third.
    if (cell >= width) look(cell - width);
    if (cell < width * (height - 1)) look(cell + width);
  }
  return found;
}

function add({ width, height }: Grid, found: Set<number>, x: number, y: number): void {
  if (x >= 0 && y >= 0 && x < width && y < height) found.add(y * width + x);
}
