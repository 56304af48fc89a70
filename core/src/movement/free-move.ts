import { isFree } from "../ground/free.ts";
import { X, Y } from "../ground/sweep.ts";
import type { Compiled } from "../simulation/compiled.ts";
import type { SimState } from "../simulation/state.ts";
import { BUMP } from "../simulation/state.ts";
import type { Account } from "./account.ts";
import { contactAxis, nudge, shift } from "./contact.ts";
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
  s.stopped = false;
  if (free.response === "undo-both") moveBoth(c, s, dx, dy);
  else if (free.xFirst) {
    s.travelledX = moveAxis(c, s, X, dx);
    s.travelledY = moveAxis(c, s, Y, dy);
  } else {
    s.travelledY = moveAxis(c, s, Y, dy);
    s.travelledX = moveAxis(c, s, X, dx);
  }
  if (free.response === "contact" && free.nudgePx > 0) {
    if (s.intentY === 0 && s.intentX * dx > 0 && s.travelledX === 0) nudge(c, s, X, dx);
    else if (s.intentX === 0 && s.intentY * dy > 0 && s.travelledY === 0) nudge(c, s, Y, dy);
  }
  const short = (s.intentX * dx > 0 && s.travelledX < Math.abs(dx)) || (s.intentY * dy > 0 && s.travelledY < Math.abs(dy));
  if (short && !s.slidOrNudged) {
    s.bumping = true;
    if (!s.bumpedBefore) s.happened(BUMP);
  }
  if (account !== null) {
    account.free = { wanted: [dx, dy], travelled: [s.travelledX * Math.sign(dx), s.travelledY * Math.sign(dy)], slidOrNudged: s.slidOrNudged, stop: s.stopped ? { cx: s.stopCx, cy: s.stopCy } : null };
  }
}

function moveAxis(c: Compiled, s: SimState, axis: number, displacement: number): number {
  switch (c.free.response) {
    case "contact":
      return contactAxis(c, s, axis, displacement);
    case "snap":
      return snapAxis(c, s, axis, displacement);
    case "undo-axis":
    case "undo-both":
      return undoAxis(c, s, axis, displacement);
    case "ahead":
      return aheadAxis(c, s, axis, displacement);
  }
}

/** `undo-axis`: moves by all of it, and back where that is not free. */
function undoAxis(c: Compiled, s: SimState, axis: number, displacement: number): number {
  shift(s, axis, displacement);
  if (displacement === 0 || isFree(c, s.room, s.x, s.y)) return Math.abs(displacement);
  shift(s, axis, -displacement);
  return 0;
}

/** `undo-both`: moves both axes, and both back where that is not free. */
function moveBoth(c: Compiled, s: SimState, dx: number, dy: number): void {
  if (dx === 0 && dy === 0) return;
  s.x += dx;
  s.y += dy;
  if (isFree(c, s.room, s.x, s.y)) {
    s.travelledX = Math.abs(dx);
    s.travelledY = Math.abs(dy);
    return;
  }
  s.x -= dx;
  s.y -= dy;
  s.bothUndone = true;
}

/** `ahead`: moves by all of it where a place so far ahead is free, without a further test. */
function aheadAxis(c: Compiled, s: SimState, axis: number, displacement: number): number {
  if (displacement === 0) return 0;
  const ahead = displacement < 0 ? -c.free.aheadUnits : c.free.aheadUnits;
  if (!isFree(c, s.room, axis === X ? s.x + ahead : s.x, axis === Y ? s.y + ahead : s.y)) return 0;
  shift(s, axis, displacement);
  return Math.abs(displacement);
}
