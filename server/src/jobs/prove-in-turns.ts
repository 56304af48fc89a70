import type { Proof } from "@keen-pebble/core/check";
import { logHolds } from "@keen-pebble/core/check";
import type { ProvePool } from "./prove-pool.ts";
import type { ProveTask } from "./prove.thread.ts";

/** A log with more checks is proven some of its checks at a time, so that a thread is free for others in between. */
const CHECKS_OF_TURN = 100;

/**
 * Proves logs with all their checks, a log with very many of them in several turns of a thread: others that wait for one
 * come in between.
 */
export async function proveInTurns(pool: ProvePool, task: ProveTask, signal: AbortSignal): Promise<Proof[]> {
  const proofs: Proof[] = [];
  const few = task.logs.filter((log) => checksOf(log) <= CHECKS_OF_TURN);
  const together = few.length === 0 ? [] : await pool.prove({ ...task, logs: few }, signal);
  for (const log of task.logs) {
    const checks = checksOf(log);
    if (checks <= CHECKS_OF_TURN) {
      proofs.push(together.shift()!);
      continue;
    }
    const turns: Proof[] = [];
    for (let from = 0; from < checks; from += CHECKS_OF_TURN) {
      const [proof] = await pool.prove(
        { ...task, logs: [log], checks: { from, to: Math.min(from + CHECKS_OF_TURN, checks) } },
        signal,
      );
      turns.push(proof!);
      if (proof!.refused !== null) break;
    }
    proofs.push(joined(turns));
  }
  return proofs;
}

/** Lines of checks in a log's header. */
function checksOf(log: string): number {
  const end = log.indexOf("\n---\n");
  let checks = 0;
  for (let at = log.indexOf("\ncheck "); at >= 0 && at < end; at = log.indexOf("\ncheck ", at + 1)) checks++;
  return checks;
}

/** One proof of the turns' ones: own checks in order, then the laws and an `until` that ran out, which each turn has again. */
function joined(turns: readonly Proof[]): Proof {
  const first = turns[0]!;
  if (turns.some((turn) => turn.refused !== null)) return turns.find((turn) => turn.refused !== null)!;
  const checks = [
    ...turns.slice(0, -1).flatMap((turn) => turn.checks.slice(0, CHECKS_OF_TURN)),
    ...turns.at(-1)!.checks,
  ];
  return { ...first, checks, holds: logHolds(checks) };
}
