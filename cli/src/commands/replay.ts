import { closeSync, openSync, renameSync, unlinkSync, writeSync } from "node:fs";
import type { Compiled, TraceRows } from "@keen-pebble/core";
import { STATUS_NAMES, compile, fingerprint, run, writeTrace } from "@keen-pebble/core";
import { OK } from "../exit-codes.ts";
import { UnreadableFile, logFile, sha256, worldFile } from "../files.ts";
import type { Print } from "../print.ts";

/** `replay WORLD LOG`: runs the log and prints status, last frame and fingerprint (formats.md section 7). */
export function replay(worldPath: string, logPath: string, options: { rules?: string; trace?: string }, print: Print): number {
  const world = worldFile(worldPath);
  const log = logFile(logPath);
  const compiled = compile(world, options.rules ?? log.rules ?? undefined);
  const result = run(compiled, log, { rows: true });
  const rows = result.rows!;
  if (options.trace !== undefined) writeTraceFile(options.trace, compiled, rows);
  print(`status ${STATUS_NAMES[result.status]!}`);
  print(`last frame ${result.frames}`);
  print(`fingerprint ${fingerprint(compiled, rows, sha256())}`);
  return OK;
}

/** Writes beside the file first, so that a trace is there whole or not at all. */
function writeTraceFile(file: string, compiled: Compiled, rows: TraceRows): void {
  const half = `${file}.part`;
  try {
    const out = openSync(half, "w");
    try {
      writeTrace(compiled, rows, (piece) => void writeSync(out, piece));
    } finally {
      closeSync(out);
    }
    renameSync(half, file);
  } catch (error) {
    try {
      unlinkSync(half);
    } catch {
      // It was never made.
    }
    throw new UnreadableFile(file, `the trace cannot be written there (${(error as NodeJS.ErrnoException).code ?? "unknown"})`);
  }
}
