import type { Account } from "../compiled/account.ts";
import type { Compiled } from "../compiled/compiled.ts";
import type { SimState } from "../compiled/state.ts";
import { BUMP } from "../world/vocabulary.ts";

/**
 * Moves the walker by a displacement under the response of its rules: what `roam` and `drift` have in common
 * (semantics.md section 4.3). Leaves the units travelled along each axis in `travelledX` and `travelledY`.
 */
export function moveFreely(c: Compiled, s: SimState, dx: number, dy: number, account: Account | null): void {
  s.travelledX = 0;
  s.travelledY = 0;
  s.slidOrNudged = false;
  c.free.respond(c, s, dx, dy, account);
  const short =
    (s.intentX * dx > 0 && s.travelledX < Math.abs(dx)) || (s.intentY * dy > 0 && s.travelledY < Math.abs(dy));
  if (short && !s.slidOrNudged) {
    s.bumping = true;
    if (!s.bumpedBefore) s.emit(BUMP);
  }
}
