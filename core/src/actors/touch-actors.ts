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
  const { bodies, firstOfRoom } = c.actors!;
  const { met, numbers } = s.memory.actors!;
  const { bottom, left, right, top } = c.body;
  const fromX = s.x + left;
  const toX = s.x + right;
  const fromY = s.y + top;
  const toY = s.y + bottom;
  const end = firstOfRoom[s.room + 1]!;
  for (let number = firstOfRoom[s.room]!; number < end; number++) {
    // Nearly all are far away, by the box round the body.
    const at = number * ACTOR_NUMBERS;
    const x = numbers[at + AT_X]! + bodies[4 * number]!;
    const y = numbers[at + AT_Y]! + bodies[4 * number + 1]!;
    const isFar = toX < x || fromX > x + bodies[4 * number + 2]! || toY < y || fromY > y + bodies[4 * number + 3]!;
    if (isFar || !bodyIn(c, s.x - x, s.y - y, bodies[4 * number + 2], bodies[4 * number + 3])) met[number] = 0;
    else if (met[number] === 0 && meet(c, s, number)) return s.status === PLAYING;
  }
  return false;
}

/** @returns whether the walker is hurt, which ends the touches of the frame */
function meet(c: Compiled, s: SimState, number: number): boolean {
  s.memory.actors!.met[number] = 1;
  const subject = c.fixtures.all.length + number;
  s.emit(MEET, subject);
  const { hurts } = c.actors!.all[number]!;
  if (hurts) hurt(c, s, subject);
  return hurts;
}
