import type { Compiled } from "../../compiled/compiled.ts";
import { LOCK_CIRCUIT, LOCK_COLLECTED, LOCK_ITEM, LOCK_NONE } from "../../compiled/compiled-fixture.ts";
import type { CompiledFixture } from "../../compiled/compiled-fixture.ts";
import { SimState } from "../../compiled/state.ts";
import { isFree } from "../../ground/free.ts";
import { cross } from "../../rooms/crossing.ts";
import { FIXTURE_KINDS } from "../../world/fixtures.ts";
import { DIRECTION_X, DIRECTION_Y } from "./actions.ts";
import { bodyReach } from "./plain-steps.ts";

/**
 * More than any play can reach, of rules that keep to the grid: every door that could ever be opened stands open, nothing
 * is ever lost, nothing runs short. What is not in it is never reached (semantics.md section 10).
 */
export class Superset {
  /** By room and cell: the walker may rest there; it may come there and be moved on at once. */
  readonly rests: readonly Uint8Array[];
  readonly comes: readonly Uint8Array[];
  /** By fixture: what it does may be done. */
  readonly fixtures: Uint8Array;
  goal = false;
  /** Every step from cell to cell can be taken back. */
  reversible = true;
  private readonly s: SimState;
  private readonly queue: { room: number; cx: number; cy: number }[] = [];
  /** The first of the queue that was not gone on from, and ways that a door blocks which may open later. */
  private next = 0;
  private readonly waiting: { room: number; cx: number; cy: number; way: number }[] = [];
  private grew = true;

  constructor(
    private readonly c: Compiled,
    start: SimState,
  ) {
    this.rests = c.rooms.map(({ width, height }) => new Uint8Array(width * height));
    this.comes = c.rooms.map(({ width, height }) => new Uint8Array(width * height));
    this.fixtures = new Uint8Array(c.fixtures.all.length);
    this.s = new SimState(c);
    this.s.copyFrom(start);
    const { doors } = c.fixtures;
    for (let i = 0; i < doors.length; i++) if (start.memory.open[doors[i]!] === 1) this.fixtures[doors[i]!] = 1;
    this.rest(start.room, start.x / c.tileUnits, start.y / c.tileUnits);
    while (this.grew) {
      this.grew = false;
      this.spread();
      this.touch();
      this.openDoors();
    }
    this.goal = c.goalFixture >= 0 ? this.fixtures[c.goalFixture] === 1 : c.goalItem >= 0 && this.allOf(c.goalItem);
  }

  /** Marks where the walker may rest, and looks on from there. */
  private rest(room: number, cx: number, cy: number): void {
    const { width, height } = this.c.rooms[room]!;
    if (cx < 0 || cy < 0 || cx >= width || cy >= height) return;
    const cell = cy * width + cx;
    if (this.rests[room]![cell] === 1) return;
    this.rests[room]![cell] = 1;
    this.comes[room]![cell] = 1;
    this.queue.push({ room, cx, cy });
  }

  /** Every step from everywhere, until nothing new is met. */
  private spread(): void {
    const { c, s } = this;
    const t = c.tileUnits;
    const waited = this.waiting.splice(0);
    for (const { room, cx, cy, way } of waited) this.go(room, cx, cy, way);
    const ways = c.rules.input.ways === 8 ? 8 : 4;
    for (; this.next < this.queue.length; this.next++) {
      const { room, cx, cy } = this.queue[this.next]!;
      // Who was put into something that blocks cannot step back into it.
      if (!isFree(s.ground, room, cx * t, cy * t)) this.reversible = false;
      for (let way = 0; way < ways; way++) this.go(room, cx, cy, way);
    }
  }

  private go(room: number, cx: number, cy: number, way: number): void {
    const { c, s } = this;
    const t = c.tileUnits;
    const toCx = cx + DIRECTION_X[way]!;
    const toCy = cy + DIRECTION_Y[way]!;
    const [x, y] = [toCx * t, toCy * t];
    if (!isFree(s.ground, room, x, y)) {
      // A door that is opened later may let one through.
      if (isFree(c.ground, room, x, y)) this.waiting.push({ room, cx, cy, way });
      return;
    }
    const { width, height } = c.rooms[room]!;
    if (toCx >= 0 && toCy >= 0 && toCx < width && toCy < height) {
      this.come(room, toCx, toCy);
      return;
    }
    s.room = room;
    s.x = x;
    s.y = y;
    s.eventCount = 0;
    cross(c, s, null);
    const [toRoom, toX, toY] = [s.room, s.x / t, s.y / t];
    this.reversible &&= this.leadsBack(way, room, cx, cy);
    const there = c.rooms[toRoom]!;
    if (toX >= 0 && toY >= 0 && toX < there.width && toY < there.height) this.come(toRoom, toX, toY);
  }

