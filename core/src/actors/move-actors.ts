import type { ActorAccount } from "../compiled/account.ts";
import {
  ACTOR_NUMBERS,
  AT_X,
  AT_Y,
  CHOICES,
  FACING,
  GONE,
  LAST,
  LEG_X,
  LEG_Y,
  ON_PATH,
  PHASE,
  SPENT,
} from "../compiled/actor-memory.ts";
import type { Compiled } from "../compiled/compiled.ts";
import type { CompiledActor, CompiledPhase } from "../compiled/compiled-actor.ts";
import { AWAY, BACK, MOST_PHASES, PATH, ROUND, STAND, STOP, TOWARD, WANDER } from "../compiled/compiled-actor.ts";
import type { SimState } from "../compiled/state.ts";
import { DOOR } from "../ground/ground.ts";
import { occupiedX, occupiedY } from "../ground/occupied.ts";
import { facingOf } from "../world/facing.ts";

/** The four directions L, R, U, D; their numbers and 1 are what `LAST` holds. */
const DX = [-1, 1, 0, 0] as const;
const DY = [0, 0, -1, 1] as const;
const OPPOSITE = [1, 0, 3, 2] as const;
const NONE = -1;

/** Of each direction whether it is shut, open or left out at the moment of a choice, and how far the walker is from where it leads. */
const SHUT = 0;
const OPEN = 1;
const TURNS_BACK = 2;
const DIRECTION_STATES = ["shut", "open", "back"] as const;
const open = new Uint8Array(4);
const distance = new Int32Array(4);

/** Step 4a of a frame: the actors of the walker's room move (semantics.md section 9). Allocates nothing. */
export function moveActors(c: Compiled, s: SimState, account: ActorAccount[] | null): void {
  const here = c.actors!.ofRoom[s.room]!;
  const { numbers } = s.memory.actors!;
  for (let i = 0; i < here.length; i++) moveActor(c, s, here[i]!, numbers, account);
}

function moveActor(c: Compiled, s: SimState, actor: number, numbers: Int32Array, account: ActorAccount[] | null): void {
  const { all, frames, speeds } = c.actors!;
  const at = actor * ACTOR_NUMBERS;
  const lasts = frames[actor * MOST_PHASES + numbers[at + PHASE]!]!;
  if (lasts >= 0) {
    const spent = numbers[at + SPENT]!;
    if (spent < lasts) numbers[at + SPENT] = spent + 1;
    else nextPhase(c, actor, numbers);
  }
  let legX = numbers[at + LEG_X]!;
  let legY = numbers[at + LEG_Y]!;
  let gone = numbers[at + GONE]!;
  if (legX === 0 && legY === 0) {
    const chosen = choose(c, s, all[actor]!, account !== null);
    if (account !== null) account.push(accountOf(all[actor]!, numbers, chosen));
    if (chosen === NONE) return;
    legX = DX[chosen]!;
    legY = DY[chosen]!;
    gone = 0;
    numbers[at + LEG_X] = legX;
    numbers[at + LEG_Y] = legY;
    numbers[at + LAST] = chosen + 1;
    numbers[at + FACING] = facingOf(legX, legY);
  } else if (account !== null) account.push(accountOf(all[actor]!, numbers, null));
  const left = c.tileUnits - gone;
  const speed = speeds[actor]!;
  const by = speed < left ? speed : left;
  if (legX !== 0) numbers[at + AT_X] = numbers[at + AT_X]! + by * legX;
  else numbers[at + AT_Y] = numbers[at + AT_Y]! + by * legY;
  if (by < left) {
    numbers[at + GONE] = gone + by;
    return;
  }
  numbers[at + LEG_X] = 0;
  numbers[at + LEG_Y] = 0;
  numbers[at + GONE] = 0;
}

/** The phase is over: the next one begins, after the last the first, and has this frame. */
function nextPhase(c: Compiled, actor: number, numbers: Int32Array): void {
  const at = actor * ACTOR_NUMBERS;
  const phase = (numbers[at + PHASE]! + 1) % c.actors!.all[actor]!.plan.length;
  numbers[at + PHASE] = phase;
  numbers[at + SPENT] = c.actors!.frames[actor * MOST_PHASES + phase]! < 0 ? 0 : 1;
  numbers[at + ON_PATH] = 0;
}

/** The direction of the next leg, or `NONE`. @param told whether all that is open is to be left in `open` */
function choose(c: Compiled, s: SimState, actor: CompiledActor, told: boolean): number {
  const { numbers } = s.memory.actors!;
  const at = actor.number * ACTOR_NUMBERS;
  const phase = actor.plan[numbers[at + PHASE]!]!;
  const cx = numbers[at + AT_X]! / c.tileUnits;
  const cy = numbers[at + AT_Y]! / c.tileUnits;
  if (phase.does === STAND) return NONE;
  if (phase.does === PATH) {
    const way = alongPath(numbers, at, phase, cx, cy);
    if (told) lookRound(c, s, actor, cx, cy);
    return way === NONE || isShut(c, s, actor, cx + DX[way]!, cy + DY[way]!) ? NONE : way;
  }
  lookRound(c, s, actor, cx, cy);
  return amongOpen(c, s, actor, phase.does, cx, cy);
}

/** Which of the four directions are open from a cell. */
function lookRound(c: Compiled, s: SimState, actor: CompiledActor, cx: number, cy: number): void {
  for (let way = 0; way < 4; way++) open[way] = isShut(c, s, actor, cx + DX[way]!, cy + DY[way]!) ? SHUT : OPEN;
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

/** Whether a cell of its room is shut to an actor now; every side of the room is a wall to it. */
function isShut(c: Compiled, s: SimState, actor: CompiledActor, cx: number, cy: number): boolean {
  const { width, height } = c.rooms[actor.room]!;
  if (cx < 0 || cy < 0 || cx >= width || cy >= height) return true;
  const cell = cy * width + cx;
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
    framesLeft: phase.frames < 0 ? null : phase.frames - numbers[at + SPENT]!,
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
