import type { InputLog, Proof } from "@keen-pebble/core/check";
import type { PlainWorld } from "@keen-pebble/core/formats";
import type { World } from "@keen-pebble/core/world";
import { Prover, logFrames } from "@keen-pebble/core/check";
import { toPlain } from "@keen-pebble/core/formats";
import { sha256 } from "./files.ts";
import { THREADS, mapInThreads } from "./map-in-threads.ts";

/** What the threads of `prove.thread.ts` share, and a task of one. */
export interface ProveShared {
  readonly world: PlainWorld;
  readonly prints: boolean;
}

/** Below so many frames threads take longer to start than to work. */
const FEW_FRAMES = 400_000;
/** Slices a thread gets: enough that none waits long for the last one. */
const SLICES = 6;

/**
 * Proves logs in order, in threads where there is enough to do.
 * @param prints take every trace's fingerprint
 * @param tell told how many are done
 */
export async function proveAll(
  world: World,
  logs: readonly InputLog[],
  prints: boolean,
  tell: (done: number) => void,
): Promise<Proof[]> {
  const frames = logs.reduce((sum, log) => sum + logFrames(log), 0);
  if (THREADS < 2 || logs.length < 2 || frames < FEW_FRAMES) {
    const prover = new Prover(world, sha256);
    return logs.map((log, i) => {
      const proof = prover.prove(log, prints);
      tell(i + 1);
      return proof;
    });
  }
  const slices = slicesOf(logs, Math.ceil(frames / (THREADS * SLICES)));
  const proofs: Proof[][] = slices.map(() => []);
  let done = 0;
  const shared: ProveShared = { world: toPlain(world), prints };
  await mapInThreads<readonly InputLog[], Proof[]>("./prove.thread.js", shared, slices, (answer, at) => {
    proofs[at] = answer;
    done += answer.length;
    tell(done);
    return true;
  });
  return proofs.flat();
}

/** Parts a list of logs into neighbouring ones of about so many frames together. */
function slicesOf(logs: readonly InputLog[], frames: number): InputLog[][] {
  const slices: InputLog[][] = [[]];
  let filled = 0;
  for (const log of logs) {
    if (filled >= frames) {
      slices.push([]);
      filled = 0;
    }
    slices.at(-1)!.push(log);
    filled += logFrames(log);
  }
  return slices;
}