  private come(room: number, cx: number, cy: number): void {
    this.comes[room]![cy * this.c.rooms[room]!.width + cx] = 1;
    // Whoever comes onto a portal or a hazard is moved on.
    if (!this.movesOn(room, cx, cy)) this.rest(room, cx, cy);
  }

  /** Whether the step back from where `s` is leads to where it came from. */
  private leadsBack(way: number, room: number, cx: number, cy: number): boolean {
    const { c, s } = this;
    const t = c.tileUnits;
    const [dx, dy] = [DIRECTION_X[way]!, DIRECTION_Y[way]!];
    const [atRoom, atX, atY] = [s.room, s.x, s.y];
    if (!isFree(s.ground, s.room, s.x - dx * t, s.y - dy * t)) return false;
    s.x -= dx * t;
    s.y -= dy * t;
    s.eventCount = 0;
    cross(c, s, null);
    const back = s.room === room && s.x === cx * t && s.y === cy * t;
    s.room = atRoom;
    s.x = atX;
    s.y = atY;
    return back;
  }

  private movesOn(room: number, cx: number, cy: number): boolean {
    const at = this.c.rooms[room]!.fixtureAt;
    if (at === null) return false;
    for (
      let number = at[cy * this.c.rooms[room]!.width + cx]!;
      number >= 0;
      number = this.c.fixtures.all[number]!.next
    ) {
      const fixture = this.c.fixtures.all[number]!;
      if (!fixture.touchBody && (fixture.leads || isHazard(fixture))) return true;
    }
    return false;
  }

  /** What may be touched where the walker may come. */
  private touch(): void {
    const { c } = this;
    // A body reaches beyond its cell; a slanting step passes the cells beside.
    const beside = (fixture: CompiledFixture): number =>
      (fixture.touchBody ? 1 + bodyReach(c) : 0) || (c.rules.input.ways === 8 ? 1 : 0);
    c.fixtures.all.forEach((fixture, i) => {
      if (fixture.blocks || this.fixtures[i] === 1) return;
      if (!this.comesNear(fixture, beside(fixture))) return;
      this.fixtures[i] = 1;
      this.grew = true;
      if (fixture.leads) this.rest(fixture.toRoom, fixture.toX, fixture.toY);
      if (isCheckpoint(fixture)) this.rest(fixture.room, fixture.cx, fixture.cy);
    });
  }

  private comesNear({ room, cx, cy, across, down }: CompiledFixture, beside: number): boolean {
    const { width, height } = this.c.rooms[room]!;
    for (let y = Math.max(0, cy - beside); y < Math.min(height, cy + down + beside); y++)
      for (let x = Math.max(0, cx - beside); x < Math.min(width, cx + across + beside); x++)
        if (this.comes[room]![y * width + x] === 1) return true;
    // Through a side of the room one may touch what lies at its edge.
    return beside > 0 && (cx < beside || cy < beside || cx + across > width - beside || cy + down > height - beside);
  }

  private openDoors(): void {
    const { doors, all } = this.c.fixtures;
    for (let i = 0; i < doors.length; i++) {
      const number = doors[i]!;
      if (this.s.memory.open[number] === 1 || !this.mayOpen(all[number]!)) continue;
      this.s.memory.setOpen(number, true);
      this.fixtures[number] = 1;
      this.grew = true;
    }
  }

  private mayOpen({ lock, item, count, circuit, openWhileOn }: CompiledFixture): boolean {
    switch (lock) {
      case LOCK_NONE:
        return true;
      case LOCK_ITEM:
        return this.supply(item) >= count;
      case LOCK_COLLECTED:
        return this.allOf(item);
      case LOCK_CIRCUIT:
        return (
          !openWhileOn ||
          this.c.fixtures.all.some((each, i) => each.circuit === circuit && !each.blocks && this.fixtures[i] === 1)
        );
      default:
        return false;
    }
  }

  /** How many of an item can ever be had. */
  private supply(item: number): number {
    let supply = this.s.memory.bag[item]!;
    this.c.fixtures.all.forEach((fixture, i) => {
      if (!fixture.gives || fixture.item !== item || this.fixtures[i] === 0) return;
      supply += fixture.keeps === 0 && this.c.world.respawnRestores === "keeps" ? fixture.count : Infinity;
    });
    return supply;
  }

  private allOf(item: number): boolean {
    const { all, giving } = this.c.fixtures;
    return (
      giving[item]! > 0 && all.every((fixture, i) => !fixture.gives || fixture.item !== item || this.fixtures[i] === 1)
    );
  }
}

const isHazard = ({ kind }: CompiledFixture): boolean => FIXTURE_KINDS[kind] === "hazard";
const isCheckpoint = ({ kind }: CompiledFixture): boolean => FIXTURE_KINDS[kind] === "checkpoint";
