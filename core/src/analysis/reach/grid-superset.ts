import { isHazard } from "../../compiled/compiled-fixture.ts";
import type { Compiled } from "../../compiled/compiled.ts";
import { SimState } from "../../compiled/state.ts";
import { isFree } from "../../ground/free.ts";
import { cross } from "../../rooms/crossing.ts";
import { DIRECTION_X, DIRECTION_Y } from "./actions.ts";
import { entersAtOnce, returnsBeside } from "./lasting-touch.ts";
import { Superset } from "./superset.ts";
import { carriesBetweenFrames } from "./turned-sides.ts";

/** More than any play can reach under rules that keep to the grid. */
export class GridSuperset extends Superset {
  /** By room and cell: the walker may rest there. */
  readonly rests: readonly Uint8Array[];
  /** Every step from cell to cell can be taken back. */
  reversible = true;
  /** Crosses sides; what it remembers is nobody's. */
  private readonly at: SimState;
  private readonly ways: number;
  private readonly carries: boolean;
  private readonly queue: { room: number; cx: number; cy: number }[] = [];
  /** The first of the queue that was not gone on from, and ways that a door blocks which may open later. */
  private next = 0;
  private readonly waiting: { room: number; cx: number; cy: number; way: number }[] = [];

  constructor(c: Compiled, start: SimState) {
    super(c, start);
    this.rests = c.rooms.map(({ width, height }) => new Uint8Array(width * height));
    this.at = new SimState(c);
    this.ways = c.rules.input.ways === 8 ? 8 : 4;
    this.carries = carriesBetweenFrames(c);
    this.fill();
  }

  /** Marks where the walker may rest, and looks on from there. */
  protected rest(room: number, cx: number, cy: number): void {
    const { width, height } = this.c.rooms[room]!;
    if (cx < 0 || cy < 0 || cx >= width || cy >= height) return;
    const cell = cy * width + cx;
    if (this.rests[room]![cell] === 1) return;
    this.rests[room]![cell] = 1;
    this.comes[room]![cell] = 1;
    this.queue.push({ room, cx, cy });
  }

  /** Every step from everywhere, until nothing new is met. */
  protected spread(): void {
    const { c, s } = this;
    const t = c.tileUnits;
    const waited = this.waiting.splice(0);
    for (const { room, cx, cy, way } of waited) this.go(room, cx, cy, way);
    for (; this.next < this.queue.length; this.next++) {
      const { room, cx, cy } = this.queue[this.next]!;
      // Who was put into something that blocks cannot step back into it.
      if (!isFree(s.ground, room, cx * t, cy * t)) this.reversible = false;
      for (let way = 0; way < this.ways; way++) this.go(room, cx, cy, way);
    }
  }

  private go(room: number, cx: number, cy: number, way: number): void {
    const { c, s } = this;
    const t = c.tileUnits;
    const toCx = cx + DIRECTION_X[way]!;
    const toCy = cy + DIRECTION_Y[way]!;
    const [x, y] = [toCx * t, toCy * t];
    const { width, height } = c.rooms[room]!;
    const isInside = toCx >= 0 && toCy >= 0 && toCx < width && toCy < height;
    if (isInside && this.comes[room]![toCy * width + toCx] === 1) return;
    if (!isFree(s.ground, room, x, y)) {
      // A door that is opened later may let one through.
      if (isFree(c.ground, room, x, y)) this.waiting.push({ room, cx, cy, way });
      return;
    }
    if (isInside) {
      this.come(room, toCx, toCy);
      return;
    }
    // A slanting leg may be seen with one of both sides behind it first, by where it is when a frame ends.
    if (toCx !== cx && toCy !== cy) {
      this.land(room, x, cy * t, 0, y - cy * t);
      this.land(room, cx * t, y, x - cx * t, 0);
    }
    this.land(room, x, y, 0, 0);
    this.reversible &&= this.leadsBack(way, room, cx, cy);
    if (this.carries && this.carryOn(room, x, y)) this.waiting.push({ room, cx, cy, way });
  }

  /**
   * A leg that ends beyond a side may go on in another direction in the same frame, as the ground is seen from the room
   * that it comes out of: sides are crossed once the frame is over, by where the walker is then.
   * @returns whether a door that is opened later may let one go on
   */
  private carryOn(room: number, x: number, y: number): boolean {
    const { at, c, s } = this;
    const t = c.tileUnits;
    let waits = false;
    for (let way = 0; way < this.ways; way++) {
      const [toX, toY] = [x + DIRECTION_X[way]! * t, y + DIRECTION_Y[way]! * t];
      if (!isFree(s.ground, room, toX, toY)) {
        waits ||= isFree(c.ground, room, toX, toY);
        continue;
      }
      const across = this.begunAcross(room, x, y, toX - x, toY - y);
      for (const atX of new Set([x, toX]))
        for (const atY of new Set([y, toY])) {
          this.land(room, atX, atY, toX - atX, toY - atY);
          this.reversible &&= across !== null && across.room === at.room && across.x === at.x && across.y === at.y;
        }
    }
    return waits;
  }

  /** Where a leg leads that begins once a side was crossed; null where something blocks it there. */
  private begunAcross(room: number, x: number, y: number, dx: number, dy: number) {
    const { at, s } = this;
    this.crossFrom(room, x, y);
    if (!isFree(s.ground, at.room, at.x + dx, at.y + dy)) return null;
    this.crossFrom(at.room, at.x + dx, at.y + dy);
    return { room: at.room, x: at.x, y: at.y };
  }

  /** Takes `at` across the sides that a place lies beyond. */
  private crossFrom(room: number, x: number, y: number): void {
    const { at, c } = this;
    at.room = room;
    at.x = x;
    at.y = y;
    at.eventCount = 0;
    cross(c, at, null);
  }

  /** The walker crosses a side with so much of its leg left, which may take it over another one. */
  private land(room: number, x: number, y: number, leftX: number, leftY: number): void {
    const { at, c } = this;
    this.crossFrom(room, x, y);
    if (leftX !== 0 || leftY !== 0) this.crossFrom(at.room, at.x + leftX, at.y + leftY);
    const t = c.tileUnits;
    const [toX, toY] = [at.x / t, at.y / t];
    const there = c.rooms[at.room]!;
    if (toX >= 0 && toY >= 0 && toX < there.width && toY < there.height) this.come(at.room, toX, toY);
  }

  private come(room: number, cx: number, cy: number): void {
    this.comes[room]![cy * this.c.rooms[room]!.width + cx] = 1;
    // Whoever comes onto a portal or a hazard is moved on; the goal ends the run.
    if (!this.movesOn(room, cx, cy)) this.rest(room, cx, cy);
  }

  /** Whether the step back from where `at` is leads to where it came from. */
  private leadsBack(way: number, room: number, cx: number, cy: number): boolean {
    const { at, c, s } = this;
    const t = c.tileUnits;
    const [x, y] = [at.x - DIRECTION_X[way]! * t, at.y - DIRECTION_Y[way]! * t];
    if (!isFree(s.ground, at.room, x, y)) return false;
    this.crossFrom(at.room, x, y);
    return at.room === room && at.x === cx * t && at.y === cy * t;
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
      if (fixture.touchBody) continue;
      if (number === this.c.goalFixture) return true;
      if (!fixture.leads && !isHazard(fixture)) continue;
      const lasts = entersAtOnce(this.c) && returnsBeside(this.c, this.s, fixture);
      if (!lasts) return true;
    }
    return false;
  }
}
