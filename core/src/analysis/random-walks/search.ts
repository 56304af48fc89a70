import type { InputLog } from "../../logs/input-log.ts";
import type { Compiled } from "../../compiled/compiled.ts";
import { shrinkWalk } from "./shrink.ts";
import type { BrokenWalk } from "./random-walks.ts";
import { RandomWalker, walkLog } from "./random-walks.ts";

/** Some walks by neighbouring seeds: what one worker does at a time. */
export interface RandomWalkTask {
  readonly seed: number;
  readonly runs: number;
  /** How long each is at the most. */
  readonly frames: number;
}

/** A law that a walk broke, with the shortest log that was found to show it. */
export interface RandomWalkFinding {
  /** Seed of the walk. */
  readonly seed: number;
  readonly law: string;
  /** The frame of the log that shows it, and the one of the walk as it was. */
  readonly frame: number;
  readonly foundAt: number;
  readonly log: InputLog;
}

/**
 * Walks some times, and shrinks what breaks a law: the first walk for each law.
 * @param known laws that need not be found again
 * @throws {CoreError} where the world's start is nowhere
 */
export function takeRandomWalks(
  c: Compiled,
  { seed, runs, frames }: RandomWalkTask,
  known: ReadonlySet<string> = new Set(),
): RandomWalkFinding[] {
  const randomWalker = new RandomWalker(c);
  const found = new Map<string, RandomWalkFinding>();
  for (let i = 0; i < runs; i++) {
    const walk = randomWalker.walk(seed + i, frames);
    if (walk === null || known.has(walk.law.name) || found.has(walk.law.name)) continue;
    const short = shorter(randomWalker, shrinkWalk(randomWalker, walk), seed + i);
    found.set(walk.law.name, {
      seed: seed + i,
      law: walk.law.name,
      frame: short.frame,
      foundAt: walk.frame,
      log: walkLog(c, short, seed + i),
    });
  }
  return [...found.values()];
}

/** A log of so few frames is short enough to be looked at; a longer one may only be a long way round. */
const SHORT = 40;
const MORE_FRAMES = 6_000_000;

/** Walks again and again, never longer than the shortest walk so far that breaks the law, until one is short or enough was walked. */
function shorter(randomWalker: RandomWalker, walk: BrokenWalk, seed: number): BrokenWalk {
  let best = walk;
  let next = seed;
  for (const budget = { left: MORE_FRAMES }; budget.left >= best.frame && best.frame > SHORT;) {
    next = (next + 1) | 0;
    budget.left -= best.frame;
    const other = randomWalker.walk(next, best.frame - 1);
    if (other === null || other.law !== best.law) continue;
    best = shrinkWalk(randomWalker, other, budget);
  }
  return best;
}

/** Parts walks into tasks of some thousand frames, so that progress shows and a search can be called off. */
export function randomWalkTasks({ seed, runs, frames }: RandomWalkTask): RandomWalkTask[] {
  const each = Math.max(1, Math.floor(TASK_FRAMES / Math.max(1, frames)));
  const tasks: RandomWalkTask[] = [];
  for (let done = 0; done < runs; done += each)
    tasks.push({ seed: seed + done, runs: Math.min(each, runs - done), frames });
  return tasks;
}

const TASK_FRAMES = 60_000;

/** Of the findings for one law the shortest, by law; among equals the one of the smaller seed. */
export function shortestFindings(findings: readonly RandomWalkFinding[]): RandomWalkFinding[] {
  const best = new Map<string, RandomWalkFinding>();
  for (const finding of findings) {
    const before = best.get(finding.law);
    if (
      before === undefined ||
      finding.frame < before.frame ||
      (finding.frame === before.frame && finding.seed < before.seed)
    )
      best.set(finding.law, finding);
  }
  return [...best.values()].sort((a, b) => (a.law < b.law ? -1 : 1));
}
