import { Y, X } from "../ground/sweep.ts";
import type { Account, AxisMove, TestedPlace } from "../compiled/account.ts";
import type { Compiled } from "../compiled/compiled.ts";
import type { SimState } from "../compiled/state.ts";
import { isFree } from "../ground/free.ts";
import { pushDoors } from "./push.ts";
import { shift } from "./shift.ts";

/**
 * Moves along an axis by all of it where the body is free at one tested place, else not at all.
 * @param tested displacement of that place along the axis
 * @returns units travelled along the axis
 */
export function wholeAxis(
  c: Compiled,
  s: SimState,
  axis: number,
  displacement: number,
  tested: number,
  account: Account | null,
): number {
  const x = axis === X ? s.x + tested : s.x;
  const y = axis === Y ? s.y + tested : s.y;
  const free = isFree(s.ground, s.room, x, y);
  if (account !== null)
    account.axes.push(
      wholeMove(axis === X ? "x" : "y", s, axis === X ? displacement : 0, axis === Y ? displacement : 0, {
        x,
        y,
        free,
      }),
    );
  if (!free) {
    if ((axis === X ? s.intentX : s.intentY) * displacement > 0) pushDoors(c, s, x, y, true, 0, 0);
    return 0;
  }
  shift(s, axis, displacement);
  return Math.abs(displacement);
}

/** The account of a movement that is made whole or not at all. */
export function wholeMove(axis: AxisMove["axis"], s: SimState, dx: number, dy: number, place: TestedPlace): AxisMove {
  return {
    axis,
    fromX: s.x,
    fromY: s.y,
    dx,
    dy,
    place,
    shapes: [],
    stopAt: 0,
    movedX: place.free ? dx : 0,
    movedY: place.free ? dy : 0,
    slope: [],
  };
}
