import type { Verdict } from "@keen-pebble/core/check";
import type { LineScale } from "./line-scale.ts";
import { frameX, isOnLine } from "./line-scale.ts";

/** How far apart pebbles lie at least, in px. */
const APART_PX = 13;

/** Where a pebble lies on the line. */
export interface PebblePlace {
  /** Its middle, in px. */
  readonly left: number;
  /** Which of those at one place is seen: the largest. */
  readonly above: number;
  /** How many stand here, on the one that is seen of a closed stack; else 1. */
  readonly stands: number;
}

/**
 * Where the pebbles lie. Those of one frame are a stack with the one on top that says most: one that fails, then one that
 * was not reached. The stack of the frame `open` lies spread out to the left. Stacks of different frames keep apart.
 */
export function pebblePlaces(
  verdicts: readonly Pick<Verdict, "frame" | "verdict">[],
  scale: LineScale,
  open: number | null,
): readonly PebblePlace[] {
  const places: PebblePlace[] = verdicts.map(({ frame }) => ({ left: frameX(scale, frame), above: 0, stands: 1 }));
  const stacks = new Map<number, number[]>();
  verdicts.forEach(({ frame }, i) => {
    if (isOnLine(scale, frame)) stacks.set(frame, [...(stacks.get(frame) ?? []), i]);
  });
  const taken: number[] = [];
  const free = (from: number): number => {
    let x = from;
    while (taken.some((other) => Math.abs(other - x) < APART_PX)) x -= APART_PX;
    taken.push(x);
    return x;
  };
  for (const [frame, stack] of stacks) {
    const sorted = [...stack].sort((a, b) => SAYS_MOST[verdicts[b]!.verdict] - SAYS_MOST[verdicts[a]!.verdict]);
    const left = free(frameX(scale, frame));
    sorted.forEach((at, depth) => {
      const isSpread = frame === open && depth > 0;
      places[at] = {
        left: isSpread ? free(left) : left,
        above: sorted.length - depth,
        stands: depth === 0 && frame !== open ? sorted.length : 1,
      };
    });
  }
  return places;
}

const SAYS_MOST: Readonly<Record<Verdict["verdict"], number>> = { pass: 0, unreached: 1, fail: 2 };
