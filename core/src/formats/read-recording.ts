import { RefusedError } from "../base/refused-error.ts";
import type { InputLog } from "../logs/input-log.ts";
import type { Game } from "../world/game.ts";
import { gameLog, gameOf } from "./game-log.ts";
import { readGameTable } from "./game-table.ts";
import { readCsvLog } from "./read-csv-log.ts";

/**
 * What was pressed, out of a file: our own columns `frame,keys`, or those of a game that the world knows (formats.md
 * sections 2 and 9).
 * @throws {RefusedError} with the line and what was expected
 */
export function readRecording(text: string, games: readonly Game[], name = "the log"): InputLog {
  if (games.length === 0) return readCsvLog(text, name);
  const table = readGameTable(text, name);
  if (isOurs(table.columns)) return readCsvLog(text, name);
  const game = gameOf(games, table);
  if (game !== null) return gameLog(table, game, name);
  const known = games.map((each) => each.name).join(", ");
  throw new RefusedError(name, [
    {
      place: "header",
      line: 1,
      column: null,
      message: `expected the columns \`frame,keys\`, or those of ${known}; found \`${table.columns.join(",").slice(0, 80)}\``,
    },
  ]);
}

/** Whether these are the columns of our own recordings, in any order. */
export function isOurs(columns: readonly string[]): boolean {
  return (
    columns
      .map((column) => column.trim().toLowerCase())
      .sort()
      .join() === "frame,keys"
  );
}
