import type { WanderFinding, WanderTask } from "@keen-pebble/core/analyse";
import type { PlainWorld } from "@keen-pebble/core/formats";
import { wanderSome } from "@keen-pebble/core/analyse";
import { fromPlain } from "@keen-pebble/core/formats";
import { compile } from "@keen-pebble/core/simulate";
import { workerData } from "piscina";

/** What the threads share. */
export interface WanderShared {
  readonly world: PlainWorld;
  readonly rules: string;
}

const { world, rules } = workerData as WanderShared;
const compiled = compile(fromPlain(world), rules);

/** Walks some times. */
export default function wander(task: WanderTask): WanderFinding[] {
  return wanderSome(compiled, task);
}
