import { unitsFromPx } from "../../base/units.ts";
import { freeSettings } from "../free-settings.ts";
import type { Compiled } from "../../compiled/compiled.ts";
import type { SimState } from "../../compiled/state.ts";
import type { Account } from "../../compiled/account.ts";
import { moveFreely } from "../free-move.ts";
import { evenDiagonal } from "../even-diagonal.ts";
import type { GaitMovement } from "../gait-movement.ts";

export const drift: GaitMovement = {
  move,
  free: ({ drift: settings }) =>
    freeSettings(settings, {
      accel: unitsFromPx(settings.accel),
      drag: settings.drag,
      maxSpeed: unitsFromPx(settings.maxSpeed),
    }),
  framesOfCell: ({ tileUnits, free }) => Math.max(1, Math.ceil(tileUnits / free.maxSpeed)),
  evened: (c, s, began) => [
    driven(c, began.vx, evenDiagonal(s.intentX * c.free.accel)),
    driven(c, began.vy, evenDiagonal(s.intentY * c.free.accel)),
  ],
};

/** One frame of `drift`: momentum (semantics.md section 4.4). */
function move(c: Compiled, s: SimState, account: Account | null): void {
  const { accel, evenDiagonal: even } = c.free;
  const both = s.intentX !== 0 && s.intentY !== 0 && even;
  s.vx = driven(c, s.vx, both ? evenDiagonal(s.intentX * accel) : s.intentX * accel);
  s.vy = driven(c, s.vy, both ? evenDiagonal(s.intentY * accel) : s.intentY * accel);
  s.bothUndone = false;
  moveFreely(c, s, s.vx, s.vy, account);
  if (s.bothUndone || s.travelledX < Math.abs(s.vx)) s.vx = 0;
  if (s.bothUndone || s.travelledY < Math.abs(s.vy)) s.vy = 0;
  if (account !== null) account.velocity = [s.vx, s.vy];
}

/** The velocity of an axis after one frame of acceleration and drag. All in units a frame. */
function driven(c: Compiled, v: number, a: number): number {
  const { drag, maxSpeed } = c.free;
  // `+ 0`: a velocity must never be -0.
  const dragged = Math.trunc(((v + a) * (256 - drag)) / 256) + 0;
  return Math.min(Math.max(dragged, -maxSpeed), maxSpeed);
}
