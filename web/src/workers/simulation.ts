import type { Finding, ReEntrySearch } from "@keen-pebble/core/analyse";
import type { Check, InputLog, UntilChoice, Verdict } from "@keen-pebble/core/check";
import type { EditStep, Project } from "@keen-pebble/core/edit";
import type { Compiled, Explanation, KeyFrames, TraceRows } from "@keen-pebble/core/simulate";
import { reEntry, startFinding } from "@keen-pebble/core/analyse";
import { checksTrueAt, logFrames, readLog, untilChoices } from "@keen-pebble/core/check";
import { applyAll, changesWorld } from "@keen-pebble/core/edit";
import { compile, explainFrame, fingerprint, run, runWithKeyFrames, stateAt } from "@keen-pebble/core/simulate";
import type { TakenFile } from "@keen-pebble/core/take-home";
import { takeHome } from "@keen-pebble/core/take-home";
import { CoreError, clearance } from "@keen-pebble/core/world";
import { traceHash } from "./trace-hash.ts";
import { transfer } from "comlink";
import { LRUCache } from "lru-cache";

/** A run as the page shows it. */
export interface RunAnswer {
  readonly rows: TraceRows;
  readonly verdicts: readonly Verdict[];
  readonly frames: number;
  readonly status: number;
  readonly pathHash: string;
  /** For each line of keys that was reached the frame after which it ended. */
  readonly lineEnds: readonly number[];
  /** Time that the run itself took, in ms. */
  readonly took: number;
}

/** Something asked for could not be run: why, in one sentence. */
export interface Refused {
  readonly refused: string;
}

/** Where else a log may run: in the open world under another rule set, or in the world as it was at a revision. */
export type Elsewhere =
  | { readonly kind: "rules"; readonly rules: string }
  | { readonly kind: "revision"; readonly revision: number };

let project: Project | null = null;
/** By rule set, of the world as it is now. */
const compiled = new Map<string, Compiled>();
/** A revision that was handed in, and its world by rule set. */
let older: { readonly revision: number; readonly project: Project; readonly compiled: Map<string, Compiled> } | null =
  null;
/** States on the way of the last run of a long log, to explain a frame from. */
let long: { readonly c: Compiled; readonly log: InputLog; readonly keyFrames: KeyFrames } | null = null;
/** Below so many frames a run is as quick from its start. */
const LONG_FRAMES = 4096;
/** The texts that were read last, and their logs: the shown one, and the one that lies beside. */
const parsed = new LRUCache<string, InputLog>({ max: 4 });

function need(): Project {
  if (project === null) throw new Error("no project in the worker yet");
  return project;
}

/** A log and the world under the rule set that it names, or somewhere else. */
function ready(text: string, elsewhere: Elsewhere | null = null): { c: Compiled; log: InputLog } {
  const log = parsed.get(text) ?? readLog(text);
  parsed.set(text, log);
  if (elsewhere?.kind === "revision" && older?.revision === elsewhere.revision)
    return { c: compiledOf(older.compiled, older.project, log.rules), log };
  return { c: compiledOf(compiled, need(), elsewhere?.kind === "rules" ? elsewhere.rules : log.rules), log };
}

function compiledOf(known: Map<string, Compiled>, { world }: Project, named: string | null): Compiled {
  const rules = named ?? world.activeRules;
  if (!known.has(rules)) known.set(rules, compile(world, rules));
  return known.get(rules)!;
}

const keyFramesOf = (c: Compiled, log: InputLog): KeyFrames | null =>
  long?.c === c && long.log === log ? long.keyFrames : null;

/** Turns what the core refuses into an answer; anything else is a fault and stays one. */
function answer<T>(act: () => T): T | Refused {
  try {
    return act();
  } catch (error) {
    if (error instanceof CoreError) return { refused: error.message };
    throw error;
  }
}

