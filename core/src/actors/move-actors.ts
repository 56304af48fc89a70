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
import {
  AWAY,
  BACK,
  CLOSED_SHUT,
  DOORS_SHUT,
  PATH,
  ROUND,
  STAND,
  STOP,
  TOWARD,
  WANDER,
} from "../compiled/compiled-actor.ts";
import { doorIn } from "../compiled/door-in-cell.ts";
import type { SimState } from "../compiled/state.ts";
import { DOOR } from "../ground/ground.ts";
import { occupiedX, occupiedY } from "../ground/occupied.ts";
import { facingOf } from "../world/facing.ts";

/** The four directions L, R, U, D; their numbers and 1 are what `LAST` holds. */
const DX = [-1, 1, 0, 0] as const;
const DY = [0, 0, -1, 1] as const;
const OPPOSITE = [1, 0, 3, 2] as const;
const NONE = -1;

/** Directions that are open at the moment of a choice, and how far the walker is from where each leads. */
const open = new Uint8Array(4);
const distance = new Int32Array(4);

/** Step 4a of a frame: the actors of the walker's room move (semantics.md section 9). Allocates nothing. */
export function moveActors(c: Compiled, s: SimState, account: ActorAccount[] | null): void {
  const here = c.actors!.ofRoom[s.room]!;
  for (let i = 0; i < here.length; i++) moveActor(c, s, c.actors!.all[here[i]!]!, account);
}

function moveActor(c: Compiled, s: SimState, actor: CompiledActor, account: ActorAccount[] | null): void {
  const { numbers } = s.memory.actors!;
  const at = actor.number * ACTOR_NUMBERS;
  const spent = numbers[at + SPENT]!;
  let phase = actor.plan[numbers[at + PHASE]!]!;
  if (phase.frames >= 0 && spent >= phase.frames) {
    numbers[at + PHASE] = (numbers[at + PHASE]! + 1) % actor.plan.length;
    numbers[at + SPENT] = 0;
    numbers[at + ON_PATH] = 0;
    phase = actor.plan[numbers[at + PHASE]!]!;
  }
  if (phase.frames >= 0) numbers[at + SPENT]!++;
  const isFree = numbers[at + LEG_X] === 0 && numbers[at + LEG_Y] === 0;
  const chosen = isFree ? choose(c, s, actor, phase) : NONE;
  if (account !== null) account.push(accountOf(actor, numbers, isFree, phase, chosen));
  if (isFree) {
    if (chosen === NONE) return;
    numbers[at + LEG_X] = DX[chosen]!;
    numbers[at + LEG_Y] = DY[chosen]!;
    numbers[at + GONE] = 0;
    numbers[at + LAST] = chosen + 1;
    numbers[at + FACING] = facingOf(DX[chosen]!, DY[chosen]!);
  }
  const by = Math.min(actor.speed, c.tileUnits - numbers[at + GONE]!);
  numbers[at + AT_X]! += by * numbers[at + LEG_X]!;
  numbers[at + AT_Y]! += by * numbers[at + LEG_Y]!;
  numbers[at + GONE]! += by;
  if (numbers[at + GONE]! < c.tileUnits) return;
  numbers[at + LEG_X] = numbers[at + LEG_Y] = numbers[at + GONE] = 0;
}

/** The direction of the next leg, or `NONE`. Which ones are open is left in `open`. */
function choose(c: Compiled, s: SimState, actor: CompiledActor, phase: CompiledPhase): number {
  const { numbers } = s.memory.actors!;
  const at = actor.number * ACTOR_NUMBERS;
  const cx = numbers[at + AT_X]! / c.tileUnits;
  const cy = numbers[at + AT_Y]! / c.tileUnits;
  for (let way = 0; way < 4; way++) open[way] = isShut(c, s, actor, cx + DX[way]!, cy + DY[way]!) ? 0 : 1;
  switch (phase.does) {
    case STAND:
      return NONE;
    case PATH: {
      const way = alongPath(numbers, at, phase, cx, cy);
      return way === NONE || open[way] === 0 ? NONE : way;
    }
    default:
      return amongOpen(c, s, actor, phase.does, cx, cy);
  }
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
  if (actor.turnsBackLast && last > 0 && count > 1 && open[OPPOSITE[last - 1]!] === 1) {
    open[OPPOSITE[last - 1]!] = 0;
    count--;
  }
  const wanted = does === WANDER ? drawn(s.seed, actor.number, numbers[at + CHOICES]!) % count : 0;
  if (does === WANDER) numbers[at + CHOICES]!++;
  const toX = occupiedX(c.tileUnits, s.x);
  const toY = occupiedY(c.tileUnits, s.y);
  let best = NONE;
  for (let way = 0, nth = 0; way < 4; way++) {
    distance[way] = Math.abs(cx + DX[way]! - toX) + Math.abs(cy + DY[way]! - toY);
    if (open[way] === 0) continue;
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
export function isShut(c: Compiled, s: SimState, actor: CompiledActor, cx: number, cy: number): boolean {
  const { width, height } = c.rooms[actor.room]!;
  if (cx < 0 || cy < 0 || cx >= width || cy >= height) return true;
  const cell = cy * width + cx;
  if (actor.shutTiles[c.actors!.tiles[actor.room]![cell]!] === 1) return true;
  if (actor.doors === CLOSED_SHUT) return (s.ground.solid[actor.room]![cell]! & DOOR) !== 0;
  return actor.doors === DOORS_SHUT && doorIn(c, actor.room, cell) >= 0;
}

function accountOf(
  actor: CompiledActor,
  numbers: Int32Array,
  isFree: boolean,
  phase: CompiledPhase,
  chosen: number,
): ActorAccount {
  const at = actor.number * ACTOR_NUMBERS;
  const weighs = isFree && phase.does !== STAND;
  const place = numbers[at + ON_PATH]! >> 1;
  return {
    actor: actor.number,
    phase: numbers[at + PHASE]!,
    framesLeft: phase.frames < 0 ? null : phase.frames - numbers[at + SPENT]!,
    chose: isFree ? chosen : null,
    directions: !weighs
      ? []
      : [0, 1, 2, 3].map((way) => ({
          dx: DX[way]!,
          dy: DY[way]!,
          open: open[way] === 1,
          distance: phase.does === TOWARD || phase.does === AWAY ? distance[way]! : null,
        })),
    target: phase.does === PATH ? [phase.cells[2 * place]!, phase.cells[2 * place + 1]!] : null,
  };
}
