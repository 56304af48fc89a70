import type { Compiled } from "../compiled/compiled.ts";
import type { SimState } from "../compiled/state.ts";
import type { Account } from "../compiled/account.ts";
import { moveFreely } from "./free-move.ts";

/** 181 / 256 of a displacement, toward zero: what each axis of an even diagonal keeps. */
export function evenDiagonal(units: number): number {
  return Math.trunc((units * 181) / 256) + 0;
}

/** One frame of `roam`: free movement, axis by axis (semantics.md section 4.3). */
export function roam(c: Compiled, s: SimState, account: Account | null): void {
  let dx = s.intentX * c.free.speedX;
  let dy = s.intentY * c.free.speedY;
  if (dx !== 0 && dy !== 0 && c.free.evenDiagonal) {
    dx = evenDiagonal(dx);
    dy = evenDiagonal(dy);
  }
  moveFreely(c, s, dx, dy, account);
}
