import type { ActorMemory } from "./actor-memory.ts";
import type { Compiled } from "./compiled.ts";
import type { CarriedState } from "./state.ts";
import type { HeldMemory } from "./memory.ts";

/**
 * Whether two states of the same compiled world are in the same situation: given the same buttons, their runs go on
 * equally from here, however they came here. What follows from the rest is not looked at.
 */
export function sameSituation(c: Compiled, a: CarriedState, b: CarriedState): boolean {
  if (a.x !== b.x || a.y !== b.y || a.room !== b.room || a.status !== b.status || a.held !== b.held) return false;
  if (
    a.legX !== b.legX ||
    a.legY !== b.legY ||
    a.legProgress !== b.legProgress ||
    a.keepX !== b.keepX ||
    a.keepY !== b.keepY
  )
    return false;
  if (
    a.bufferedButton !== b.bufferedButton ||
    a.bufferedAge !== b.bufferedAge ||
    a.repeatAge !== b.repeatAge ||
    a.bumping !== b.bumping
  )
    return false;
  if (a.vx !== b.vx || a.vy !== b.vy || a.facing !== b.facing || a.pose !== b.pose || a.poseCounter !== b.poseCounter)
    return false;
  if (stillness(c, a) !== stillness(c, b)) return false;
  for (let button = 0; button < 4; button++) if (a.pressRank[button] !== b.pressRank[button]) return false;
  const one = a.memory;
  const other = b.memory;
  if (
    one.checkpoint !== other.checkpoint ||
    one.pushedCount !== other.pushedCount ||
    (c.countsLives && one.lives !== other.lives)
  )
    return false;
  if (one.startRoom !== other.startRoom || one.startX !== other.startX || one.startY !== other.startY) return false;
  for (let i = 0; i < one.pushedCount; i++) if (one.pushed[i] !== other.pushed[i]) return false;
  for (let i = 0; i < one.bag.length; i++) if (one.bag[i] !== other.bag[i]) return false;
  for (let i = 0; i < one.flags.length; i++) if (one.flags[i] !== other.flags[i]) return false;
  if (one.actors !== null && !(a.seed === b.seed && sameActors(one.actors, other.actors!))) return false;
  return one.held === null || sameHeld(one.held, other.held!);
}

/** A whole number of 32 bits that is the same for the same situation, and seldom for others. */
export function situationHash(c: Compiled, s: CarriedState): number {
  const { memory } = s;
  let hash = 0x811c9dc5;
  hash = mix(hash, s.x);
  hash = mix(hash, s.y);
  hash = mix(hash, (s.room << 8) | (s.status << 6) | s.held);
  hash = mix(
    hash,
    (s.legX + 1) |
      ((s.legY + 1) << 2) |
      ((s.keepX + 1) << 4) |
      ((s.keepY + 1) << 6) |
      ((s.bufferedButton + 1) << 8) |
      (Number(s.bumping) << 12) |
      (s.facing << 13),
  );
  hash = mix(hash, s.legProgress);
  hash = mix(hash, (s.bufferedAge << 16) | s.repeatAge);
  hash = mix(hash, s.vx);
  hash = mix(hash, s.vy);
  hash = mix(hash, s.poseCounter);
  hash = mix(hash, (s.pose << 16) | stillness(c, s));
  for (let button = 0; button < 4; button++) hash = mix(hash, s.pressRank[button]!);
  hash = mix(hash, memory.checkpoint);
  if (c.countsLives) hash = mix(hash, memory.lives);
  for (let i = 0; i < memory.pushedCount; i++) hash = mix(hash, memory.pushed[i]!);
  for (let i = 0; i < memory.bag.length; i++) hash = mix(hash, memory.bag[i]!);
  for (let i = 0; i < memory.flags.length; i++) hash = mix(hash, memory.flags[i]!);
  if (memory.actors !== null) {
    const { met, numbers } = memory.actors;
    hash = mix(hash, s.seed);
    for (let i = 0; i < numbers.length; i++) hash = mix(hash, numbers[i]!);
    for (let i = 0; i < met.length; i++) hash = mix(hash, met[i]!);
  }
  if (memory.held !== null) {
    for (let i = 0; i < memory.held.bag.length; i++) hash = mix(hash, memory.held.bag[i]!);
    for (let i = 0; i < memory.held.flags.length; i++) hash = mix(hash, memory.held.flags[i]!);
    for (let i = 0; i < memory.held.actors.length; i++) hash = mix(hash, memory.held.actors[i]!);
  }
  return (hash ^ (hash >>> 15)) >>> 0;
}

function sameActors(one: ActorMemory, other: ActorMemory): boolean {
  for (let i = 0; i < one.numbers.length; i++) if (one.numbers[i] !== other.numbers[i]) return false;
  for (let i = 0; i < one.met.length; i++) if (one.met[i] !== other.met[i]) return false;
  return true;
}

function sameHeld(one: HeldMemory, other: HeldMemory): boolean {
  for (let i = 0; i < one.bag.length; i++) if (one.bag[i] !== other.bag[i]) return false;
  for (let i = 0; i < one.flags.length; i++) if (one.flags[i] !== other.flags[i]) return false;
  for (let i = 0; i < one.actors.length; i++) if (one.actors[i] !== other.actors[i]) return false;
  return true;
}

/** Once the idle image shows, standing still for longer changes nothing. */
function stillness(c: Compiled, s: CarriedState): number {
  return Math.min(s.stillFrames, c.rules.pose.idleAfter);
}

function mix(hash: number, value: number): number {
  const mixed = Math.imul(hash ^ value, 0x9e3779b1);
  return mixed ^ (mixed >>> 13);
}
