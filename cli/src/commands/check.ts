import { worldFindings } from "@keen-pebble/core/analyse";
import { RefusedError, refusalText } from "@keen-pebble/core/world";
import { NO, OK } from "../exit-codes.ts";
import { worldFile } from "../files.ts";
import type { Print } from "../print.ts";

/** `check WORLD [--strict]`: refusals and findings, a line each, with their places (formats.md section 7). */
export function check(file: string, options: { strict?: boolean }, print: Print): number {
  try {
    const findings = worldFindings(worldFile(file));
    for (const finding of findings)
      print(`${file}: finding: ${finding.place === "" ? "" : `${finding.place}: `}${finding.message}`);
    if (findings.length === 0) print(`${file}: nothing to say against it`);
    return findings.length > 0 && options.strict ? NO : OK;
  } catch (error) {
    if (!(error instanceof RefusedError)) throw error;
    for (const refusal of error.refusals) print(`${file}: refused: ${refusalText(refusal)}`);
    return NO;
  }
}
