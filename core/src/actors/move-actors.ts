import type { ActorAccount } from "../compiled/account.ts";
import {
  ACTOR_NUMBERS,
  AT_X,
  AT_Y,
  CHOICES,
  FACING,
  FRAMES_LEFT,
  GONE,
  LAST,
  LEG,
  ON_PATH,
  PHASE,
} from "../compiled/actor-memory.ts";
import type { Compiled } from "../compiled/compiled.ts";
import type { CompiledActor, CompiledPhase } from "../compiled/compiled-actor.ts";
import { AWAY, BACK, MOST_PHASES, PATH, ROUND, STAND, STOP, TOWARD, WANDER } from "../compiled/compiled-actor.ts";
import type { SimState } from "../compiled/state.ts";
import { DOOR } from "../ground/ground.ts";
import { occupiedX, occupiedY } from "../ground/occupied.ts";
import { facingOf } from "../world/facing.ts";

/** The four directions L, R, U, D; their numbers and 1 are what `LEG` and `LAST` hold. */
export const DX = [-1, 1, 0, 0] as const;
export const DY = [0, 0, -1, 1] as const;
const OPPOSITE = [1, 0, 3, 2] as const;
const NONE = -1;
const NO_LEG = 0;

/** Of each direction whether it is shut, open or left out at the moment of a choice, and how far the walker is from where it leads. */
const SHUT = 0;
const OPEN = 1;
const TURNS_BACK = 2;
const DIRECTION_STATES = ["shut", "open", "back"] as const;
const open = new Uint8Array(4);
const distance = new Int32Array(4);

/** Step 4a of a frame: the actors of the walker's room move (semantics.md section 9). Allocates nothing. */
export function moveActors(c: Compiled, s: SimState, account: ActorAccount[] | null): void {
  const { does, firstOfRoom, speeds } = c.actors!;
  const { numbers } = s.memory.actors!;
  const { tileUnits } = c;
  const end = firstOfRoom[s.room + 1]!;
  // In most frames an actor is on a leg, or stands: those are done with here.
  for (let actor = firstOfRoom[s.room]!, at = actor * ACTOR_NUMBERS; actor < end; actor++, at += ACTOR_NUMBERS) {
    const framesLeft = numbers[at + FRAMES_LEFT]!;
    if (framesLeft > 0) numbers[at + FRAMES_LEFT] = framesLeft - 1;
    else if (framesLeft === 0) nextPhase(c, actor, numbers);
    if (numbers[at + LEG] === NO_LEG) {
      if (account === null && does[actor * MOST_PHASES + numbers[at + PHASE]!] === STAND) continue;
      if (!beginLeg(c, s, actor, account)) continue;
    } else if (account !== null) account.push(accountOf(c.actors!.all[actor]!, numbers, null));
    const leg = numbers[at + LEG]!;
    const left = tileUnits - numbers[at + GONE]!;
    const by = Math.min(speeds[actor]!, left);
    const axis = leg <= 2 ? AT_X : AT_Y;
    // L and U, 1 and 3, lead back along their axis.
    numbers[at + axis]! += (leg & 1) === 1 ? -by : by;
    if (by < left) numbers[at + GONE]! += by;
    else {
      numbers[at + LEG] = NO_LEG;
      numbers[at + GONE] = 0;
    }
  }
}

/** Without a leg it chooses the next one; false where it stands in this frame. */
function beginLeg(c: Compiled, s: SimState, actor: number, account: ActorAccount[] | null): boolean {
  const { numbers } = s.memory.actors!;
  const compiled = c.actors!.all[actor]!;
  const at = actor * ACTOR_NUMBERS;
  const chosen = choose(c, s, compiled);
  if (account !== null) account.push(accountOf(compiled, numbers, chosen));
  if (chosen === NONE) return false;
  numbers[at + LEG] = chosen + 1;
  numbers[at + LAST] = chosen + 1;
  numbers[at + FACING] = facingOf(DX[chosen]!, DY[chosen]!);
  return true;
}

/** The phase is over: the next one begins, after the last the first, and has this frame. */
function nextPhase(c: Compiled, actor: number, numbers: Int32Array): void {
  const at = actor * ACTOR_NUMBERS;
  const { plan } = c.actors!.all[actor]!;
  const phase = (numbers[at + PHASE]! + 1) % plan.length;
  const { frames } = plan[phase]!;
  numbers[at + PHASE] = phase;
  numbers[at + FRAMES_LEFT] = frames < 0 ? frames : frames - 1;
  numbers[at + ON_PATH] = 0;
}

/** The direction of the next leg, or `NONE`; what is open is left in `open`. */
function choose(c: Compiled, s: SimState, actor: CompiledActor): number {
  const { numbers } = s.memory.actors!;
  const at = actor.number * ACTOR_NUMBERS;
  const phase = actor.plan[numbers[at + PHASE]!]!;
  if (phase.does === STAND) return NONE;
  // It is exactly on a cell; as whole numbers, which is what they are, they are quicker.
  const cx = (numbers[at + AT_X]! / c.tileUnits) | 0;
  const cy = (numbers[at + AT_Y]! / c.tileUnits) | 0;
  lookRound(c, s, actor, cx, cy);
  if (phase.does !== PATH) return amongOpen(c, s, actor, phase.does, cx, cy);
  const way = alongPath(numbers, at, phase, cx, cy);
  return way === NONE || open[way] === SHUT ? NONE : way;
}

