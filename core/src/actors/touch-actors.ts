import { ACTOR_NUMBERS, AT_X, AT_Y } from "../compiled/actor-memory.ts";
import { bodyIn } from "../compiled/body-in-cell.ts";
import type { Compiled } from "../compiled/compiled.ts";
import type { CompiledActor } from "../compiled/compiled-actor.ts";
import type { SimState } from "../compiled/state.ts";
import { hurt } from "../rooms/hurt.ts";
import { MEET, PLAYING } from "../world/vocabulary.ts";

/** Whether the walker's body overlaps an actor's, in the actor's room (semantics.md section 9, "Touch"). */
export function meets(c: Compiled, s: SimState, { height, left, number, room, top, width }: CompiledActor): boolean {
  if (s.room !== room) return false;
  const { numbers } = s.memory.actors!;
  const at = number * ACTOR_NUMBERS;
  return bodyIn(c, s.x - numbers[at + AT_X]! - left, s.y - numbers[at + AT_Y]! - top, width, height);
}

/**
 * The end of step 5: the actors of the room that the walker's body meets, in file order.
 * @returns whether a respawn has moved the walker
 */
export function touchActors(c: Compiled, s: SimState): boolean {
  const { all, bodies, ofRoom } = c.actors!;
  const here = ofRoom[s.room]!;
  const { met, numbers } = s.memory.actors!;
  const { bottom, left, right, top } = c.body;
  for (let i = 0; i < here.length; i++) {
    const number = here[i]!;
    const x = s.x - numbers[number * ACTOR_NUMBERS + AT_X]! - bodies[4 * number]!;
    const y = s.y - numbers[number * ACTOR_NUMBERS + AT_Y]! - bodies[4 * number + 1]!;
    const width = bodies[4 * number + 2]!;
    const height = bodies[4 * number + 3]!;
    // Nearly all are far away: the box round the body tells.
    const isFar = x + right < 0 || x + left > width || y + bottom < 0 || y + top > height;
    if (isFar || !bodyIn(c, x, y, width, height)) {
      met[number] = 0;
      continue;
    }
    if (met[number] === 1) continue;
    met[number] = 1;
    const subject = c.fixtures.all.length + number;
    s.emit(MEET, subject);
    if (!all[number]!.hurts) continue;
    hurt(c, s, subject);
    return s.status === PLAYING;
  }
  return false;
}
