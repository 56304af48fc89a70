import type { Compiled } from "../../compiled/compiled.ts";
import { doorIn } from "../../compiled/door-in-cell.ts";
import type { SimState } from "../../compiled/state.ts";
import { resolveCell, resolved } from "../../ground/ground.ts";
import { occupiedX, occupiedY } from "../../ground/occupied.ts";
import type { LogLine } from "../../logs/input-log.ts";
import { buttonsAlong } from "../../movement/intent.ts";
import { step } from "../../simulation/step.ts";
import { UNITS_PER_PX } from "../../base/units.ts";
import { USE } from "../../world/keys.ts";
import { PLAYING } from "../../world/vocabulary.ts";
import type { Way } from "./answer.ts";
import { opensByHand } from "./state-layout.ts";

/** The eight directions; with four ways the first four. */
export const DIRECTION_X = [-1, 1, 0, 0, -1, 1, -1, 1] as const;
export const DIRECTION_Y = [0, 0, -1, 1, -1, -1, 1, 1] as const;

/** Actions of the search (semantics.md section 10): 0 to 7 go, 8 to 11 use what stands there, 12 waits. */
export const USE_LEFT = 8;
export const WAIT = 12;

/** The actions of a rule set besides uses, in the order in which they are tried. */
export function goings(c: Compiled): readonly number[] {
  return [0, 1, 2, 3, ...(c.rules.input.ways === 8 ? [4, 5, 6, 7] : []), WAIT];
}

/** What an action holds in its first frame. */
export function keysOf(action: number): number {
  if (action === WAIT) return 0;
  const way = action < USE_LEFT ? action : action - USE_LEFT;
  return buttonsAlong(DIRECTION_X[way]!, DIRECTION_Y[way]!) | (action < USE_LEFT ? 0 : USE);
}

/** Whether a closed door that is opened by using it, or may be, is the walker's neighbour that way, also through a seam. */
export function canUse(c: Compiled, s: SimState, way: number): boolean {
  const cx = occupiedX(c.tileUnits, s.x) + DIRECTION_X[way]!;
  const cy = occupiedY(c.tileUnits, s.y) + DIRECTION_Y[way]!;
  if (!resolveCell(s.ground, s.room, cx, cy)) return false;
  const door = doorIn(c, resolved.room, resolved.cell);
  if (door < 0 || s.memory.open[door] === 1) return false;
  const fixture = c.fixtures.all[door]!;
  return fixture.opensOnUse && opensByHand(fixture);
}

/**
 * Plays an action from a choice moment to the next one: its keys for a frame, for hop and uses one without, then none
 * until no leg is under way.
 * @param seen told of each frame after it was played
 * @returns how many frames it took; fewer where the run has ended
 */
export function perform(c: Compiled, s: SimState, action: number, seen: (s: SimState) => void): number {
  const pauses = c.rules.gait === "hop" || action >= USE_LEFT;
  // Where facing follows the pointer, what is used is pointed at.
  const points = action >= USE_LEFT && action !== WAIT && c.rules.facing.source === "pointer";
  if (points) {
    const way = action - USE_LEFT;
    s.hasPointer = true;
    s.pointerX = (occupiedX(c.tileUnits, s.x) + DIRECTION_X[way]!) * c.tileUnits + c.tileUnits / 2;
    s.pointerY = (occupiedY(c.tileUnits, s.y) + DIRECTION_Y[way]!) * c.tileUnits + c.tileUnits / 2;
  } else s.hasPointer = false;
  step(c, s, keysOf(action), null);
  seen(s);
  s.hasPointer = false;
  let frames = 1;
  if (action !== WAIT && pauses && s.status === PLAYING) {
    step(c, s, 0, null);
    seen(s);
    frames++;
  }
  while (s.status === PLAYING && (s.legX !== 0 || s.legY !== 0)) {
    step(c, s, 0, null);
    seen(s);
    frames++;
  }
  return frames;
}

/**
 * The way of some actions, from a state that is changed as they are played.
 * @param play plays one of them as `perform` does
 */
export function wayOf(
  c: Compiled,
  s: SimState,
  actions: readonly number[],
  play = (action: number): number => perform(c, s, action, () => undefined),
): Way {
  const lines: LogLine[] = [];
  const ends: number[] = [];
  let frame = 0;
  for (const action of actions) {
    const { x, y } = s;
    const frames = play(action);
    frame += frames;
    ends.push(frame);
    const points = action >= USE_LEFT && action !== WAIT && c.rules.facing.source === "pointer";
    const way = action - USE_LEFT;
    const pointer = points
      ? {
          x: ((occupiedX(c.tileUnits, x) + DIRECTION_X[way]!) * c.tileUnits + c.tileUnits / 2) / UNITS_PER_PX,
          y: ((occupiedY(c.tileUnits, y) + DIRECTION_Y[way]!) * c.tileUnits + c.tileUnits / 2) / UNITS_PER_PX,
        }
      : null;
    lines.push({ kind: "keys", count: 1, keys: keysOf(action), pointer, until: null });
    if (frames > 1) lines.push({ kind: "keys", count: frames - 1, keys: 0, pointer: null, until: null });
  }
  return { moves: actions.length, ends, lines };
}
