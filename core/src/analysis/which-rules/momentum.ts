import type { ReadOff } from "./read-off.ts";

/** What an axis's speed does under drift: units a frame more each frame, and the part of 256 that the ground takes. */
export interface Momentum {
  readonly accel: number;
  readonly drag: number;
}

const KEPT_DRAGS = 24;
const KEPT = 48;

/** The accelerations and drags that explain most of the seen changes of speed, the best first. */
export function likelyMomentum({ speeds }: ReadOff): readonly Momentum[] {
  const free = speeds.filter(({ told, before }) => told === 0 && before !== 0);
  const pushed = speeds.filter(({ told, before, after }) => told !== 0 && before !== after);
  const drags = best(
    Array.from({ length: 257 }, (_, drag) => drag),
    (drag) => free.filter(({ before, after }) => speedAfter(before, 0, drag) === after).length,
    KEPT_DRAGS,
  );
  const all = drags.flatMap((drag) => {
    const accels = new Set(pushed.slice(0, 200).flatMap((each) => accelsFrom(each, drag)));
    const explained = (accel: number): number =>
      pushed.filter(({ told, before, after }) => speedAfter(before, told * accel, drag) === after).length;
    return best([...accels], explained, KEPT).map((accel) => ({ accel, drag, explained: explained(accel) }));
  });
  return all.sort((a, b) => b.explained - a.explained).slice(0, KEPT);
}

/** As `drift` does it (semantics.md section 4.4), without a greatest speed. */
function speedAfter(before: number, push: number, drag: number): number {
  return Math.trunc(((before + push) * (256 - drag)) / 256) + 0;
}

/** The accelerations that may have led from one speed to the next. */
function accelsFrom({ told, before, after }: ReadOff["speeds"][number], drag: number): readonly number[] {
  if (drag === 256) return [];
  const about = Math.round((after * 256) / (256 - drag) - before) * told;
  return [-3, -2, -1, 0, 1, 2, 3].map((more) => about + more).filter((accel) => accel >= 1);
}

function best<T>(all: readonly T[], score: (each: T) => number, kept: number): readonly T[] {
  return all
    .map((each) => [each, score(each)] as const)
    .sort((a, b) => b[1] - a[1])
    .slice(0, kept)
    .map(([each]) => each);
}
