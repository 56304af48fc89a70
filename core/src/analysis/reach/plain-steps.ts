import type { Compiled } from "../../compiled/compiled.ts";
import { isFree } from "../../ground/free.ts";
import { DIRECTION_X, DIRECTION_Y } from "./actions.ts";

/** A place and a way at which the simulation must be asked; anything else is the way that is taken, or `BLOCKED`. */
export const ASK = -1;
export const BLOCKED = 8;

/** What is not looked at yet; a cell in which the walker fits, and one in which it does not. */
const UNKNOWN = 0;
const FREE = 1;
const SHUT = 2;

/**
 * Steps from cell to cell on which nothing can matter but the tiles: no fixture and no side of the room is near enough
 * to be touched, pushed or crossed on the way. Such a step needs no simulation, whatever else the state is; that the
 * two agree is tested.
 */
export class PlainSteps {
  /** By room and cell 1 where something is near. */
  private readonly near: readonly Uint8Array[];
  /** By room, cell and way what the step comes to, plus 2; by room and cell whether the walker fits there. */
  private readonly known: readonly Uint8Array[];
  private readonly free: readonly Uint8Array[];
  /** By room and way how far the cell that it leads to is from the one before, as numbers of a room's cells go. */
  readonly offsets: readonly Int32Array[];
  private readonly choice: { readonly slide: boolean; readonly cutCorners: boolean };

  /** @param ignored fixtures that do nothing any more */
  constructor(
    private readonly c: Compiled,
    ignored: ReadonlySet<number> = new Set(),
  ) {
    const reach = bodyReach(c);
    this.near = c.rooms.map(({ width, height }, room) => {
      const near = new Uint8Array(width * height);
      const mark = (left: number, top: number, right: number, bottom: number): void => {
        for (let y = Math.max(0, top); y <= Math.min(height - 1, bottom); y++)
          near.fill(1, y * width + Math.max(0, left), y * width + Math.min(width - 1, right) + 1);
      };
      c.fixtures.all.forEach(({ room: its, cx, cy, across, down }, i) => {
        if (its === room && !ignored.has(i))
          mark(cx - reach, cy - reach, cx + across - 1 + reach, cy + down - 1 + reach);
      });
      if (reach > 0) {
        mark(0, 0, reach - 1, height);
        mark(width - reach, 0, width, height);
        mark(0, 0, width, reach - 1);
        mark(0, height - reach, width, height);
      }
      return near;
    });
    this.known = c.rooms.map(({ width, height }) => new Uint8Array(width * height * 8));
    this.free = c.rooms.map(({ width, height }) => new Uint8Array(width * height));
    this.offsets = c.rooms.map(({ width }) =>
      Int32Array.from(DIRECTION_X, (dx, way) => dx + DIRECTION_Y[way]! * width),
    );
    this.choice = c.rules.gait === "hop" ? c.rules.hop : c.rules.glide;
  }

  /** Whether nothing is near a cell of a room; not where there is no such cell. */
  isPlain(room: number, cx: number, cy: number): boolean {
    const { width, height } = this.c.rooms[room]!;
    return cx >= 0 && cy >= 0 && cx < width && cy < height && this.near[room]![cy * width + cx] === 0;
  }

  /** Which way the walker goes that holds a direction at a plain cell, `BLOCKED` for none, or `ASK`. */
  step(room: number, cx: number, cy: number, way: number): number {
    return this.stepAt(room, cy * this.c.rooms[room]!.width + cx, way);
  }

  /** The same by the number of a cell in its room. */
  stepAt(room: number, cell: number, way: number): number {
    const known = this.known[room]!;
    const at = cell * 8 + way;
    if (known[at] === UNKNOWN) {
      const { width } = this.c.rooms[room]!;
      known[at] = this.look(room, cell % width, Math.floor(cell / width), way) + 2;
    }
    return known[at]! - 2;
  }

  private look(room: number, cx: number, cy: number, way: number): number {
    const [dx, dy] = [DIRECTION_X[way]!, DIRECTION_Y[way]!];
    if (!this.isPlain(room, cx + dx, cy + dy)) return ASK;
    if (dx === 0 || dy === 0) return this.isFree(room, cx + dx, cy + dy) ? way : BLOCKED;
    if (!this.isPlain(room, cx + dx, cy) || !this.isPlain(room, cx, cy + dy)) return ASK;
    const [besideX, besideY] = [this.isFree(room, cx + dx, cy), this.isFree(room, cx, cy + dy)];
    if (this.isFree(room, cx + dx, cy + dy) && (this.choice.cutCorners || (besideX && besideY))) return way;
    if (!this.choice.slide) return BLOCKED;
    if (besideX) return dx < 0 ? 0 : 1;
    return besideY ? (dy < 0 ? 2 : 3) : BLOCKED;
  }

  private isFree(room: number, cx: number, cy: number): boolean {
    const free = this.free[room]!;
    const at = cy * this.c.rooms[room]!.width + cx;
    if (free[at] === UNKNOWN)
      free[at] = isFree(this.c.ground, room, cx * this.c.tileUnits, cy * this.c.tileUnits) ? FREE : SHUT;
    return free[at] === FREE;
  }
}

/** How many cells beyond its own the body reaches, a lain edge counted. */
export function bodyReach({ body, tileUnits }: Compiled): number {
  const edge = body.edgesCount ? 1 : 0;
  // A probe on the far edge of a cell is in the next one.
  const far = body.kind === "probes" ? 1 : edge;
  const beyond = Math.max(
    edge - body.left,
    edge - body.top,
    body.right + far - tileUnits,
    body.bottom + far - tileUnits,
    0,
  );
  return Math.ceil(beyond / tileUnits);
}
