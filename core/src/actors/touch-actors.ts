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
  const here = c.actors!.ofRoom[s.room]!;
  const { met } = s.memory.actors!;
  for (let i = 0; i < here.length; i++) {
    const actor = c.actors!.all[here[i]!]!;
    if (!meets(c, s, actor)) {
      met[actor.number] = 0;
      continue;
    }
    if (met[actor.number] === 1) continue;
    met[actor.number] = 1;
    const subject = c.fixtures.all.length + actor.number;
    s.emit(MEET, subject);
    if (!actor.hurts) continue;
    hurt(c, s, subject);
    return s.status === PLAYING;
  }
  return false;
}
