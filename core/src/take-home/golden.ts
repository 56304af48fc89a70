import type { InputLog } from "../logs/input-log.ts";
import { flatLog } from "../logs/flat-log.ts";
import { writeLog } from "../logs/write-log.ts";
import { run } from "../replay/run.ts";
import type { Compiled } from "../compiled/compiled.ts";
import { traceText } from "../simulation/trace.ts";

/** A log as it is taken home: what was really pressed, and the trace of it under the rules taken home. */
export interface GoldenLog {
  readonly id: string;
  /** `LOG.inputs`. */
  readonly inputs: string;
  /** `LOG.trace.csv`. */
  readonly trace: string;
}

/** Runs a log under the rules that are taken home (formats.md section 10). Checks and notes stay behind. */
export function goldenLog(c: Compiled, id: string, log: InputLog): GoldenLog {
  const { rows, lineEnds } = run(c, log, { rows: true });
  const { world, start, with: lines, title, lines: pressed } = flatLog(log, lineEnds);
  const keys = pressed.filter(({ kind }) => kind === "keys");
  const kept = { ...log, world, start, with: lines, title, lines: keys };
  return {
    id,
    inputs: writeLog({ ...kept, rules: c.rules.id, tags: [], notes: [], accept: null, checks: [] }),
    trace: [...traceText(c, rows!)].join(""),
  };
}
