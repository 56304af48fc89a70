import { pushDoors } from "./push.ts";
import { isFree } from "../ground/free.ts";
import { X, Y } from "../ground/sweep.ts";
import type { Compiled } from "../compiled/compiled.ts";
import type { SimState } from "../compiled/state.ts";
import { BUMP } from "../world/vocabulary.ts";
import type { Account, AxisMove, TestedPlace } from "../compiled/account.ts";
import { contactAxis, nudge } from "./contact.ts";
import { shift } from "./shift.ts";
import { snapAxis } from "./snap.ts";

/**
 * Moves the walker by a displacement under the response of its rules: what `roam` and `drift` have in common
 * (semantics.md section 4.3). Leaves the units travelled along each axis in `travelledX` and `travelledY`.
 */
export function moveFreely(c: Compiled, s: SimState, dx: number, dy: number, account: Account | null): void {
  const { free } = c;
  s.travelledX = 0;
  s.travelledY = 0;
  s.slidOrNudged = false;
  if (free.response === "undo-both") moveBoth(c, s, dx, dy, account);
  else if (free.xFirst) {
    s.travelledX = moveAxis(c, s, X, dx, account);
    s.travelledY = moveAxis(c, s, Y, dy, account);
  } else {
    s.travelledY = moveAxis(c, s, Y, dy, account);
    s.travelledX = moveAxis(c, s, X, dx, account);
  }
  if (free.response === "contact" && free.nudgePx > 0) {
    if (s.intentY === 0 && s.intentX * dx > 0 && s.travelledX === 0) nudge(c, s, X, dx, account);
    else if (s.intentX === 0 && s.intentY * dy > 0 && s.travelledY === 0) nudge(c, s, Y, dy, account);
  }
  const short = (s.intentX * dx > 0 && s.travelledX < Math.abs(dx)) || (s.intentY * dy > 0 && s.travelledY < Math.abs(dy));
  if (short && !s.slidOrNudged) {
    s.bumping = true;
    if (!s.bumpedBefore) s.happened(BUMP);
  }
}

function moveAxis(c: Compiled, s: SimState, axis: number, displacement: number, account: Account | null): number {
  if (displacement === 0) return 0;
  switch (c.free.response) {
    case "contact":
      return contactAxis(c, s, axis, displacement, account);
    case "snap":
      return snapAxis(c, s, axis, displacement, account);
    case "undo-axis":
    case "undo-both":
      return wholeAxis(c, s, axis, displacement, displacement, account);
    case "ahead":
      return wholeAxis(c, s, axis, displacement, displacement < 0 ? -c.free.aheadUnits : c.free.aheadUnits, account);
  }
}

/**
 * `undo-axis` and `ahead`: moves by all of it where the body is free at one tested place, else not at all.
 * @param tested displacement of that place along the axis
 * @returns units travelled along the axis
 */
function wholeAxis(c: Compiled, s: SimState, axis: number, displacement: number, tested: number, account: Account | null): number {
  const x = axis === X ? s.x + tested : s.x;
  const y = axis === Y ? s.y + tested : s.y;
  const free = isFree(s.ground, s.room, x, y);
  if (account !== null) account.axes.push(wholeMove(axis === X ? "x" : "y", s, axis === X ? displacement : 0, axis === Y ? displacement : 0, { x, y, free }));
  if (!free) {
    if ((axis === X ? s.intentX : s.intentY) * displacement > 0) pushDoors(c, s, x, y, true, 0, 0);
    return 0;
  }
  shift(s, axis, displacement);
  return Math.abs(displacement);
}

/** `undo-both`: moves both axes, and both back where that is not free. */
function moveBoth(c: Compiled, s: SimState, dx: number, dy: number, account: Account | null): void {
  if (dx === 0 && dy === 0) return;
  const x = s.x + dx;
  const y = s.y + dy;
  const free = isFree(s.ground, s.room, x, y);
  if (account !== null) account.axes.push(wholeMove("both", s, dx, dy, { x, y, free }));
  s.bothUndone = !free;
  if (!free) {
    if (s.intentX * dx > 0 || s.intentY * dy > 0) pushDoors(c, s, x, y, true, 0, 0);
    return;
  }
  s.x = x;
  s.y = y;
  s.travelledX = Math.abs(dx);
  s.travelledY = Math.abs(dy);
}

/** The account of a movement that is made whole or not at all. */
function wholeMove(axis: AxisMove["axis"], s: SimState, dx: number, dy: number, place: TestedPlace): AxisMove {
  return { axis, fromX: s.x, fromY: s.y, dx, dy, place, shapes: [], movedX: place.free ? dx : 0, movedY: place.free ? dy : 0, slope: [] };
}
