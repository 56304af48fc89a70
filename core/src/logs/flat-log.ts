import type { InputLog, LogLine } from "./input-log.ts";

/**
 * The log with the frames that were really pressed: every `until` line as long as it lasted, and nothing after the
 * run's end (formats.md section 2, `replay --flat`). Its run has the same trace.
 * @param lineEnds of the log's run: for each keys line that was reached the frame after which it ended
 */
export function flatLog(log: InputLog, lineEnds: readonly number[]): InputLog {
  const lines: LogLine[] = [];
  let reached = 0;
  let from = 0;
  for (const line of log.lines) {
    if (line.kind === "comment") {
      lines.push(line);
      continue;
    }
    const end = lineEnds[reached++];
    if (end === undefined) break;
    lines.push({ ...line, count: end - from, until: null });
    from = end;
  }
  return { ...log, lines };
}
