import type { Compiled } from "../../compiled/compiled.ts";
import type { SimState } from "../../compiled/state.ts";
import { BUMP } from "../../world/vocabulary.ts";
import { NO_BUTTON } from "../../compiled/state.ts";
import type { Account } from "../../compiled/account.ts";
import { chooseDirection } from "../choose.ts";
import { buttonsAlong } from "../intent.ts";
import type { GaitMovement } from "../gait-movement.ts";

export const hop: GaitMovement = {
  move,
  framesOfCell: ({ rules }) => Math.max(1, rules.hop.repeatEvery),
};

/** One frame of `hop`: one cell at a time, at once (semantics.md section 4.1). */
function move(c: Compiled, s: SimState, account: Account | null): void {
  if (!isTried(c, s)) return;
  if (chooseDirection(c, s, c.rules.hop, NO_BUTTON, account)) {
    const dx = s.chosenX * c.tileUnits;
    const dy = s.chosenY * c.tileUnits;
    s.x += dx;
    s.y += dy;
    if (account !== null) account.advances.push({ what: "hop", dx, dy, progress: c.tileUnits, ended: false });
  } else if (s.intentX !== 0 || s.intentY !== 0) {
    s.bumping = true;
    if (!s.bumpedBefore) s.emit(BUMP);
  }
}

/** Whether this frame tries a hop: a direction was pressed, or the held ones repeat. Keeps the repeat timer. */
function isTried(c: Compiled, s: SimState): boolean {
  const { repeatAfter, repeatEvery } = c.rules.hop;
  if ((s.pressed & buttonsAlong(s.rawX, s.rawY)) !== 0) {
    s.repeatAge = 0;
    return true;
  }
  if ((s.rawX === 0 && s.rawY === 0) || s.rawX !== s.previousRawX || s.rawY !== s.previousRawY) {
    s.repeatAge = 0;
    return false;
  }
  if (repeatAfter === 0) return false;
  s.repeatAge++;
  if (s.repeatAge <= repeatAfter) return s.repeatAge === repeatAfter;
  // The timer goes round: where it stands after the first repeat is all that counts.
  if (s.repeatAge - repeatAfter !== repeatEvery) {
    if (repeatEvery === 0) s.repeatAge = repeatAfter + 1;
    return false;
  }
  s.repeatAge = repeatAfter;
  return true;
}
