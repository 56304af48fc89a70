import type { Compiled, EditStep, Explanation, InputLog, Project, ReEntry, TraceRows, Verdict } from "@keen-pebble/core";
import { CoreError, applyAll, changesWorld, clearance, compile, explainFrame, fingerprint, reEntry, readLog, run } from "@keen-pebble/core";
import { sha256 } from "@noble/hashes/sha2.js";
import { bytesToHex, utf8ToBytes } from "@noble/hashes/utils.js";
import { expose, transfer } from "comlink";

/** A run as the page shows it. */
export interface RunAnswer {
  readonly rows: TraceRows;
  readonly verdicts: readonly Verdict[];
  readonly frames: number;
  readonly status: number;
  readonly pathHash: number;
  /** Time that the run itself took, in ms. */
  readonly took: number;
}

/** Something asked for could not be run: why, in one sentence. */
export interface Refused {
  readonly refused: string;
}

let project: Project | null = null;
/** By rule set, of the world as it is now. */
const compiled = new Map<string, Compiled>();
let parsed: { readonly text: string; readonly log: InputLog } | null = null;

function need(): Project {
  if (project === null) throw new Error("no project in the worker yet");
  return project;
}

/** A log and the world under the rule set that it names, or under another one. */
function ready(text: string, beside: string | null = null): { c: Compiled; log: InputLog } {
  const { world } = need();
  if (parsed?.text !== text) parsed = { text, log: readLog(text) };
  const rules = beside ?? parsed.log.rules ?? world.activeRules;
  if (!compiled.has(rules)) compiled.set(rules, compile(world, rules));
  return { c: compiled.get(rules)!, log: parsed.log };
}

/** Turns what the core refuses into an answer; anything else is a fault and stays one. */
function answer<T>(act: () => T): T | Refused {
  try {
    return act();
  } catch (error) {
    if (error instanceof CoreError) return { refused: error.message };
    throw error;
  }
}

const simulation = {
  /** Takes a whole project. */
  load(whole: Project): void {
    project = whole;
    compiled.clear();
  },

  /** Follows edits that the page has made. */
  apply(steps: readonly EditStep[]): void {
    project = applyAll(need(), steps);
    if (steps.some(changesWorld)) compiled.clear();
  },

  /** Runs a log with its checks, under its own rule set or under another one. */
  run(text: string, beside: string | null): RunAnswer | Refused {
    return answer(() => {
      const { c, log } = ready(text, beside);
      const began = performance.now();
      const result = run(c, log, { rows: true, checks: true });
      const took = performance.now() - began;
      const rows = result.rows!;
      const made: RunAnswer = { rows, verdicts: result.verdicts, frames: result.frames, status: result.status, pathHash: result.pathHash, took };
      return transfer(made, [rows.keys, rows.room, rows.x, rows.y, rows.facing, rows.pose, rows.flags, rows.status, rows.events].map((a) => a.buffer));
    });
  },

  /** Checks only, of several logs at once. */
  verdicts(texts: readonly string[]): readonly (readonly Verdict[] | Refused)[] {
    return texts.map((text) =>
      answer(() => {
        const { c, log } = ready(text);
        return run(c, log, { checks: true }).verdicts;
      }),
    );
  },

  /** What each stage of one frame of a log saw and decided, under its own rule set or under another one. */
  explain(text: string, frame: number, beside: string | null): Explanation | Refused {
    return answer(() => {
      const { c, log } = ready(text, beside);
      return explainFrame(c, log, frame);
    });
  },

  /** For each cell of a room 1 where its tile is free but the body does not fit. */
  clearance(room: string): Uint8Array | Refused {
    return answer(() => {
      const { world } = need();
      return clearance(compile(world).ground, world.rooms.findIndex((each) => each.id === room));
    });
  },

  /** The way out of the room and back from a frame of a log, and what it changes; null where there is none. */
  reEntry(text: string, frame: number): ReEntry | null | Refused {
    return answer(() => {
      const { c, log } = ready(text);
      const { rows, frames } = run(c, log, { rows: true });
      return reEntry(c, log, rows!.keys, Math.min(frame, frames));
    });
  },

  /** The fingerprint of a log's run. */
  fingerprint(text: string): string | Refused {
    return answer(() => {
      const { c, log } = ready(text);
      const hash = sha256.create();
      return fingerprint(c, run(c, log, { rows: true }).rows!, {
        update: (piece) => void hash.update(utf8ToBytes(piece)),
        hex: () => bytesToHex(hash.digest()),
      });
    });
  },
};

export type Simulation = typeof simulation;

expose(simulation);
