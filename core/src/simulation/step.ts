import { moveActors } from "../actors/move-actors.ts";
import { touchActors } from "../actors/touch-actors.ts";
import { moveDoors } from "../rooms/doors.ts";
import { touchFixtures } from "../rooms/touch-fixtures.ts";
import type { Account } from "../compiled/account.ts";
import { updateFacing } from "../movement/facing.ts";
import { USE } from "../world/keys.ts";
import { readIntent } from "../movement/intent.ts";
import { updatePose } from "../movement/pose.ts";
import { checkEscape, cross } from "../rooms/crossing.ts";
import type { Compiled } from "../compiled/compiled.ts";
import type { SimState } from "../compiled/state.ts";
import { PLAYING, WIN, WON } from "../world/vocabulary.ts";

/**
 * One frame, in the order of semantics.md section 6. Changes the state in place and allocates nothing.
 * @param held buttons held in this frame, as bits of `world/keys.ts`; the pointer must stand in the state already
 * @param account where to write what was seen and decided, or null
 */
export function step(c: Compiled, s: SimState, held: number, account: Account | null): void {
  s.frame++;
  s.eventCount = 0;
  s.previousRoom = s.room;
  s.previousX = s.x;
  s.previousY = s.y;
  s.heldBefore = s.held;
  s.held = held;
  s.bumpedBefore = s.bumping;
  s.bumping = false;
  s.chosenX = 0;
  s.chosenY = 0;

  s.previousRawX = s.rawX;
  s.previousRawY = s.rawY;
  const { memory } = s;
  if (memory.pushedCount > 0 || memory.pushedBeforeCount > 0) memory.turnPushed();
  readIntent(c, s);
  c.move(c, s, account);
  // In nearly every frame the frame-square is still wholly in the room, and nothing can be left or crossed.
  const room = c.rooms[s.room]!;
  const inside = s.x >= 0 && s.y >= 0 && s.x <= room.unitsAcross - c.tileUnits && s.y <= room.unitsDown - c.tileUnits;
  if (!inside) checkEscape(c, s);
  updateFacing(c, s);
  updatePose(c, s, s.previousX, s.previousY);
  if (s.status !== PLAYING) return;
  if (!inside) cross(c, s, account);
  if (!c.hasFixtures && c.actors === null) return;
  if (c.actors !== null) moveActors(c, s, account && account.actors);
  const wasPut = c.hasFixtures && touchFixtures(c, s);
  if (s.status !== PLAYING) return;
  const wasMoved = wasPut || (c.actors !== null && touchActors(c, s));
  if (s.status !== PLAYING) return;
  if (memory.behindCount > 0 || memory.changed || memory.pushedCount > 0 || (s.pressed & USE) !== 0)
    moveDoors(c, s, wasMoved);
  if (isGoalMet(c, s)) {
    s.status = WON;
    s.emit(WIN);
  }
}

/** Step 7: the goal (semantics.md section 8). Without an item to collect it is never met. */
function isGoalMet(c: Compiled, s: SimState): boolean {
  if (c.goalFixture >= 0) return s.goalTouched;
  return c.goalItem >= 0 && c.fixtures.giving[c.goalItem]! > 0 && s.memory.left[c.goalItem] === 0;
}
