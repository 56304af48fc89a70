import { quoted } from "../base/quoted.ts";
import { wholeNumber } from "../checks/words.ts";
import { RefusedError } from "../base/refused-error.ts";
import { readCsv } from "./csv-table.ts";
import { keysInAnyOrder } from "../world/keys.ts";
import type { InputLog, LogLine } from "../logs/input-log.ts";
import { EMPTY_LOG, MOST_FRAMES, MOST_LINE_FRAMES } from "../logs/input-log.ts";
import { mergeLines } from "../logs/write-log.ts";

/**
 * Reads a log out of a CSV file with the columns `frame,keys` (formats.md section 2): a row for each frame, or only
 * where the keys change. Frame 1 is the first step; a file that begins at 0 is shifted by one. Nothing is held before
 * the first row, and the last row counts one frame. Columns and keys may stand in any order, in large letters or small.
 * @throws {RefusedError} with the line and what was expected
 */
export function readCsvLog(text: string, name = "the log"): InputLog {
  const refuse = (line: number, place: string, message: string): never => {
    throw new RefusedError(name, [{ place, line, column: null, message }]);
  };
  const { columns, rows } = readCsv(text, name);
  const [frameAt, keysAt] = ["frame", "keys"].map((name) =>
    columns.findIndex((column) => column.trim().toLowerCase() === name),
  ) as [number, number];
  if (columns.length !== 2 || frameAt < 0 || keysAt < 0)
    refuse(1, "header", `expected the columns \`frame,keys\`, found \`${columns.join(",").slice(0, 80)}\``);
  if (rows.length === 0) refuse(1, "frame", "expected a row for at least one frame");
  const lines: LogLine[] = [];
  const add = (count: number, keys: number): void => {
    for (let left = count; left > 0; left -= MOST_LINE_FRAMES) {
      lines.push({ kind: "keys", count: Math.min(left, MOST_LINE_FRAMES), keys, pointer: null, until: null });
    }
  };
  const shift = rows[0]![frameAt] === "0" ? 1 : 0;
  let from = 1;
  let held = 0;
  rows.forEach((row, i) => {
    const frameText = row[frameAt]!;
    const keysText = row[keysAt]!;
    const frame = wholeNumber(frameText);
    if (frame === null) return refuse(i + 2, "frame", `expected a frame number, found ${quoted(frameText)}`);
    const step = frame + shift;
    if (step < from || (i > 0 && step === from))
      refuse(i + 2, "frame", `expected a frame after ${from - shift}, found ${frame}`);
    if (step > MOST_FRAMES) refuse(i + 2, "frame", `a log has at most ${MOST_FRAMES} frames`);
    const keys = keysInAnyOrder(keysText);
    if (keys < 0)
      return refuse(i + 2, "keys", `expected \`.\` or letters out of LRUDAB, each once, found ${quoted(keysText)}`);
    add(step - from, held);
    from = step;
    held = keys;
  });
  add(1, held);
  return { ...EMPTY_LOG, lines: mergeLines(lines) };
}
