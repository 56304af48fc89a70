import { axisByAxis } from "../axis-by-axis.ts";
import type { ResponseMovement } from "../response-movement.ts";
import { pushDoors } from "../push.ts";
import { X, Y, ShapeVisitor, visitShapes } from "../../ground/sweep.ts";
import type { Compiled } from "../../compiled/compiled.ts";
import type { SimState } from "../../compiled/state.ts";
import type { Account } from "../../compiled/account.ts";
import { noteSweep } from "../met-shapes.ts";
import { blockedRanges, shift } from "../shift.ts";

/** Finds the shapes that count and are overlapped at the end of a displacement, and the ranges of their boxes. */
class Overlapped extends ShapeVisitor {
  displacement = 0;
  private readonly boxes = new Int32Array(64);
  private count = 0;
  private shapeInside = false;
  private shapeMet = false;
  met = false;

  begin(displacement: number): void {
    this.displacement = displacement;
    this.count = 0;
    this.shapeInside = false;
    this.shapeMet = false;
    this.met = false;
    blockedRanges.begin();
  }

  visit(): void {
    if (this.inside) this.shapeInside = true;
    if (this.lo <= this.displacement && this.displacement <= this.hi) this.shapeMet = true;
    this.boxes[this.count++] = this.boxLo;
    this.boxes[this.count++] = this.boxHi;
  }

  override shapeDone(): void {
    if (this.shapeMet && !this.shapeInside) {
      this.met = true;
      for (let i = 0; i < this.count; i += 2) blockedRanges.add(this.boxes[i]!, this.boxes[i + 1]!);
    }
    this.count = 0;
    this.shapeInside = false;
    this.shapeMet = false;
  }
}

const overlapped = new Overlapped();

/** `snap`: each axis moves whole, and is drawn back out of what it ended in. */
export const snap: ResponseMovement = (c, s, dx, dy, account) => axisByAxis(c, s, dx, dy, account, snapAxis);

/**
 * `snap`: one axis of a movement, moved whole and drawn back to the boxes of what it ended in (semantics.md section 4.3).
 * @returns units travelled along the axis
 */
function snapAxis(c: Compiled, s: SimState, axis: number, displacement: number, account: Account | null): number {
  const sign = displacement < 0 ? -1 : 1;
  const noted = account === null ? null : noteSweep(s, axis, displacement, account);
  overlapped.begin(displacement);
  visitShapes(s.ground, s.room, s.x, s.y, axis, Math.min(displacement, 0), Math.max(displacement, 0), overlapped);
  let gone = displacement * sign;
  if (overlapped.met && (axis === X ? s.intentX : s.intentY) * sign > 0)
    pushDoors(c, s, axis === X ? s.x + displacement : s.x, axis === Y ? s.y + displacement : s.y, false, s.x, s.y);
  if (overlapped.met) gone = Math.max(0, blockedRanges.firstFree(displacement, -sign) * sign);
  if (noted !== null) noted.moved(gone * sign, displacement);
  shift(s, axis, gone * sign);
  return gone;
}
