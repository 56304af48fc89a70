import type { Compiled } from "../../compiled/compiled.ts";
import { LOCK_CIRCUIT, LOCK_COLLECTED, LOCK_ITEM, LOCK_NONE, isCheckpoint } from "../../compiled/compiled-fixture.ts";
import type { CompiledFixture } from "../../compiled/compiled-fixture.ts";
import { SimState } from "../../compiled/state.ts";
import { bodyReach } from "./plain-steps.ts";

/**
 * More than any play can reach: every door that could ever be opened stands open, nothing
 * is ever lost, nothing runs short. What is not in it is never reached (semantics.md section 10).
 */
export abstract class Superset {
  /** By room and cell: the walker may come there, if only to be moved on at once. */
  readonly comes: readonly Uint8Array[];
  /** By fixture: what it does may be done. */
  readonly fixtures: Uint8Array;
  goal = false;
  protected readonly s: SimState;
  private grew = true;

  constructor(
    protected readonly c: Compiled,
    private readonly start: SimState,
  ) {
    this.comes = c.rooms.map(({ width, height }) => new Uint8Array(width * height));
    this.fixtures = new Uint8Array(c.fixtures.all.length);
    this.s = new SimState(c);
    this.s.copyFrom(start);
    const { doors } = c.fixtures;
    for (let i = 0; i < doors.length; i++) if (start.memory.open[doors[i]!] === 1) this.fixtures[doors[i]!] = 1;
  }

  /** Goes as far as one can. */
  protected fill(): void {
    const { c, start } = this;
    this.rest(start.room, start.x / c.tileUnits, start.y / c.tileUnits);
    while (this.grew) {
      this.grew = false;
      this.spread();
      this.touch();
      this.openDoors();
    }
    this.goal = c.goalFixture >= 0 ? this.fixtures[c.goalFixture] === 1 : c.goalItem >= 0 && this.allOf(c.goalItem);
  }

  /** The walker may stand aligned on a cell: it goes on from there. */
  protected abstract rest(room: number, cx: number, cy: number): void;

  /** Goes on from wherever that was not done yet, until nothing new is met. */
  protected abstract spread(): void;

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
