import { RefusedError } from "../base/refused-error.ts";
import type { InputLog } from "../logs/input-log.ts";
import type { Game } from "../world/game.ts";
import { csvLog } from "./csv-log.ts";
import type { CsvTable } from "./csv-table.ts";
import { gameLog, gameOf } from "./game-log.ts";
import { readGameTable } from "./game-table.ts";

/**
 * What was pressed, out of a file: our own columns `frame,keys`, or those of a game that the world knows (formats.md
 * sections 2 and 9).
 * @throws {RefusedError} with the line and what was expected
 */
export function readRecording(text: string, games: readonly Game[], name = "the log"): InputLog {
  const table = readGameTable(text, name);
  const log = logOfTable(table, games, name);
  if (log !== null) return log;
  const found = table.columns.join(",").slice(0, 80);
  const others = games.length === 0 ? "" : `, or those of ${games.map((each) => each.name).join(", ")}`;
  throw new RefusedError(name, [
    {
      place: "header",
      line: 1,
      column: null,
      message: `expected the columns \`frame,keys\`${others}, found \`${found}\``,
    },
  ]);
}

/**
 * What was pressed, out of a table; null where neither its columns nor a game say how it is to be read.
 * @throws {RefusedError} with the line and what was expected
 */
export function logOfTable(table: CsvTable, games: readonly Game[], name: string): InputLog | null {
  if (isOurs(table)) return csvLog(table, name);
  const game = gameOf(games, table);
  return game === null ? null : gameLog(table, game, name);
}

/** Whether these are the columns of our own recordings, in any order. */
function isOurs({ columns }: CsvTable): boolean {
  return (
    columns.length === 2 &&
    ["frame", "keys"].every((wanted) => columns.some((column) => column.trim().toLowerCase() === wanted))
  );
}
