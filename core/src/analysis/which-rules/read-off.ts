import { DOWN, LEFT, RIGHT, UP } from "../../world/keys.ts";
import type { Observed } from "./observed.ts";

/** What can be read off a game's walk without a simulation, in units and frames. */
export interface ReadOff {
  /** Steps of one frame along x and along y that were seen with one direction held, the most frequent first; without sign. */
  readonly stepsX: readonly number[];
  readonly stepsY: readonly number[];
  /** All steps along one axis, the most frequent first; without sign. */
  readonly steps: readonly number[];
  /** The longest of them. */
  readonly longest: readonly number[];
  /** Frames from one step to the next while the same keys were held. */
  readonly pauses: readonly number[];
  /** Pairs of neighbouring frames along one axis, with what that axis alone was told: speed before, speed after. */
  readonly speeds: readonly { readonly told: -1 | 0 | 1; readonly before: number; readonly after: number }[];
}

const HORIZONTAL = LEFT | RIGHT;
const VERTICAL = UP | DOWN;
const MOST = 12;

/** Reads off what a game's walk says by itself. */
export function readOff(all: readonly Observed[]): ReadOff {
  const counts = { x: new Map<number, number>(), y: new Map<number, number>(), any: new Map<number, number>() };
  const pauses = new Set<number>();
  const speeds: ReadOff["speeds"][number][] = [];
  const count = (map: Map<number, number>, step: number): void => void map.set(step, (map.get(step) ?? 0) + 1);
  for (const seen of all) {
    let since = 0;
    for (let frame = 1; frame <= seen.frames; frame++) {
      since = seen.keys[frame] === seen.keys[frame - 1] ? since + 1 : 0;
      const step = stepOf(seen, frame);
      if (step === null) continue;
      const [dx, dy] = step.map(Math.abs) as [number, number];
      const keys = seen.keys[frame]! & (HORIZONTAL | VERTICAL);
      if (dx > 0) count(counts.any, dx);
      if (dy > 0) count(counts.any, dy);
      if (dx > 0 && (keys === LEFT || keys === RIGHT)) count(counts.x, dx);
      if (dy > 0 && (keys === UP || keys === DOWN)) count(counts.y, dy);
      if (dx + dy > 0) {
        if (since > 0) pauses.add(since);
        since = 0;
      }
      const before = frame > 1 ? stepOf(seen, frame - 1) : [0, 0];
      if (before === null) continue;
      const told = [toldOf(keys, VERTICAL, LEFT, RIGHT), toldOf(keys, HORIZONTAL, UP, DOWN)];
      told.forEach((way, axis) => {
        if (way !== null) speeds.push({ told: way, before: before[axis]!, after: step[axis]! });
      });
    }
  }
  const most = (map: Map<number, number>): number[] =>
    [...map]
      .sort((a, b) => b[1] - a[1] || b[0] - a[0])
      .slice(0, MOST)
      .map(([step]) => step);
  return {
    stepsX: most(counts.x),
    stepsY: most(counts.y),
    steps: most(counts.any),
    longest: [...counts.any.keys()].sort((a, b) => b - a).slice(0, MOST),
    pauses: [...pauses].sort((a, b) => a - b),
    speeds,
  };
}

/** The way of one frame; null where it is not known, or led into another room. */
function stepOf({ known, room, x, y }: Observed, frame: number): readonly [number, number] | null {
  if (known[frame] === 0 || known[frame - 1] === 0 || room[frame] !== room[frame - 1]) return null;
  return [x[frame]! - x[frame - 1]!, y[frame]! - y[frame - 1]!];
}

/** What the keys tell an axis; null where it depends on how the keys are read. `across` are the other axis's keys. */
function toldOf(keys: number, across: number, less: number, more: number): -1 | 0 | 1 | null {
  const held = keys & (less | more);
  if (held === 0) return 0;
  if ((keys & across) !== 0 || held === (less | more)) return null;
  return held === less ? -1 : 1;
}
