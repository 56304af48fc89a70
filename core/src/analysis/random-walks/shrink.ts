import { DIRECTIONS } from "../../world/keys.ts";
import type { BrokenWalk, RandomWalker } from "./random-walks.ts";

/** A stretch of frames that hold the same keys. */
interface Stretch {
  readonly keys: number;
  readonly count: number;
}

/** Frames that may be walked yet; whoever walks takes from it, and never more than there is. */
export interface FrameBudget {
  left: number;
}

/** So many frames may be walked in search of a shorter walk, unless somebody allows more. */
export const SHRINK_FRAMES = 4_000_000;

/**
 * Looks for a shorter walk that breaks the same law: loops are cut out, then stretches are taken away alone and in
 * pairs, shortened, and their keys let go one by one, until nothing helps any more.
 * @param budget how many frames may be walked in all
 */
export function shrinkWalk(
  randomWalker: RandomWalker,
  walk: BrokenWalk,
  budget: FrameBudget = { left: SHRINK_FRAMES },
): BrokenWalk {
  return new Shrinking(randomWalker, walk, budget).result();
}

class Shrinking {
  private best: BrokenWalk;

  constructor(
    private readonly randomWalker: RandomWalker,
    walk: BrokenWalk,
    private readonly budget: FrameBudget,
  ) {
    this.best = walk;
  }

  result(): BrokenWalk {
    let before: number;
    do {
      before = this.cost();
      this.cutLoops();
      this.dropStretches();
      this.dropPairs();
      this.shorten();
      this.letGo();
    } while (this.cost() < before && this.budget.left > 0);
    return this.best;
  }

  /** Frames count first, then stretches, then keys. */
  private cost(): number {
    const stretches = stretchesOf(this.best.keys);
    return costOf(stretches);
  }

  /** Walks with these stretches; keeps them where the same law is broken at less cost. */
  private try(stretches: readonly Stretch[]): boolean {
    const keys = keysOf(stretches);
    if (!this.mayWalk(keys.length)) return false;
    const again = this.randomWalker.replay(keys);
    if (again === null || again.law !== this.best.law || costOf(stretchesOf(again.keys)) >= this.cost()) return false;
    this.best = again;
    return true;
  }

  /** Takes frames from the budget; once it cannot pay for a walk it is used up. */
  private mayWalk(frames: number): boolean {
    if (this.budget.left < frames) this.budget.left = 0;
    if (this.budget.left <= 0) return false;
    this.budget.left -= Math.max(1, frames);
    return true;
  }

  /** Where the walker is at the same place twice, what lies in between may be a detour; the longest first. */
  private cutLoops(): void {
    for (let again = true; again;) {
      again = false;
      const { keys } = this.best;
      if (!this.mayWalk(keys.length)) return;
      const places = this.randomWalker.places(keys);
      const last = new Map<string, number>();
      places.forEach((place, frame) => last.set(place, frame));
      const loops = places
        .flatMap((place, from) => (last.get(place)! > from ? [{ from, to: last.get(place)! }] : []))
        .sort((a, b) => b.to - b.from - (a.to - a.from));
      for (const { from, to } of loops.slice(0, MOST_LOOPS)) {
        const cut = new Uint8Array(keys.length - (to - from));
        cut.set(keys.subarray(0, from));
        cut.set(keys.subarray(to), from);
        if (this.try(stretchesOf(cut))) {
          again = true;
          break;
        }
      }
    }
  }

  /** Takes away rows of neighbouring stretches, half of them first, then ever fewer. */
  private dropStretches(): void {
    for (
      let size = Math.ceil(stretchesOf(this.best.keys).length / 2);
      size >= 1;
      size = size === 1 ? 0 : Math.ceil(size / 2)
    ) {
      for (let at = 0; at < stretchesOf(this.best.keys).length;) {
        const stretches = stretchesOf(this.best.keys);
        if (!this.try([...stretches.slice(0, at), ...stretches.slice(at + size)])) at += size;
      }
    }
  }

  /** There and back again: two stretches that only together can go. */
  private dropPairs(): void {
    if (stretchesOf(this.best.keys).length > MOST_FOR_PAIRS) return;
    for (let at = 0; at < stretchesOf(this.best.keys).length; at++) {
      for (let other = at + 1; other < stretchesOf(this.best.keys).length; other++) {
        const stretches = stretchesOf(this.best.keys);
        if (this.try(stretches.filter((_, i) => i !== at && i !== other))) other = at;
        // Opposite ones may be shortened by the same, too.
        else if (this.budget.left > 0) {
          const min = Math.min(stretches[at]!.count, stretches[other]!.count);
          for (let by = min; by >= 1; by = Math.floor(by / 2)) {
            if (
              this.try(
                stretches.map((each, i) => (i === at || i === other ? { ...each, count: each.count - by } : each)),
              )
            )
              break;
          }
        }
      }
    }
  }

  private shorten(): void {
    for (let at = 0; at < stretchesOf(this.best.keys).length; at++) {
      for (let by = Math.floor((stretchesOf(this.best.keys)[at]?.count ?? 0) / 2); by >= 1;) {
        const stretches = stretchesOf(this.best.keys);
        if (at >= stretches.length) return;
        if (
          stretches[at]!.count <= by ||
          !this.try(stretches.map((each, i) => (i === at ? { ...each, count: each.count - by } : each)))
        )
          by = Math.floor(by / 2);
      }
    }
  }

  /** Lets keys go one by one, in whole stretches; a stretch without keys may do as well as one with them. */
  private letGo(): void {
    for (let at = 0; at < stretchesOf(this.best.keys).length; at++) {
      for (let key = 1; key < 64; key <<= 1) {
        const stretches = stretchesOf(this.best.keys);
        const stretch = stretches[at];
        if (stretch === undefined || (stretch.keys & key) === 0) continue;
        this.try(stretches.map((each, i) => (i === at ? { ...each, keys: each.keys & ~key } : each)));
      }
    }
  }
}

const MOST_LOOPS = 400;
const MOST_FOR_PAIRS = 60;

function stretchesOf(keys: Uint8Array): Stretch[] {
  const stretches: Stretch[] = [];
  for (let from = 0, i = 1; i <= keys.length; i++) {
    if (i < keys.length && keys[i] === keys[from]) continue;
    stretches.push({ keys: keys[from]!, count: i - from });
    from = i;
  }
  return keys.length === 0 ? [] : stretches;
}

function keysOf(stretches: readonly Stretch[]): Uint8Array {
  const keys = new Uint8Array(stretches.reduce((sum, { count }) => sum + count, 0));
  let at = 0;
  for (const stretch of stretches) {
    keys.fill(stretch.keys, at, at + stretch.count);
    at += stretch.count;
  }
  return keys;
}

function costOf(stretches: readonly Stretch[]): number {
  let cost = 0;
  for (const { keys, count } of stretches)
    cost += count * 1000 + 100 + bits(keys & DIRECTIONS) * 2 + bits(keys & ~DIRECTIONS) * 3;
  return cost;
}

function bits(keys: number): number {
  let count = 0;
  for (let rest = keys; rest !== 0; rest &= rest - 1) count++;
  return count;
}
