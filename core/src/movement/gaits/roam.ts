import { evenDiagonal } from "../even-diagonal.ts";
import { unitsFromPx } from "../../base/units.ts";
import { freeSettings } from "../free-settings.ts";
import type { Compiled } from "../../compiled/compiled.ts";
import type { SimState } from "../../compiled/state.ts";
import type { Account } from "../../compiled/account.ts";
import { moveFreely } from "../free-move.ts";
import type { GaitMovement } from "../gait-movement.ts";

export const roam: GaitMovement = {
  move,
  free: ({ roam: settings }) =>
    freeSettings(settings, { speedX: unitsFromPx(settings.speedX), speedY: unitsFromPx(settings.speedY) }),
  framesOfCell: ({ tileUnits, free }) => Math.max(1, Math.ceil(tileUnits / Math.max(free.speedX, free.speedY))),
  evened: (_c, _s, _began, dx, dy) => [evenDiagonal(dx), evenDiagonal(dy)],
};

/** One frame of `roam`: free movement, axis by axis (semantics.md section 4.3). */
function move(c: Compiled, s: SimState, account: Account | null): void {
  let dx = s.intentX * c.free.speedX;
  let dy = s.intentY * c.free.speedY;
  if (dx !== 0 && dy !== 0 && c.free.evenDiagonal) {
    dx = evenDiagonal(dx);
    dy = evenDiagonal(dy);
  }
  moveFreely(c, s, dx, dy, account);
}
