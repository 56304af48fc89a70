import { axisByAxis } from "../axis-by-axis.ts";
import type { ResponseMovement } from "../response-movement.ts";
import { pushDoors } from "../push.ts";
import { isFree } from "../../ground/free.ts";
import { ShapeVisitor, X, Y, visitShapes } from "../../ground/sweep.ts";
import { UNITS_PER_PX } from "../../base/units.ts";
import type { Compiled } from "../../compiled/compiled.ts";
import type { SimState } from "../../compiled/state.ts";
import type { Account, TestedPlace } from "../../compiled/account.ts";
import { noteSweep } from "../met-shapes.ts";
import { blockedRanges, shift, smallestShift } from "../shift.ts";

/** Finds the first whole unit on the way at which a shape that counts is overlapped. */
class FirstStop extends ShapeVisitor {
  sign = 1;
  /** That unit, 1 to the distance; one more than the distance where nothing is met. */
  first = 0;
  /** A polygon is among the shapes that are met there. */
  meetsPoly = false;
  private shapeFirst = Infinity;
  private shapeInside = false;

  begin(sign: number, distance: number): void {
    this.sign = sign;
    this.first = distance + 1;
    this.meetsPoly = false;
    this.shapeFirst = Infinity;
    this.shapeInside = false;
  }

  visit(): void {
    if (this.inside) this.shapeInside = true;
    const { lo, hi } = this;
    const at = this.sign > 0 ? (lo > 1 ? lo : 1) : hi < -1 ? -hi : 1;
    if ((this.sign > 0 ? at <= hi : -at >= lo) && at < this.shapeFirst) this.shapeFirst = at;
  }

  override shapeDone(): void {
    // Shapes that the body was in already do not count.
    if (!this.shapeInside && this.shapeFirst <= this.first) {
      if (this.shapeFirst < this.first) this.meetsPoly = false;
      this.first = this.shapeFirst;
      if (this.poly) this.meetsPoly = true;
    }
    this.shapeFirst = Infinity;
    this.shapeInside = false;
  }
}

const stop = new FirstStop();

/** Travels along an axis as far as the body is free at every whole unit; gives the units travelled. */
function travel(s: SimState, axis: number, sign: number, distance: number): number {
  stop.begin(sign, distance);
  visitShapes(s.ground, s.room, s.x, s.y, axis, sign < 0 ? -distance : 0, sign > 0 ? distance : 0, stop);
  const gone = Math.min(distance, stop.first - 1);
  shift(s, axis, sign * gone);
  return gone;
}

/** `contact`: each axis moves until the body touches; then slopes and nudge. */
export const contact: ResponseMovement = (c, s, dx, dy, account) => {
  axisByAxis(c, s, dx, dy, account, contactAxis);
  if (c.free.nudgePx === 0) return;
  if (s.intentY === 0 && s.intentX * dx > 0 && s.travelledX === 0) nudge(c, s, X, dx, account);
  else if (s.intentX === 0 && s.intentY * dy > 0 && s.travelledY === 0) nudge(c, s, Y, dy, account);
};

/**
 * `contact`: one axis of a movement, with what a slope does about the rest of it (semantics.md section 4.3).
 * @returns units travelled along the axis
 */
function contactAxis(c: Compiled, s: SimState, axis: number, displacement: number, account: Account | null): number {
  const sign = displacement < 0 ? -1 : 1;
  const distance = displacement * sign;
  const noted = account === null ? null : noteSweep(s, axis, displacement, account);
  const { x: fromX, y: fromY } = s;
  let gone = travel(s, axis, sign, distance);
  if (gone < distance && (axis === X ? s.intentX : s.intentY) * sign > 0)
    pushDoors(c, s, axis === X ? s.x + sign : s.x, axis === Y ? s.y + sign : s.y, false, fromX, fromY);
  if (noted !== null) noted.moved(gone * sign, (gone + 1) * sign);
  if (gone === distance || !c.free.slide || !stop.meetsPoly) return gone;
  while (gone < distance) {
    const step = Math.min(UNITS_PER_PX, distance - gone);
    const other = axis === X ? Y : X;
    const x = axis === X ? s.x + sign * step : s.x;
    const y = axis === Y ? s.y + sign * step : s.y;
    blockedRanges.begin();
    visitShapes(s.ground, s.room, x, y, other, -step, step, blockedRanges);
    const sideways = smallestShift(step);
    if (sideways === null) break;
    s.x = x;
    s.y = y;
    shift(s, other, sideways);
    gone += step;
    s.slidOrNudged = true;
    if (noted !== null) noted.slope.push({ along: sign * step, aside: sideways });
  }
  return gone;
}

/**
 * `nudge`: pushes the body round a corner that it caught with less than so many px, where an intent on one axis alone
 * got nowhere (semantics.md section 4.3).
 */
function nudge(c: Compiled, s: SimState, axis: number, displacement: number, account: Account | null): void {
  const other = axis === X ? Y : X;
  const tried: { px: number; place: TestedPlace }[] | null = account === null ? null : [];
  if (account !== null) account.nudge = { axis: axis === X ? "y" : "x", tried: tried!, moved: 0 };
  const sign = displacement < 0 ? -1 : 1;
  const distance = displacement * sign;
  const ahead = sign * Math.min(UNITS_PER_PX, distance);
  for (let k = 1; k <= c.free.nudgePx; k++) {
    for (let side = -1; side <= 1; side += 2) {
      const aside = side * k * UNITS_PER_PX;
      const x = s.x + (axis === X ? ahead : aside);
      const y = s.y + (axis === X ? aside : ahead);
      const free = isFree(s.ground, s.room, x, y);
      if (tried !== null) tried.push({ px: side * k, place: { x, y, free } });
      if (!free) continue;
      const gone = travel(s, other, side, Math.min(distance, k * UNITS_PER_PX));
      if (gone > 0) s.slidOrNudged = true;
      if (account !== null) account.nudge = { ...account.nudge!, moved: side * gone };
      return;
    }
  }
}
