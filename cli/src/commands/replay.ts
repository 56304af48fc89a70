import { flatLog, writeLog } from "@keen-pebble/core/check";
import { actorTraceText, compile, fingerprint, run, traceText } from "@keen-pebble/core/simulate";
import { STATUS_NAMES } from "@keen-pebble/core/world";
import { OK } from "../exit-codes.ts";
import { logFile, sha256, worldFile, writeWhole } from "../files.ts";
import { ensureApart } from "../options.ts";
import { printBeside } from "../standard-output.ts";

export interface ReplayOptions {
  readonly rules?: string;
  readonly trace?: string;
  readonly actors?: string;
  readonly flat?: string;
  readonly json?: boolean;
}

/** `replay WORLD LOG`: runs the log and prints status, last frame and fingerprint (formats.md section 7). */
export function replay(worldPath: string, logPath: string, options: ReplayOptions): number {
  const print = printBeside(options.trace, options.actors, options.flat);
  ensureApart(options.json ?? false, [
    ["--trace", options.trace],
    ["--actors", options.actors],
    ["--flat", options.flat],
  ]);
  const world = worldFile(worldPath);
  const log = logFile(logPath, world);
  const compiled = compile(world, options.rules ?? log.rules ?? undefined);
  const result = run(compiled, log, { rows: true });
  const rows = result.rows!;
  if (options.trace !== undefined) writeWhole(options.trace, traceText(compiled, rows));
  if (options.actors !== undefined) writeWhole(options.actors, actorTraceText(compiled, rows));
  if (options.flat !== undefined) writeWhole(options.flat, [writeLog(flatLog(log, result.lineEnds))]);
  const said = {
    status: STATUS_NAMES[result.status]!,
    frames: result.frames,
    fingerprint: fingerprint(compiled, rows, sha256()),
  };
  if (options.json) print(JSON.stringify(said, null, 2));
  else {
    print(`status ${said.status}`);
    print(`last frame ${said.frames}`);
    print(`fingerprint ${said.fingerprint}`);
  }
  return OK;
}