export const simulation = {
  /** Takes a whole project. */
  load(whole: Project): void {
    project = whole;
    compiled.clear();
    older = null;
    long = null;
  },

  /** Takes the world as it was at a revision, to run logs in. */
  hold(revision: number, whole: Project): void {
    older = { revision, project: whole, compiled: new Map() };
  },

  /** Follows edits that the page has made. */
  apply(steps: readonly EditStep[]): void {
    project = applyAll(need(), steps);
    if (steps.some(changesWorld)) compiled.clear();
  },

  /** Runs a log with its checks, in the open world or elsewhere. */
  run(text: string, elsewhere: Elsewhere | null): RunAnswer | Refused {
    return answer(() => {
      const { c, log } = ready(text, elsewhere);
      const began = performance.now();
      const { result, keyFrames } =
        logFrames(log) > LONG_FRAMES
          ? runWithKeyFrames(c, log, { rows: true, checks: true })
          : { result: run(c, log, { rows: true, checks: true }), keyFrames: null };
      const took = performance.now() - began;
      if (elsewhere === null) long = keyFrames === null ? null : { c, log, keyFrames };
      const rows = result.rows!;
      const made: RunAnswer = {
        rows,
        verdicts: result.verdicts,
        frames: result.frames,
        status: result.status,
        pathHash: result.pathHash,
        lineEnds: result.lineEnds,
        took,
      };
      return transfer(
        made,
        [
          rows.keys,
          rows.room,
          rows.x,
          rows.y,
          rows.facing,
          rows.pose,
          rows.flags,
          rows.status,
          rows.events,
          ...(Object.values(rows.actors ?? {}) as Uint8Array<ArrayBuffer>[]),
        ].map((column) => column.buffer),
      );
    });
  },

  /** Checks that hold and say something of a frame of a log. */
  checksTrueAt(text: string, frame: number): readonly Check[] | Refused {
    return answer(() => {
      const { c, log } = ready(text);
      return checksTrueAt(c, log, stateAt(c, log, frame, keyFramesOf(c, log)));
    });
  },

  /** What one check, which the log may not have, says to its run. */
  verdictOf(text: string, check: Check): Verdict | Refused {
    return answer(() => {
      const { c, log } = ready(text);
      return run(c, { ...log, checks: [check] }, { checks: true }).verdicts[0]!;
    });
  },

  /** What a line of a log may be held until, instead of for its frames. */
  untilChoices(text: string, line: number): readonly UntilChoice[] | Refused {
    return answer(() => {
      const { c, log } = ready(text);
      return untilChoices(c, log, line);
    });
  },

  /** What each stage of one frame of a log saw and decided, in the open world or elsewhere. */
  explain(text: string, frame: number, elsewhere: Elsewhere | null): Explanation | Refused {
    return answer(() => {
      const { c, log } = ready(text, elsewhere);
      return explainFrame(c, log, frame, keyFramesOf(c, log));
    });
  },

  /** For each cell of a room 1 where its tile is free but the body does not fit. */
  clearance(room: string): Uint8Array | Refused {
    return answer(() => {
      const { world } = need();
      return clearance(
        compile(world).ground,
        world.rooms.findIndex((each) => each.id === room),
      );
    });
  },

  /** That the walker cannot begin where the world's start is; null where it can. */
  startFinding(): Finding | null | Refused {
    return answer(() => {
      const { world } = need();
      return startFinding(world, compiledOf(compiled, need(), null));
    });
  },

  /** Looks for the way out of the room and back from a frame of a log, and what it changes. */
  reEntry(text: string, frame: number): ReEntrySearch | Refused {
    return answer(() => {
      const { c, log } = ready(text);
      const { frames, lineEnds } = run(c, log);
      return reEntry(c, log, lineEnds, Math.min(frame, frames));
    });
  },

  /** The rules taken home, with all logs of the world that can run in it. */
  takeHome(rules: string): { readonly files: readonly TakenFile[]; readonly leftOut: readonly string[] } | Refused {
    return answer(() => {
      const { world, logs } = need();
      const c = compiledOf(compiled, need(), rules);
      const leftOut: string[] = [];
      const taken = new Map<string, InputLog>();
      for (const [id, text] of logs) {
        const log = answer(() => {
          const made = readLog(text);
          stateAt(c, made, 0);
          return made;
        });
        if ("refused" in log) leftOut.push(id);
        else taken.set(id, log);
      }
      return { files: takeHome(world, rules, taken), leftOut };
    });
  },

  /** The fingerprint of a log's run. */
  fingerprint(text: string): string | Refused {
    return answer(() => {
      const { c, log } = ready(text);
      return fingerprint(c, run(c, log, { rows: true }).rows!, traceHash());
    });
  },
};

export type Simulation = typeof simulation;
