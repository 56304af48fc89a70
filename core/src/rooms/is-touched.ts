import { bodyIn } from "../compiled/body-in-cell.ts";
import { occupiedX, occupiedY } from "../ground/occupied.ts";
import type { Compiled } from "../compiled/compiled.ts";
import type { SimState } from "../compiled/state.ts";
import type { CompiledFixture } from "../compiled/compiled-fixture.ts";

/** Whether the walker touches a fixture of its room (semantics.md section 8), taken items left aside. */
export function isTouched(c: Compiled, s: SimState, fixture: CompiledFixture): boolean {
  const t = c.tileUnits;
  if (!fixture.touchBody) return occupiedX(t, s.x) === fixture.cx && occupiedY(t, s.y) === fixture.cy;
  return bodyIn(c, s.x - fixture.cx * t, s.y - fixture.cy * t);
}
