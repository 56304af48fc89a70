import { compareTraces } from "@keen-pebble/core/analyse";
import { NO, OK } from "../exit-codes.ts";
import { traceFile } from "../files.ts";
import type { Print } from "../print.ts";

/** `compare TRACE_A TRACE_B`: the first row that differs, and its columns (formats.md section 7). */
export function compare(a: string, b: string, options: { json?: boolean }, print: Print): number {
  const difference = compareTraces(traceFile(a), traceFile(b));
  if (options.json)
    print(JSON.stringify(difference === null ? { equal: true } : { equal: false, ...difference }, null, 2));
  else if (difference === null) print("equal");
  else {
    print(`differs at frame ${difference.frame}`);
    for (const { column, a: one, b: other } of difference.columns)
      print(`  ${column}: ${one === "" ? "nothing" : one} and ${other === "" ? "nothing" : other}`);
    if (difference.missing !== null) print(`  ${difference.missing === "a" ? a : b} has no row for it`);
  }
  return difference === null ? OK : NO;
}
