import type { InputLog, Proof, ReachRuling, Verdict } from "@keen-pebble/core/check";
import type { World } from "@keen-pebble/core/world";
import { CoreError, RefusedError, refusalText } from "@keen-pebble/core/world";
import { NO, OK, UNUSABLE } from "../exit-codes.ts";
import { logFile, logFiles, worldFile, writeWhole } from "../files.ts";
import { ensureApart } from "../options.ts";
import { printBeside } from "../standard-output.ts";
import { Progress } from "../progress.ts";
import { proveAll } from "../prove-all.ts";
import { UnreadableFile } from "../unusable.ts";

/** What `verify` says of one log. */
export type LogReport =
  | {
      readonly log: string;
      readonly holds: boolean;
      readonly frames: number;
      readonly fingerprint?: string;
      readonly accepted?: boolean;
      readonly finding?: string;
      readonly checks: readonly Verdict[];
    }
  | { readonly log: string; readonly error: string };

/** What it says of the world's reach checks. */
export interface ReachReport {
  readonly reach: true;
  readonly holds: boolean;
  readonly checks: readonly ReachRuling[];
}

export interface VerifyOptions {
  readonly json?: boolean;
  readonly junit?: string;
  /** False with `--no-reach`. */
  readonly reach?: boolean;
}

/** `verify WORLD LOG...`: judges the world's reach checks and runs the checks in the logs, side by side where there are many; folders are read for `*.inputs` and recordings (formats.md section 7). */
export async function verify(worldPath: string, paths: readonly string[], options: VerifyOptions): Promise<number> {
  const print = printBeside(options.junit);
  ensureApart(options.json ?? false, [["--junit", options.junit]]);
  const world = worldFile(worldPath);
  const read = logFiles(paths).map((file) => readOrSay(file, world));
  const reach = options.reach === false ? null : await reachReport(world);
  const reports = await reportsOf(world, read, options.json ?? false);
  if (options.json) print(JSON.stringify([...(reach === null ? [] : [reach]), ...reports], null, 2));
  else {
    for (const line of reach === null ? [] : reachLines(reach)) print(line);
    for (const report of reports) for (const line of reportLines(report)) print(line);
    print(totals(reports));
  }
  // Last: what cannot be written takes nothing away from what was said.
  if (options.junit !== undefined) {
    const { junitXml } = await import("@keen-pebble/core/reports");
    writeWhole(options.junit, [junitXml([...(reach === null ? [] : [reach]), ...reports], world.frameRate)]);
  }
  if (reports.some((report) => "error" in report)) return UNUSABLE;
  return reach?.holds !== false && reports.every((report) => "holds" in report && report.holds) ? OK : NO;
}

/** Null where the world has no reach checks. The search is loaded only where there are some. */
async function reachReport(world: World): Promise<ReachReport | null> {
  if (world.reachChecks.length === 0) return null;
  const { judgeReach } = await import("@keen-pebble/core/analyse");
  const checks = judgeReach(world).map(({ check, verdict, seen }) => ({ check, verdict, seen }));
  return { reach: true, holds: checks.every(({ verdict }) => verdict === "pass"), checks };
}

function reachLines({ holds, checks }: ReachReport): string[] {
  const missed = checks.filter(({ verdict }) => verdict !== "pass");
  return [
    `${holds ? "holds " : "breaks"} all play: ${checks.length - missed.length} of ${checks.length} reach checks`,
    ...missed.map(
      ({ check, verdict, seen }) => `       ${verdict === "fail" ? "fails" : "open"}: ${check}; seen: ${seen ?? ""}`,
    ),
  ];
}

interface ReadFile {
  readonly file: string;
  readonly log: InputLog | null;
  readonly error: string | null;
}

function readOrSay(file: string, world: World): ReadFile {
  try {
    return { file, log: logFile(file, world), error: null };
  } catch (error) {
    if (error instanceof RefusedError) return { file, log: null, error: error.refusals.map(refusalText).join("; ") };
    if (error instanceof CoreError || error instanceof UnreadableFile) return { file, log: null, error: error.message };
    throw error;
  }
}

/** @param prints take every trace's fingerprint: of a long log it takes far longer than the run */
async function reportsOf(world: World, read: readonly ReadFile[], prints: boolean): Promise<LogReport[]> {
  const logs = read.flatMap(({ log }) => (log === null ? [] : [log]));
  const progress = new Progress("logs", logs.length);
  let proofs: Proof[];
  try {
    proofs = await proveAll(world, logs, prints, (done) => progress.at(done));
  } finally {
    progress.stop();
  }
  let next = 0;
  return read.map(({ file, log, error }) =>
    log === null ? { log: file, error: error! } : reportOf(file, proofs[next++]!, otherWorld(world, log)),
  );
}

/** That a log names another world, or null. */
function otherWorld(world: World, log: InputLog): string | null {
  return log.world === null || log.world === world.id ? null : `names the world ${log.world}, not ${world.id}`;
}

function reportOf(
  log: string,
  { refused, holds, frames, fingerprint, accepted, checks }: Proof,
  finding: string | null,
): LogReport {
  if (refused !== null) return { log, error: finding === null ? refused : `${refused}; it ${finding}` };
  return {
    log,
    holds,
    frames: frames!,
    ...(fingerprint === null ? {} : { fingerprint }),
    ...(accepted === null ? {} : { accepted }),
    ...(finding === null ? {} : { finding }),
    checks,
  };
}

function reportLines(report: LogReport): string[] {
  if ("error" in report) return [`error  ${report.log}: ${report.error}`];
  const missed = report.checks.filter((check) => check.verdict !== "pass");
  const accepted =
    report.accepted === undefined ? "" : report.accepted ? ", walks as accepted" : ", does not walk as accepted";
  return [
    `${report.holds ? "holds " : "breaks"} ${report.log}: ${report.checks.length - missed.length} of ${report.checks.length} checks, ${report.frames} frames${accepted}`,
    ...(report.finding === undefined ? [] : [`       finding: ${report.finding}`]),
    ...missed.map(
      (check) =>
        `       ${check.verdict === "fail" ? "fails" : "unreached"} at frame ${check.frame}: ${check.law ? "law " : ""}${check.check}; seen: ${check.seen ?? ""}`,
    ),
  ];
}

function totals(reports: readonly LogReport[]): string {
  const holding = reports.filter((report) => "holds" in report && report.holds).length;
  const errors = reports.filter((report) => "error" in report).length;
  return `${holding} of ${reports.length} logs hold${errors > 0 ? `, ${errors} cannot be read` : ""}`;
}
