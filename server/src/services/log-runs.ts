import { createHash } from "node:crypto";
import type { TextHash } from "@keen-pebble/core";
import { STATUS_NAMES, compile, fingerprint, logHolds, readLog, run } from "@keen-pebble/core";
import type { LogRun } from "../api.ts";
import { NotFoundError } from "./service-errors.ts";
import type { Shelf } from "./shelf.ts";

/** Runs a log of a world's newest revision with its checks, and takes the trace's fingerprint. */
export async function runLog(shelf: Shelf, slug: string, logId: string): Promise<LogRun> {
  const { row, project } = await shelf.project(slug);
  const text = project.logs[logId];
  if (text === undefined) throw new NotFoundError("log", logId);
  const log = readLog(text);
  const compiled = compile(project.world, log.rules ?? undefined);
  const result = run(compiled, log, { rows: true, checks: true });
  return {
    revision: row.revision,
    status: STATUS_NAMES[result.status]!,
    frames: result.frames,
    fingerprint: fingerprint(compiled, result.rows!, sha256()),
    holds: logHolds(result.verdicts),
    checks: result.verdicts,
  };
}

function sha256(): TextHash {
  const hash = createHash("sha256");
  return { update: (text) => void hash.update(text, "latin1"), hex: () => hash.digest("hex") };
}
