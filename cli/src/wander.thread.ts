import type { PlainWorld, WanderFinding, WanderTask } from "@keen-pebble/core";
import { compile, fromPlain, wanderSome } from "@keen-pebble/core";
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
