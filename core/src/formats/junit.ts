import { create } from "xmlbuilder2";
import type { ReachRuling } from "../checks/reach-check.ts";
import type { Verdict } from "../checks/verdict.ts";

/** What is known of the world's reach checks, or of one log: its checks, or why it could not be read. */
export type ReportedLog =
  | { readonly reach: true; readonly checks: readonly ReachRuling[] }
  | { readonly log: string; readonly frames: number; readonly checks: readonly Verdict[] }
  | { readonly log: string; readonly error: string };

/** A case of a suite: what it is called, and what went wrong where something did. */
interface Case {
  readonly name: string;
  readonly wrong?: { readonly as: "failure" | "error"; readonly type: string; readonly message: string };
}

/**
 * JUnit XML of what `verify` found: a suite for each log, a case for each check; a check that fails or was not reached
 * is a failure with its frame and what was seen, a log that cannot be read an error (formats.md section 7).
 * @param frameRate frames a second, for the time that a log stands for
 */
export function junitXml(reports: readonly ReportedLog[], frameRate: number): string {
  const suites = reports.map((report) => ({
    log: "reach" in report ? "all play" : report.log,
    cases: casesOf(report),
    seconds: "frames" in report ? report.frames / frameRate : 0,
  }));
  const root = create({ version: "1.0", encoding: "UTF-8" }).ele("testsuites", {
    name: "keen-pebble verify",
    ...totals(suites.flatMap((suite) => suite.cases)),
  });
  for (const { log, cases, seconds } of suites) {
    const suite = root.ele("testsuite", { name: log, ...totals(cases), time: seconds.toFixed(3) });
    for (const { name, wrong } of cases) {
      const test = suite.ele("testcase", { classname: log, name, file: log });
      if (wrong) test.ele(wrong.as, { type: wrong.type, message: wrong.message });
    }
  }
  return `${root.end({ prettyPrint: true })}\n`;
}

function casesOf(report: ReportedLog): Case[] {
  if ("error" in report)
    return [{ name: "can be read", wrong: { as: "error", type: "refused", message: report.error } }];
  if ("reach" in report)
    return report.checks.map(({ check, verdict, seen }) =>
      verdict === "pass"
        ? { name: check }
        : { name: check, wrong: { as: "failure", type: verdict, message: `${verdict}; seen: ${seen ?? "nothing"}` } },
    );
  if (report.checks.length === 0) return [{ name: "runs" }];
  return report.checks.map(({ check, verdict, frame, seen }) =>
    verdict === "pass"
      ? { name: check }
      : {
          name: check,
          wrong: {
            as: "failure",
            type: verdict,
            message: `${verdict === "fail" ? "fails" : "unreached"} at frame ${frame}; seen: ${seen ?? "nothing"}`,
          },
        },
  );
}

function totals(cases: readonly Case[]): { tests: number; failures: number; errors: number } {
  const count = (as: "failure" | "error"): number => cases.filter((each) => each.wrong?.as === as).length;
  return { tests: cases.length, failures: count("failure"), errors: count("error") };
}
