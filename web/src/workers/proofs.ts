import type { RandomWalkFinding, RandomWalkTask } from "@keen-pebble/core/analyse";
import type { InputLog, PathDifference, Proof, SeedTally } from "@keen-pebble/core/check";
import type { EditStep, Project } from "@keen-pebble/core/edit";
import { takeRandomWalks } from "@keen-pebble/core/analyse";
import { Prover, overSeeds, pathDifference, readLog } from "@keen-pebble/core/check";
import { applyAll, changesWorld } from "@keen-pebble/core/edit";
import { compile } from "@keen-pebble/core/simulate";
import { CoreError } from "@keen-pebble/core/world";
import { sha256 } from "@noble/hashes/sha2.js";
import { bytesToHex, utf8ToBytes } from "@noble/hashes/utils.js";

/** A log's path against the one that it had at the revision that is compared with. */
export type PathAnswer =
  | { readonly kind: "same" }
  | { readonly kind: "differs"; readonly at: PathDifference }
  | { readonly kind: "unknown" };

/** What a log comes to in the open project. */
export interface ProvedLog {
  readonly log: string;
  readonly proof: Proof;
  readonly path: PathAnswer;
}

const UNKNOWN: PathAnswer = { kind: "unknown" };

let project: Project | null = null;
let prover: Prover | null = null;
let base: { readonly project: Project; readonly prover: Prover } | null = null;
/** Proofs at the compared revision, by log. */
const baseProofs = new Map<string, Proof>();

function textHash() {
  const hash = sha256.create();
  return { update: (piece: string) => void hash.update(utf8ToBytes(piece)), hex: () => bytesToHex(hash.digest()) };
}

const newProver = (of: Project): Prover => new Prover(of.world, textHash);

export const proofs = {
  /** Takes a whole project. */
  load(whole: Project): void {
    project = whole;
    prover = newProver(whole);
  },

  /** Follows edits that the page has made. */
  apply(steps: readonly EditStep[]): void {
    if (project === null) return;
    project = applyAll(project, steps);
    if (steps.some(changesWorld)) prover = newProver(project);
  },

  /** Takes the project at the revision that paths are compared with; null compares with none. */
  compareWith(whole: Project | null): void {
    base = whole === null ? null : { project: whole, prover: newProver(whole) };
    baseProofs.clear();
  },

  /** Runs logs with their checks; those that are not there any more are left out. */
  prove(logs: readonly string[]): ProvedLog[] {
    return logs.flatMap((log): ProvedLog[] => {
      const text = project?.logs.get(log);
      if (text === undefined) return [];
      const proof = prover!.prove(text);
      return [{ log, proof, path: pathOf(log, text, proof) }];
    });
  },

  /** Runs a log over seeds, from one on so many. */
  overSeeds(log: string, from: number, count: number): SeedTally | { readonly refused: string } {
    try {
      const read = readLog(project!.logs.get(log)!);
      return overSeeds(prover!.compiledFor(read), read, from, count);
    } catch (error) {
      if (error instanceof CoreError) return { refused: error.message };
      throw error;
    }
  },

  /** Walks at random under a rule set, and shrinks what breaks a law. */
  randomWalks(
    rules: string,
    task: RandomWalkTask,
    known: readonly string[],
  ): readonly RandomWalkFinding[] | { readonly refused: string } {
    try {
      return takeRandomWalks(compile(project!.world, rules), task, new Set(known));
    } catch (error) {
      if (error instanceof CoreError) return { refused: error.message };
      throw error;
    }
  },
};

function pathOf(log: string, text: string, proof: Proof): PathAnswer {
  const before = base?.project.logs.get(log);
  if (base === null || before === undefined || proof.refused !== null) return UNKNOWN;
  const was = baseProofs.get(log) ?? base.prover.prove(before);
  baseProofs.set(log, was);
  if (was.refused !== null) return UNKNOWN;
  if (was.pathHash === proof.pathHash && was.frames === proof.frames) return { kind: "same" };
  const [one, other]: readonly InputLog[] = [readLog(before), readLog(text)];
  const at = pathDifference(base.prover.compiledFor(one!), one!, prover!.compiledFor(other!), other!);
  return at === null ? { kind: "same" } : { kind: "differs", at };
}

export type ProofWorker = typeof proofs;
