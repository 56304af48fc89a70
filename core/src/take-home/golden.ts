import type { InputLog } from "../logs/input-log.ts";
import { flatLog } from "../logs/flat-log.ts";
import { writeLog } from "../logs/write-log.ts";
import { run } from "../replay/run.ts";
import type { Compiled } from "../compiled/compiled.ts";
import { MEET } from "../world/vocabulary.ts";
import { traceText } from "../simulation/trace.ts";

/** A log as it is taken home: what was really pressed, and the trace of it under the rules taken home. */
export interface GoldenLog {
  readonly id: string;
  /** `LOG.inputs`. */
  readonly inputs: string;
  /** `LOG.trace.csv`. */
  readonly trace: string;
}

/**
 * Runs a log under the rules that are taken home (formats.md section 10). Checks and notes stay behind.
 * @returns null where the walker meets an actor: what moves by itself is not taken home
 */
export function goldenLog(c: Compiled, id: string, log: InputLog): GoldenLog | null {
  const { rows, lineEnds } = run(c, log, { rows: true });
  for (let at = 1; at < rows!.events.length; at += 3) if (rows!.events[at] === MEET) return null;
  const { world, start, with: lines, title, lines: pressed } = flatLog(log, lineEnds);
  const keys = pressed.filter(({ kind }) => kind === "keys");
  const setUp = lines.filter(({ kind }) => kind !== "actor");
  const kept = { ...log, world, start, with: setUp, title, lines: keys };
  return {
    id,
    inputs: writeLog({ ...kept, rules: c.rules.id, tags: [], notes: [], accept: null, checks: [] }),
    trace: [...traceText(c, rows!)].join(""),
  };
}
