import type { Verdict } from "../checks/verdict.ts";
import { logHolds } from "../checks/verdict.ts";
import { CoreError } from "../base/core-error.ts";
import type { InputLog } from "../logs/input-log.ts";
import { readLog } from "../logs/read-log.ts";
import { compile } from "../simulation/compile.ts";
import type { Compiled } from "../compiled/compiled.ts";
import { run } from "./run.ts";
import { STATUS_NAMES } from "../world/vocabulary.ts";
import type { TextHash } from "../simulation/trace.ts";
import { fingerprint } from "../simulation/trace.ts";
import type { World } from "../world/world.ts";

/** What a log comes to in a world. */
export interface Proof {
  /** All its checks pass, the world's laws too, and no `until` ran out. */
  readonly holds: boolean;
  /** Why it could not be run, or null; status, frames and path are null then. */
  readonly refused: string | null;
  readonly status: string | null;
  readonly frames: number | null;
  /** Equal for runs that took the same path. */
  readonly pathHash: string | null;
  /** SHA-256 of its trace; null where it was not asked for. */
  readonly fingerprint: string | null;
  /** Whether it walks as was accepted; null where nothing was, or no hash was handed in. */
  readonly accepted: boolean | null;
  readonly checks: readonly Verdict[];
}

/** Proves logs in one world, compiled once for each rule set. */
export class Prover {
  private readonly compiled = new Map<string, Compiled>();

  /** @param hash makes a SHA-256; without one no fingerprints are taken */
  constructor(
    readonly world: World,
    private readonly hash: (() => TextHash) | null = null,
  ) {}

  /**
   * The world under the rule set that the log names, or its active one.
   * @throws {CoreError} `no-such-rules`
   */
  compiledFor(log: InputLog): Compiled {
    const rules = log.rules ?? this.world.activeRules;
    const compiled = this.compiled.get(rules) ?? compile(this.world, rules);
    this.compiled.set(rules, compiled);
    return compiled;
  }

  /**
   * Runs a log with its checks and the world's laws. What cannot be run is a proof that says why.
   * @param log as text or read already
   * @param print take the fingerprint in any case, not only where one was accepted: of a long log it takes far longer than the run
   */
  prove(log: string | InputLog, print = false): Proof {
    try {
      const read = typeof log === "string" ? readLog(log) : log;
      const c = this.compiledFor(read);
      const prints = this.hash !== null && (print || read.accept !== null);
      const result = run(c, read, { checks: true, rows: prints });
      const printed = prints ? fingerprint(c, result.rows!, this.hash()) : null;
      return {
        holds: logHolds(result.verdicts),
        refused: null,
        status: STATUS_NAMES[result.status]!,
        frames: result.frames,
        pathHash: result.pathHash,
        fingerprint: printed,
        accepted: printed === null || read.accept === null ? null : printed === read.accept,
        checks: result.verdicts,
      };
    } catch (error) {
      if (!(error instanceof CoreError)) throw error;
      return {
        holds: false,
        refused: error.message,
        status: null,
        frames: null,
        pathHash: null,
        fingerprint: null,
        accepted: null,
        checks: [],
      };
    }
  }
}
