import type { Compiled } from "../../compiled/compiled.ts";
import type { SimState } from "../../compiled/state.ts";
import { isFree } from "../../ground/free.ts";
import { Ground } from "../../ground/ground.ts";
import { occupiedX, occupiedY } from "../../ground/occupied.ts";
import { cross } from "../../rooms/crossing.ts";
import { UNITS_PER_PX } from "../../base/units.ts";
import { Superset } from "./superset.ts";

/** More places than this are not looked at one by one. */
const MOST_PLACES = 16_000_000;

/** What is known of a px: nothing yet, the walker may be there, something blocks it as the doors stand now. */
const UNKNOWN = 0;
const MET = 1;
const BLOCKED = 2;
const OUTSIDE = 3;

/** So many pairs of places that one might leap between are looked at at the most. */
const MOST_LEAPS = 400_000_000;

/**
 * More than any play can reach under rules that leave the grid and stay where the body is free: the px at which it is
 * and that hang together. By `contact`, which tests each unit of its way, these are neighbours; where a displacement that
 * does not fit is taken back they are as far apart as one can leap. Between two px a body of whole px is free only where
 * it is at both. Slanted shapes are left out of what blocks, and lying flush never does: more is reached then, never less.
 */
export class FreeSuperset extends Superset {
  /** Nobody was put into something that blocks: what one is in does not count, and one could leave through it. */
  sound = true;
  /** By room and px whether the walker may be there; the room and a cell's width round it. */
  private readonly seen: readonly Uint8Array[];
  private readonly ground: Ground;
  private readonly queue: number[] = [];
  private next = 0;
  private waiting: number[] = [];
  private readonly side: number;
  /** How many px one may be further along each axis after a frame, what lies between left aside. */
  private readonly leapX: number;
  private readonly leapY: number;

  constructor(c: Compiled, start: SimState) {
    super(c, start);
    this.side = c.world.tileSize;
    [this.leapX, this.leapY] = leapsOf(c);
    this.seen = c.rooms.map((_, room) => new Uint8Array(this.across(room) * this.down(room)));
    this.ground = looser(this.s.ground);
    this.fill();
  }

  /** Whether the world is small enough, and its rules test each unit of the way. */
  static applies(c: Compiled): boolean {
    const side = c.world.tileSize;
    const places = c.rooms.reduce((sum, { width, height }) => sum + (width + 2) * (height + 2) * side * side, 0);
    const isFreely = c.rules.gait === "roam" || c.rules.gait === "drift";
    if (!isFreely || places > MOST_PLACES) return false;
    if (c.free.response === "contact") return true;
    if (c.free.response !== "undo-axis" && c.free.response !== "undo-both") return false;
    const [leapX, leapY] = leapsOf(c);
    // Beyond a cell's width round the rooms nothing is looked at.
    return Math.max(leapX, leapY) <= side && places * (2 * leapX + 1) * (2 * leapY + 1) <= MOST_LEAPS;
  }

  protected rest(room: number, cx: number, cy: number): void {
    const t = this.c.tileUnits;
    if (!isFree(this.ground, room, cx * t, cy * t)) this.sound = false;
    this.come(room, cx * this.side, cy * this.side);
  }

  protected spread(): void {
    const { queue } = this;
    const waited = this.waiting;
    this.waiting = [];
    for (let i = 0; i < waited.length; i += 3) {
      const [room, x, y] = [waited[i]!, waited[i + 1]!, waited[i + 2]!];
      if (this.known(room, x, y) !== BLOCKED) continue;
      this.seen[room]![this.at(room, x, y)] = UNKNOWN;
      this.go(room, x, y);
    }
    while (this.sound && this.next < queue.length) {
      const [room, x, y] = [queue[this.next]!, queue[this.next + 1]!, queue[this.next + 2]!];
      this.next += 3;
      const { leapX, leapY } = this;
      for (let dy = -leapY; dy <= leapY; dy++)
        for (let dx = -leapX; dx <= leapX; dx++) if (dx !== 0 || dy !== 0) this.go(room, x + dx, y + dy);
      // What is behind is not gone through again.
      if (this.next > 30_000) {
        queue.splice(0, this.next);
        this.next = 0;
      }
    }
  }

  /** The walker may be at a px if its body is free there, and then where crossing a side takes it. */
  private go(room: number, x: number, y: number): void {
    if (this.known(room, x, y) !== UNKNOWN) return;
    const [ux, uy] = [x * UNITS_PER_PX, y * UNITS_PER_PX];
    if (!isFree(this.ground, room, ux, uy)) {
      // Many places may lead there: it is tested once.
      this.seen[room]![this.at(room, x, y)] = BLOCKED;
      // A door that is opened later may let one through.
      if (isFree(this.open, room, ux, uy)) this.waiting.push(room, x, y);
      return;
    }
    this.come(room, x, y);
    const { s } = this;
    s.room = room;
    s.x = ux;
    s.y = uy;
    s.eventCount = 0;
    cross(this.c, s, null);
    if (s.room === room && s.x === ux && s.y === uy) return;
    // Seen from there, what lies behind may block.
    if (!isFree(this.open, s.room, s.x, s.y)) this.sound = false;
    this.come(s.room, s.x / UNITS_PER_PX, s.y / UNITS_PER_PX);
  }

  private come(room: number, x: number, y: number): void {
    const known = this.known(room, x, y);
    if (known === MET || known === OUTSIDE) return;
    this.seen[room]![this.at(room, x, y)] = MET;
    this.queue.push(room, x, y);
    const t = this.c.tileUnits;
    const [cx, cy] = [occupiedX(t, x * UNITS_PER_PX), occupiedY(t, y * UNITS_PER_PX)];
    const { width, height } = this.c.rooms[room]!;
    if (cx >= 0 && cy >= 0 && cx < width && cy < height) this.comes[room]![cy * width + cx] = 1;
  }

  /** With every door open. */
  private get open(): Ground {
    return (this.opened ??= looser(this.c.ground));
  }
  private opened: Ground | null = null;

  private across(room: number): number {
    return (this.c.rooms[room]!.width + 1) * this.side + 1;
  }

  private down(room: number): number {
    return (this.c.rooms[room]!.height + 1) * this.side + 1;
  }

  private at(room: number, x: number, y: number): number {
    return (y + this.side) * this.across(room) + x + this.side;
  }

  /** What is known of a px of a room. */
  private known(room: number, x: number, y: number): number {
    const [across, down] = [x + this.side, y + this.side];
    if (across < 0 || down < 0 || across >= this.across(room) || down >= this.down(room)) return OUTSIDE;
    return this.seen[room]![this.at(room, x, y)]!;
  }
}

function leapsOf({ free, rules }: Compiled): readonly [x: number, y: number] {
  // A slope takes one aside while one goes on.
  if (free.response === "contact") return [1, 1];
  const far = (units: number): number => Math.ceil(units / UNITS_PER_PX) + 1;
  return rules.gait === "drift" ? [far(free.maxSpeed), far(free.maxSpeed)] : [far(free.speedX), far(free.speedY)];
}

/** The same ground without slanted shapes, for a body that may lie flush. It follows its doors. */
function looser({ tileUnits, rooms, shapes, body, solid }: Ground): Ground {
  const nothing = { kind: "boxes", edges: new Int32Array(0) } as const;
  return new Ground(
    tileUnits,
    rooms,
    shapes.map((shape) => (shape?.kind === "poly" ? nothing : shape)),
    { ...body, edgesCount: false },
    solid,
  );
}
