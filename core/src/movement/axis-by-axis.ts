import type { Account } from "../compiled/account.ts";
import type { Compiled } from "../compiled/compiled.ts";
import type { SimState } from "../compiled/state.ts";
import { X, Y } from "../ground/sweep.ts";
import type { AxisMovement } from "./response-movement.ts";

/** Moves along one axis after the other, in the order of the rules: what most responses do. */
export function axisByAxis(
  c: Compiled,
  s: SimState,
  dx: number,
  dy: number,
  account: Account | null,
  move: AxisMovement,
): void {
  if (c.free.xFirst) {
    if (dx !== 0) s.travelledX = move(c, s, X, dx, account);
    if (dy !== 0) s.travelledY = move(c, s, Y, dy, account);
  } else {
    if (dy !== 0) s.travelledY = move(c, s, Y, dy, account);
    if (dx !== 0) s.travelledX = move(c, s, X, dx, account);
  }
}
