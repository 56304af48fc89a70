import { isHazard } from "../../compiled/compiled-fixture.ts";
import type { Compiled } from "../../compiled/compiled.ts";
import type { SimState } from "../../compiled/state.ts";
import { isFree } from "../../ground/free.ts";
import { cross } from "../../rooms/crossing.ts";
import { DIRECTION_X, DIRECTION_Y } from "./actions.ts";
import { entersAtOnce, returnsBeside } from "./lasting-touch.ts";
import { Superset } from "./superset.ts";

/** More than any play can reach under rules that keep to the grid. */
export class GridSuperset extends Superset {
  /** By room and cell: the walker may rest there. */
  readonly rests: readonly Uint8Array[];
  /** Every step from cell to cell can be taken back. */
  reversible = true;
  private readonly queue: { room: number; cx: number; cy: number }[] = [];
  /** The first of the queue that was not gone on from, and ways that a door blocks which may open later. */
  private next = 0;
  private readonly waiting: { room: number; cx: number; cy: number; way: number }[] = [];

  constructor(c: Compiled, start: SimState) {
    super(c, start);
    this.rests = c.rooms.map(({ width, height }) => new Uint8Array(width * height));
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
  }

  /** The walker crosses a side with so much of its leg left, which may take it over another one. */
  private land(room: number, x: number, y: number, leftX: number, leftY: number): void {
    const { c, s } = this;
    s.room = room;
    s.x = x;
    s.y = y;
    s.eventCount = 0;
    cross(c, s, null);
    if (leftX !== 0 || leftY !== 0) {
      s.x += leftX;
      s.y += leftY;
      cross(c, s, null);
    }
    const t = c.tileUnits;
    const [toX, toY] = [s.x / t, s.y / t];
    const there = c.rooms[s.room]!;
    if (toX >= 0 && toY >= 0 && toX < there.width && toY < there.height) this.come(s.room, toX, toY);
  }

  private come(room: number, cx: number, cy: number): void {
    this.comes[room]![cy * this.c.rooms[room]!.width + cx] = 1;
    // Whoever comes onto a portal or a hazard is moved on; the goal ends the run.
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
      if (fixture.touchBody) continue;
      if (number === this.c.goalFixture) return true;
      if (!fixture.leads && !isHazard(fixture)) continue;
      const lasts = entersAtOnce(this.c) && returnsBeside(this.c, this.s, fixture);
      if (!lasts) return true;
    }
    return false;
  }
}
