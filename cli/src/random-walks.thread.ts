import type { RandomWalkFinding, RandomWalkTask } from "@keen-pebble/core/analyse";
import type { PlainWorld } from "@keen-pebble/core/formats";
import { takeRandomWalks } from "@keen-pebble/core/analyse";
import { fromPlain } from "@keen-pebble/core/formats";
import { compile } from "@keen-pebble/core/simulate";
import { workerData } from "piscina";

/** What the threads share. */
export interface RandomWalksShared {
  readonly world: PlainWorld;
  readonly rules: string;
}

const { world, rules } = workerData as RandomWalksShared;
const compiled = compile(fromPlain(world), rules);

/** Walks some times. */
export default function randomWalks(task: RandomWalkTask): RandomWalkFinding[] {
  return takeRandomWalks(compiled, task);
}
