import { logHolds } from "../checks/verdict.ts";
import type { Compiled } from "../compiled/compiled.ts";
import type { InputLog } from "../logs/input-log.ts";
import type { TraceRows } from "../simulation/trace.ts";
import type { World } from "../world/world.ts";
import { run } from "./run.ts";

/** What a log comes to over some seeds. */
export interface SeedTally {
  readonly held: number;
  /** The smallest seed with which it does not hold: the first check that fails, and in which frame; null where all hold. */
  readonly broken: { readonly seed: number; readonly check: string; readonly frame: number } | null;
}

/** Whether chance has to do with a run at all: it comes to a room in which something wanders. Any seed comes to the first such. */
export function isUpToChance(world: World, { room }: Pick<TraceRows, "room">): boolean {
  return world.rooms.some(
    ({ actors }, number) =>
      actors.some(({ plan }) => plan.some((phase) => phase.do === "wander")) && room.includes(number),
  );
}

/**
 * Runs a log with its checks and the world's laws over seeds, one after the other.
 * @param from the first seed; `count` of them, none beyond 32 bits
 * @throws {CoreError} as `run` does
 */
export function overSeeds(c: Compiled, log: InputLog, from: number, count: number): SeedTally {
  let held = 0;
  let broken: SeedTally["broken"] = null;
  for (let seed = from; seed < from + count; seed++) {
    const { verdicts } = run(c, { ...log, seed }, { checks: true });
    if (logHolds(verdicts)) held++;
    else if (broken === null) {
      const { check, frame } = verdicts.find(({ verdict }) => verdict !== "pass")!;
      broken = { seed, check, frame };
    }
  }
  return { held, broken };
}
