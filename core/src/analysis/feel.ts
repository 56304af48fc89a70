import { wholeRoot } from "../base/root.ts";
import { gapTowards, overlapDepth } from "../movement/gaps.ts";
import { DOWN, LEFT, RIGHT, UP } from "../world/keys.ts";
import { X } from "../ground/sweep.ts";
import { isFree } from "../ground/free.ts";
import { occupiedX, occupiedY } from "../ground/occupied.ts";
import type { Compiled } from "../compiled/compiled.ts";
import { startState } from "../simulation/start-state.ts";
import type { SimState } from "../compiled/state.ts";
import { PLAYING } from "../world/vocabulary.ts";
import { step } from "../simulation/step.ts";
import type { Rules } from "../world/world.ts";
import { feelGround } from "./feel-ground.ts";

/** How a rule set feels, each number measured by running it on a ground made for it. Lengths in units. */
export interface Feel {
  /** Frames from a press to the first frame that moves; null where none does. */
  readonly framesToMove: number | null;
  /** Frames for a cell at full speed, in hundredths; null where the walker does not get along. */
  readonly framesPerCell: number | null;
  /** Units a frame at full speed, to the right, left, up, down. */
  readonly straight: readonly [number, number, number, number];
  /** Units a frame at full speed with right and down held. */
  readonly diagonal: number;
  /** Frames and units from letting go to standing still; null where it does not stand still. */
  readonly framesToStop: number | null;
  readonly unitsToStop: number | null;
  /** Units left between the body and a wall that it was held against; less than 0: so deep in it. Null: it went through, or nothing blocks it. */
  readonly gapAtWall: number | null;
  /** Of the turns pressed 10 frames early to 10 late, one for each frame: those that were missed, and which. */
  readonly turns: readonly { readonly late: number; readonly taken: boolean }[];
  /** Units moved in each frame: a key held for half of them, then let go. */
  readonly speeds: readonly number[];
}

/** Frames of a held key after which every gait goes at full speed, and for which it is measured then. */
const RUN_UP = 240;
const MEASURED = 240;
const MOST_TO_STOP = 600;
const CHART_FRAMES = 60;
const TURN_FRAMES = 10;
const TAP = 4;

const OPEN = [
  "................",
  "................",
  "................",
  "S...............",
  "................",
  "................",
  "................",
  "................",
  "................",
  "................",
  "................",
  "................",
  "................",
  "................",
  "................",
  "................",
];
const WALL = ["S.........#"];
const TURN = [
  "###############",
  "S..............",
  "##########.####",
  "##########.####",
  "##########.####",
  "##########.####",
];

/**
 * Measures how a rule set feels by running it on built-in grounds, never by formula.
 * @param tileSize px per cell side
 */
export function measureFeel(rules: Rules, tileSize: number): Feel {
  const open = feelGround(rules, tileSize, OPEN, "wrap");
  const straight = [RIGHT, LEFT, UP, DOWN].map((keys) => fullSpeed(open, keys)) as unknown as Feel["straight"];
  return {
    framesToMove: framesToMove(open),
    framesPerCell: straight[0] === 0 ? null : Math.round((open.tileUnits * 100) / straight[0]),
    straight,
    diagonal: fullSpeed(open, RIGHT | DOWN),
    ...stopping(open),
    gapAtWall: gapAtWall(feelGround(rules, tileSize, WALL, "wall")),
    turns: turnsTaken(feelGround(rules, tileSize, TURN, "wall")),
    speeds: speedsOver(open),
  };
}

/** Units that a frame moved along each axis, seams looked through: no step is as long as half the open ground. */
function moved(c: Compiled, s: SimState): readonly [number, number] {
  const room = c.rooms[s.room]!;
  return [through(s.x - s.previousX, room.unitsAcross), through(s.y - s.previousY, room.unitsDown)];
}

function through(by: number, size: number): number {
  return by > size / 2 ? by - size : by < -size / 2 ? by + size : by;
}

function framesToMove(c: Compiled): number | null {
  const s = startState(c);
  for (let frame = 1; frame <= RUN_UP; frame++) {
    step(c, s, RIGHT, null);
    if (s.x !== s.previousX) return frame;
  }
  return null;
}

function fullSpeed(c: Compiled, keys: number): number {
  const s = startState(c);
  for (let i = 0; i < RUN_UP; i++) step(c, s, keys, null);
  let [x, y] = [0, 0];
  for (let i = 0; i < MEASURED; i++) {
    step(c, s, keys, null);
    const [dx, dy] = moved(c, s);
    x += dx;
    y += dy;
  }
  return Math.round(wholeRoot(x * x + y * y) / MEASURED);
}

function stopping(c: Compiled): Pick<Feel, "framesToStop" | "unitsToStop"> {
  const s = startState(c);
  for (let i = 0; i < RUN_UP; i++) step(c, s, RIGHT, null);
  let units = 0;
  let last = 0;
  for (let frame = 1; frame <= MOST_TO_STOP; frame++) {
    step(c, s, 0, null);
    const [dx, dy] = moved(c, s);
    units += dx;
    if (dx !== 0 || dy !== 0) last = frame;
    else if (frame - last > RUN_UP / 4) return { framesToStop: last, unitsToStop: units };
  }
  return { framesToStop: null, unitsToStop: null };
}

function gapAtWall(c: Compiled): number | null {
  if (c.rules.walker.blockedBy.length === 0) return null;
  const s = startState(c);
  for (let i = 0; i < 4 * RUN_UP && s.status === PLAYING; i++) step(c, s, RIGHT, null);
  if (!isFree(s.ground, s.room, s.x, s.y)) return -overlapDepth(s.ground, s.room, s.x, s.y);
  return gapTowards(s.ground, s.room, s.x, s.y, X, 1);
}

/** Goes along a corridor and taps aside a few frames before or after the opening: is the turn taken? */
function turnsTaken(c: Compiled): Feel["turns"] {
  const opening = 10 * c.tileUnits;
  const probe = startState(c);
  let arrives = 0;
  while (arrives < 4 * RUN_UP && probe.x < opening && probe.status === PLAYING) {
    step(c, probe, RIGHT, null);
    arrives++;
  }
  return Array.from({ length: 2 * TURN_FRAMES + 1 }, (_, i) => {
    const late = i - TURN_FRAMES;
    const s = startState(c);
    const press = arrives + 1 + late;
    let taken = false;
    for (let frame = 1; frame <= arrives + 4 * TURN_FRAMES + TAP && s.status === PLAYING; frame++) {
      step(c, s, frame >= press && frame < press + TAP ? RIGHT | DOWN : RIGHT, null);
      if (occupiedY(c.tileUnits, s.y) > 1 && occupiedX(c.tileUnits, s.x) === 10) taken = true;
    }
    return { late, taken };
  });
}

function speedsOver(c: Compiled): number[] {
  const s = startState(c);
  return Array.from({ length: CHART_FRAMES }, (_, i) => {
    step(c, s, i < CHART_FRAMES / 2 ? RIGHT : 0, null);
    const [dx, dy] = moved(c, s);
    return wholeRoot(dx * dx + dy * dy);
  });
}
