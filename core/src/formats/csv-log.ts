import { quoted } from "../base/quoted.ts";
import { wholeNumber } from "../checks/words.ts";
import { RefusedError } from "../base/refused-error.ts";
import type { CsvTable } from "./csv-table.ts";
import { keysInAnyOrder } from "../world/keys.ts";
import type { InputLog } from "../logs/input-log.ts";
import { MOST_FRAMES } from "../logs/input-log.ts";
import { PressedFrames } from "./pressed-frames.ts";

/**
 * A log out of a table with the columns `frame,keys` (formats.md section 2): a row for each frame, or only
 * where the keys change. Frame 1 is the first step; a file that begins at 0 is shifted by one. Nothing is held before
 * the first row, and the last row counts one frame. Columns and keys may stand in any order, in large letters or small.
 * @param table one that has both columns
 * @throws {RefusedError} with the line and what was expected
 */
export function csvLog({ columns, rows }: CsvTable, name: string): InputLog {
  const refuse = (line: number, place: string, message: string): never => {
    throw new RefusedError(name, [{ place, line, column: null, message }]);
  };
  const [frameAt, keysAt] = ["frame", "keys"].map((wanted) =>
    columns.findIndex((column) => column.trim().toLowerCase() === wanted),
  ) as [number, number];
  if (rows.length === 0) refuse(1, "frame", "expected a row for at least one frame");
  const pressed = new PressedFrames();
  const shift = rows[0]![frameAt] === "0" ? 1 : 0;
  let last = 0;
  rows.forEach((row, i) => {
    const frameText = row[frameAt]!;
    const keysText = row[keysAt]!;
    const frame = wholeNumber(frameText);
    if (frame === null) return refuse(i + 2, "frame", `expected a frame number, found ${quoted(frameText)}`);
    const keys = keysInAnyOrder(keysText);
    if (keys < 0)
      return refuse(i + 2, "keys", `expected \`.\` or letters out of LRUDAB, each once, found ${quoted(keysText)}`);
    const fault = pressed.hold(frame + shift, keys);
    if (fault !== null)
      return refuse(
        i + 2,
        "frame",
        frame > MOST_FRAMES
          ? `a log has at most ${MOST_FRAMES} frames`
          : `expected a frame after ${last}, found ${frame}`,
      );
    last = frame;
  });
  return pressed.log();
}
