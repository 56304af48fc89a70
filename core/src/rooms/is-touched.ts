import { bodyIn } from "../compiled/body-in-cell.ts";
import { occupiedX, occupiedY } from "../ground/occupied.ts";
import type { Compiled } from "../compiled/compiled.ts";
import type { SimState } from "../compiled/state.ts";
import type { CompiledFixture } from "../compiled/compiled-fixture.ts";

/** Whether the walker touches a fixture of its room (semantics.md section 8), taken items left aside. */
export function isTouched(c: Compiled, s: SimState, fixture: CompiledFixture): boolean {
  const t = c.tileUnits;
  return fixture.touchBody ? isBodyIn(c, s, fixture) : isCellIn(fixture, occupiedX(t, s.x), occupiedY(t, s.y));
}

/** Whether a cell is one of the fixture's. */
export function isCellIn({ cx, cy, across, down }: CompiledFixture, x: number, y: number): boolean {
  return x >= cx && x < cx + across && y >= cy && y < cy + down;
}

/** Whether the body's interior, or a probe, is in the square of one of the fixture's cells. */
export function isBodyIn(c: Compiled, s: SimState, { cx, cy, across, down }: CompiledFixture): boolean {
  const t = c.tileUnits;
  return bodyIn(c, s.x - cx * t, s.y - cy * t, across * t, down * t);
}
