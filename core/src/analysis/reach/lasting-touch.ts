import type { CompiledFixture } from "../../compiled/compiled-fixture.ts";
import { isCheckpoint, isHazard } from "../../compiled/compiled-fixture.ts";
import type { Compiled } from "../../compiled/compiled.ts";
import type { SimState } from "../../compiled/state.ts";

/**
 * Whether a portal or a hazard may put the walker right beside itself: touched again in the very next frame it goes on being
 * touched, and moves nobody on (semantics.md section 7).
 * @param start any state of the run: where it began
 */
export function returnsBeside(c: Compiled, { memory }: SimState, fixture: CompiledFixture): boolean {
  const { room, toRoom, toX, toY } = fixture;
  if (fixture.touchBody) return false;
  if (fixture.leads) return toRoom === room && isBeside(c, fixture, toX, toY);
  if (!isHazard(fixture)) return false;
  const t = c.tileUnits;
  if (memory.startRoom === room && isBeside(c, fixture, memory.startX / t, memory.startY / t)) return true;
  return c.fixtures.all.some(
    (each) => isCheckpoint(each) && each.room === room && isBeside(c, fixture, each.cx, each.cy),
  );
}

/** Whether the first frame of a leg brings the walker into the next cell, where what it touched a frame before is touched still. */
export function entersAtOnce({ rules, glide, tileUnits }: Compiled): boolean {
  return rules.gait !== "glide" || 2 * glide.speed >= tileUnits;
}

/** Whether one step leads from a cell of a room onto a fixture of that room, perhaps over its sides. */
function isBeside(c: Compiled, { room, cx, cy, across, down }: CompiledFixture, x: number, y: number): boolean {
  const { width, height } = c.rooms[room]!;
  return isNear(x, cx, across, width) && isNear(y, cy, down, height);
}

function isNear(at: number, from: number, cells: number, size: number): boolean {
  const atSides = (at === 0 || at === size - 1) && (from === 0 || from + cells === size);
  return (at >= from - 1 && at <= from + cells) || atSides;
}
