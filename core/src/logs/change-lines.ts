import type { InputLog, LogLine } from "./input-log.ts";
import { MOST_LINE_FRAMES } from "./input-log.ts";

/** A log's line that presses keys. */
export type KeysLine = Extract<LogLine, { kind: "keys" }>;

/** A line of keys as a row of a table: which line of the log it is, and the frames that it really lasted. */
export interface KeyRun {
  /** Place in the log's `lines`. */
  readonly at: number;
  readonly line: KeysLine;
  /** The frame after which it begins, and its last one; null where the run ended before it. */
  readonly from: number | null;
  readonly to: number | null;
}

/**
 * A log's lines of keys with the frames that they lasted in its run.
 * @param lineEnds of that run: for each keys line that was reached the frame after which it ended
 */
export function keyRuns(log: InputLog, lineEnds: readonly number[]): KeyRun[] {
  const runs: KeyRun[] = [];
  log.lines.forEach((line, at) => {
    if (line.kind !== "keys") return;
    const reached = runs.length < lineEnds.length;
    runs.push({
      at,
      line,
      from: reached ? (lineEnds[runs.length - 1] ?? 0) : null,
      to: reached ? lineEnds[runs.length]! : null,
    });
  });
  return runs;
}

/** The log with one line put in another's place, or taken away. */
export function withLine(log: InputLog, at: number, line: LogLine | null): InputLog {
  return { ...log, lines: [...log.lines.slice(0, at), ...(line === null ? [] : [line]), ...log.lines.slice(at + 1)] };
}

/** The log with a line put in behind another one; -1 puts it first. */
export function withLineAfter(log: InputLog, at: number, line: LogLine): InputLog {
  return { ...log, lines: [...log.lines.slice(0, at + 1), line, ...log.lines.slice(at + 1)] };
}

/**
 * The log up to a frame of its run: what comes later is cut away. A line that is cut within presses its keys for the
 * frames that are left, without its `until`.
 */
export function cutLog(log: InputLog, lineEnds: readonly number[], frame: number): InputLog {
  const lines: LogLine[] = [];
  let from = 0;
  let reached = 0;
  for (const line of log.lines) {
    if (from >= frame) break;
    if (line.kind === "comment") {
      lines.push(line);
      continue;
    }
    const end = lineEnds[reached];
    if (end === undefined) break;
    reached++;
    lines.push(end <= frame ? line : { ...line, count: frame - from, until: null });
    from = end;
  }
  // The last line may be longer than its run lasted: one that was won within it, say.
  const last = lines.at(-1);
  if (last?.kind === "keys" && last.until === null && from <= frame) {
    const began = reached >= 2 ? lineEnds[reached - 2]! : 0;
    lines[lines.length - 1] = { ...last, count: Math.min(last.count, from - began) };
  }
  return { ...log, lines };
}

/** An `until` line as the frames that it lasted. */
export function asFrames({ line, from, to }: KeyRun): KeysLine {
  const lasted = (to ?? 0) - (from ?? 0);
  return { ...line, count: lasted > 0 ? Math.min(lasted, MOST_LINE_FRAMES) : line.count, until: null };
}