/** Which of the four directions are open from a cell; every side of the room is a wall. */
function lookRound(c: Compiled, s: SimState, actor: CompiledActor, cx: number, cy: number): void {
  const { height, width } = c.rooms[actor.room]!;
  const cell = cy * width + cx;
  open[0] = cx > 0 && !isShut(s, actor, cell - 1) ? OPEN : SHUT;
  open[1] = cx < width - 1 && !isShut(s, actor, cell + 1) ? OPEN : SHUT;
  open[2] = cy > 0 && !isShut(s, actor, cell - width) ? OPEN : SHUT;
  open[3] = cy < height - 1 && !isShut(s, actor, cell + width) ? OPEN : SHUT;
}

/** Where a path leads from a cell: the place goes on first where it is reached (semantics.md section 9, `path`). */
function alongPath(numbers: Int32Array, at: number, { cells, then }: CompiledPhase, cx: number, cy: number): number {
  const length = cells.length / 2;
  let place = numbers[at + ON_PATH]! >> 1;
  let isBack = (numbers[at + ON_PATH]! & 1) === 1;
  if (cells[2 * place] === cx && cells[2 * place + 1] === cy) {
    if (then === ROUND) place = (place + 1) % length;
    else if (then === STOP) place = Math.min(place + 1, length - 1);
    else if (then === BACK && length > 1) {
      if (isBack ? place === 0 : place === length - 1) isBack = !isBack;
      place += isBack ? -1 : 1;
    }
    numbers[at + ON_PATH] = place * 2 + (isBack ? 1 : 0);
  }
  const toX = cells[2 * place]!;
  const toY = cells[2 * place + 1]!;
  if (toX !== cx) return toX < cx ? 0 : 1;
  return toY === cy ? NONE : toY < cy ? 2 : 3;
}

/** Of the open directions one by chance, the nearest to the walker or the farthest from it; of equal ones the first. */
function amongOpen(c: Compiled, s: SimState, actor: CompiledActor, does: number, cx: number, cy: number): number {
  const { numbers } = s.memory.actors!;
  const at = actor.number * ACTOR_NUMBERS;
  let count = open[0]! + open[1]! + open[2]! + open[3]!;
  if (count === 0) return NONE;
  const last = numbers[at + LAST]!;
  if (actor.turnsBackLast && last > 0 && count > 1 && open[OPPOSITE[last - 1]!] === OPEN) {
    open[OPPOSITE[last - 1]!] = TURNS_BACK;
    count--;
  }
  const wanted = does === WANDER ? drawn(s.seed, actor.number, numbers[at + CHOICES]!) % count : 0;
  if (does === WANDER) numbers[at + CHOICES]!++;
  const toX = occupiedX(c.tileUnits, s.x);
  const toY = occupiedY(c.tileUnits, s.y);
  let best = NONE;
  for (let way = 0, nth = 0; way < 4; way++) {
    if (open[way] !== OPEN) continue;
    distance[way] = Math.abs(cx + DX[way]! - toX) + Math.abs(cy + DY[way]! - toY);
    if (does === WANDER) {
      if (nth++ === wanted) best = way;
    } else if (best === NONE) best = way;
    else if (does === TOWARD && distance[way]! < distance[best]!) best = way;
    else if (does === AWAY && distance[way]! > distance[best]!) best = way;
  }
  return best;
}

/** The number that chance gives an actor for a choice, of 32 bits (semantics.md section 9, `wander`). */
function drawn(seed: number, actor: number, choices: number): number {
  let h = (Math.imul(seed, 0x9e3779b1) + Math.imul(actor, 0x85ebca77) + Math.imul(choices, 0xc2b2ae3d)) >>> 0;
  h ^= h >>> 16;
  h = Math.imul(h, 0x7feb352d);
  h ^= h >>> 15;
  h = Math.imul(h, 0x846ca68b);
  h ^= h >>> 16;
  return h >>> 0;
}

/** Whether a cell of its room is shut to an actor now. */
function isShut(s: SimState, actor: CompiledActor, cell: number): boolean {
  if (actor.shut[cell] === 1) return true;
  return actor.closedDoorsShut && (s.ground.solid[actor.room]![cell]! & DOOR) !== 0;
}

/** @param chose null where it was on a leg */
function accountOf(actor: CompiledActor, numbers: Int32Array, chose: number | null): ActorAccount {
  const at = actor.number * ACTOR_NUMBERS;
  const phase = actor.plan[numbers[at + PHASE]!]!;
  const place = numbers[at + ON_PATH]! >> 1;
  return {
    actor: actor.number,
    phase: numbers[at + PHASE]!,
    framesLeft: phase.frames < 0 ? null : numbers[at + FRAMES_LEFT]!,
    chose,
    directions:
      chose === null || phase.does === STAND
        ? []
        : [0, 1, 2, 3].map((way) => ({
            dx: DX[way]!,
            dy: DY[way]!,
            is: DIRECTION_STATES[open[way]!]!,
            distance: open[way] === OPEN && (phase.does === TOWARD || phase.does === AWAY) ? distance[way]! : null,
          })),
    target: phase.does === PATH ? [phase.cells[2 * place]!, phase.cells[2 * place + 1]!] : null,
  };
}
