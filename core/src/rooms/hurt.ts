import type { Compiled } from "../compiled/compiled.ts";
import type { SimState } from "../compiled/state.ts";
import { HURT, LOSE, LOST } from "../world/vocabulary.ts";
import { respawn } from "./place-walker.ts";

/** A life less where they are counted, then lost or back at the respawn place (semantics.md section 8, hazards). */
export function hurt(c: Compiled, s: SimState, subject: number): void {
  s.emit(HURT, subject);
  if (c.countsLives && --s.memory.lives === 0) {
    s.status = LOST;
    s.emit(LOSE);
  } else respawn(c, s);
}
