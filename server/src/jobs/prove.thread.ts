import { judgeReach } from "@keen-pebble/core/analyse";
import type { Proof, ReachRuling } from "@keen-pebble/core/check";
import { Prover, parseCheck, readLog } from "@keen-pebble/core/check";
import { readWorld } from "@keen-pebble/core/reading";
import { traceHash } from "../services/content-hash.ts";

/** The reach checks of a world as text, to be judged over all play. */
export interface JudgeTask {
  readonly judge: string;
  /** Where more states would have to be looked at, checks are open. */
  readonly states: number;
}

/** What a thread is to do: logs as texts in a world as text, told apart by its hash. */
export interface ProveTask {
  readonly worldHash: string;
  readonly world: string;
  readonly logs: readonly string[];
  /** Only this check instead of the logs' own ones; of the world's laws only the one that it is. */
  readonly check?: string;
  /** Only these of the logs' own checks; the accepted walk is compared along with the first of them. */
  readonly checks?: { readonly from: number; readonly to: number };
}

const MOST_KEPT = 4;
/** By hash of the world, the one used last at the end. */
const provers = new Map<string, Prover>();

function proverOf({ worldHash, world }: ProveTask): Prover {
  const prover = provers.get(worldHash) ?? new Prover(readWorld(world, "a stored world"), traceHash);
  provers.delete(worldHash);
  provers.set(worldHash, prover);
  for (const hash of provers.keys()) if (provers.size > MOST_KEPT) provers.delete(hash);
  return prover;
}

/** Proves logs, in order; or judges a world's reach checks. */
export default function work(task: ProveTask | JudgeTask): Proof[] | ReachRuling[] {
  return "judge" in task ? judged(task) : prove(task);
}

function judged({ judge, states }: JudgeTask): ReachRuling[] {
  const world = readWorld(judge, "a stored world");
  if (world.reachChecks.length === 0) return [];
  return judgeReach(world, states).map(({ check, verdict, seen }) => ({ check, verdict, seen }));
}

function prove(task: ProveTask): Proof[] {
  const prover = proverOf(task);
  const { check, checks: some } = task;
  if (some !== undefined) {
    return task.logs.map((text) => {
      const log = readLog(text);
      return prover.prove({
        ...log,
        accept: some.from === 0 ? log.accept : null,
        checks: log.checks.slice(some.from, some.to),
      });
    });
  }
  if (check === undefined) return task.logs.map((log) => prover.prove(log));
  const parsed = parseCheck(check.split(" "));
  return task.logs.map((text) => {
    const log = readLog(text);
    const proof = prover.prove({ ...log, accept: null, checks: "check" in parsed ? [parsed.check] : [] });
    // The world's laws and an `until` that ran out are checked along, and not asked for.
    const checks = proof.checks.filter((verdict) => verdict.check === check);
    return { ...proof, checks, holds: proof.refused === null && checks.every(({ verdict }) => verdict === "pass") };
  });
}
