import { ShapeVisitor, X } from "../ground/sweep.ts";
import type { SimState } from "../compiled/state.ts";

/** Moves the walker along an axis by so many units. */
export function shift(s: SimState, axis: number, by: number): void {
  if (axis === X) s.x += by;
  else s.y += by;
}

/** Collects the displacements along an axis at which something is overlapped, whether it counts or not. */
class BlockedRanges extends ShapeVisitor {
  private ranges = new Int32Array(256);
  private length = 0;

  begin(): void {
    this.length = 0;
  }

  visit(): void {
    this.add(this.lo, this.hi);
  }

  add(lo: number, hi: number): void {
    if (lo > hi) return;
    if (this.length + 2 > this.ranges.length) {
      const grown = new Int32Array(this.ranges.length * 2);
      grown.set(this.ranges);
      this.ranges = grown;
    }
    this.ranges[this.length++] = lo;
    this.ranges[this.length++] = hi;
  }

  /** The nearest displacement from `at` on, going by `sign`, that is in no range. */
  firstFree(at: number, sign: number): number {
    let free = at;
    for (let again = true; again;) {
      again = false;
      for (let i = 0; i < this.length; i += 2) {
        if (free < this.ranges[i]! || free > this.ranges[i + 1]!) continue;
        free = sign < 0 ? this.ranges[i]! - 1 : this.ranges[i + 1]! + 1;
        again = true;
      }
    }
    return free;
  }

  /** The nearest blocked displacement from 1 on, counted along `sign`; Infinity for none. */
  firstBlocked(sign: number): number {
    let first = Infinity;
    for (let i = 0; i < this.length; i += 2) {
      const near = sign > 0 ? this.ranges[i]! : -this.ranges[i + 1]!;
      const far = sign > 0 ? this.ranges[i + 1]! : -this.ranges[i]!;
      if (far >= 1 && Math.max(near, 1) < first) first = Math.max(near, 1);
    }
    return first;
  }
}

export const blockedRanges = new BlockedRanges();

/** Of what `blockedRanges` holds: the smallest shift to a free place, at most so far; the negative one first; null for none. */
export function smallestShift(max: number): number | null {
  const back = -blockedRanges.firstFree(0, -1);
  const on = blockedRanges.firstFree(0, 1);
  if (Math.min(back, on) > max) return null;
  return back <= on ? 0 - back : on;
}
