import type { Account } from "../movement/account.ts";
import { updateFacing } from "../movement/facing.ts";
import { glide } from "../movement/glide.ts";
import { drift } from "../movement/drift.ts";
import { hop } from "../movement/hop.ts";
import { readIntent } from "../movement/intent.ts";
import { updatePose } from "../movement/pose.ts";
import { roam } from "../movement/roam.ts";
import { checkEscape, cross } from "../rooms/crossing.ts";
import type { Compiled } from "./compiled.ts";
import type { SimState } from "./state.ts";
import { PLAYING } from "./state.ts";

/**
 * One frame, in the order of semantics.md section 6. Changes the state in place and allocates nothing.
 * @param held buttons held in this frame, as bits of `movement/keys.ts`; the pointer must stand in the state already
 * @param account where to write what was seen and decided, or null
 */
export function step(c: Compiled, s: SimState, held: number, account: Account | null): void {
  s.frame++;
  s.eventCount = 0;
  s.rowRoom = s.room;
  s.rowX = s.x;
  s.rowY = s.y;
  s.heldBefore = s.held;
  s.held = held;
  s.bumpedBefore = s.bumping;
  s.bumping = false;
  s.wentX = 0;
  s.wentY = 0;

  s.rawBeforeX = s.rawX;
  s.rawBeforeY = s.rawY;
  readIntent(c.rules, s);
  switch (c.rules.gait) {
    case "hop":
      hop(c, s, account);
      break;
    case "glide":
      glide(c, s, account);
      break;
    case "roam":
      roam(c, s, account);
      break;
    case "drift":
      drift(c, s, account);
      break;
  }
  checkEscape(c, s);
  updateFacing(c, s);
  updatePose(c, s, s.rowX, s.rowY);
  if (s.status === PLAYING) cross(c, s);
}
