import type { Compiled, Verdict, World } from "@keen-pebble/core";
import { CoreError, RefusedError, compile, fingerprint, logHolds, refusalText, run } from "@keen-pebble/core";
import { NO, OK, UNUSABLE } from "../exit-codes.ts";
import { UnreadableFile, logFile, logFiles, sha256, worldFile, writeWhole } from "../files.ts";
import { junitXml } from "../junit.ts";
import type { Print } from "../print.ts";
import { withProgress } from "../progress.ts";

/** What `verify` says of one log. */
export type LogReport =
  | { readonly log: string; readonly holds: boolean; readonly frames: number; readonly fingerprint?: string; readonly checks: readonly Verdict[] }
  | { readonly log: string; readonly error: string };

export interface VerifyOptions {
  readonly json?: boolean;
  readonly junit?: string;
}

/** `verify WORLD LOG...`: runs the checks in the logs; folders are read for `*.inputs` (formats.md section 7). */
export function verify(worldPath: string, paths: readonly string[], options: VerifyOptions, print: Print): number {
  const world = worldFile(worldPath);
  const files = logFiles(paths);
  const compiled = new Map<string, Compiled>();
  const reports = withProgress(files, (file) => verifyLog(world, file, compiled, options.json ?? false));
  if (options.junit !== undefined) writeWhole(options.junit, [junitXml(reports, world.frameRate)]);
  if (options.json) print(JSON.stringify(reports, null, 2));
  else for (const report of reports) for (const line of reportLines(report)) print(line);
  if (!options.json) print(totals(reports));
  if (reports.some((report) => "error" in report)) return UNUSABLE;
  return reports.every((report) => "holds" in report && report.holds) ? OK : NO;
}

/** @param print take the trace's fingerprint too: of a long log it takes far longer than the run */
function verifyLog(world: World, file: string, cache: Map<string, Compiled>, print: boolean): LogReport {
  try {
    const log = logFile(file);
    const rules = log.rules ?? world.activeRules;
    const compiled = cache.get(rules) ?? compile(world, rules);
    cache.set(rules, compiled);
    const result = run(compiled, log, { rows: print, checks: true });
    return {
      log: file,
      holds: logHolds(result.verdicts),
      frames: result.frames,
      ...(result.rows === null ? {} : { fingerprint: fingerprint(compiled, result.rows, sha256()) }),
      checks: result.verdicts,
    };
  } catch (error) {
    if (error instanceof RefusedError) return { log: file, error: error.refusals.map(refusalText).join("; ") };
    if (error instanceof CoreError || error instanceof UnreadableFile) return { log: file, error: error.message };
    throw error;
  }
}

function reportLines(report: LogReport): string[] {
  if ("error" in report) return [`error  ${report.log}: ${report.error}`];
  const missed = report.checks.filter((check) => check.verdict !== "pass");
  return [
    `${report.holds ? "holds " : "breaks"} ${report.log}: ${report.checks.length - missed.length} of ${report.checks.length} checks, ${report.frames} frames`,
    ...missed.map((check) => `       ${check.verdict === "fail" ? "fails" : "unreached"} at frame ${check.frame}: ${check.law ? "law " : ""}${check.check}; seen: ${check.seen ?? ""}`),
  ];
}

function totals(reports: readonly LogReport[]): string {
  const holding = reports.filter((report) => "holds" in report && report.holds).length;
  const errors = reports.filter((report) => "error" in report).length;
  return `${holding} of ${reports.length} logs hold${errors > 0 ? `, ${errors} cannot be read` : ""}`;
}
