import { quoted } from "../base/quoted.ts";
import { RefusedError } from "../base/refused-error.ts";
import { wholeNumber } from "../checks/words.ts";
import type { InputLog } from "../logs/input-log.ts";
import { BUTTONS } from "../world/game.ts";
import type { Button, Game } from "../world/game.ts";
import type { CsvTable } from "./csv-table.ts";
import { PressedFrames } from "./pressed-frames.ts";

/** The columns that a game has to have to be read so; in any order, with others beside them. */
export function columnsOf({ columns }: Pick<Game, "columns">): readonly string[] {
  const { keys, ...others } = columns;
  const named = Object.values(others).filter((column) => column !== null);
  return [...named, ...(keys === null ? [] : typeof keys === "string" ? [keys] : Object.keys(keys))];
}

/** The first game whose columns a table has, and that says what was pressed. */
export function gameOf(games: readonly Game[], table: Pick<CsvTable, "columns">): Game | null {
  return (
    games.find(
      (game) => game.columns.keys !== null && columnsOf(game).every((column) => table.columns.includes(column)),
    ) ?? null
  );
}

/**
 * What was pressed in a game, as a log (formats.md section 9). Names of keys that the game's `keys` do not have are no
 * buttons; frames before the first step are left out.
 * @throws {RefusedError} with the line and what was expected
 */
export function gameLog(
  table: CsvTable,
  game: Pick<Game, "columns" | "frameOffset" | "keys">,
  name = "the recording",
): InputLog {
  const refuse = (line: number, place: string, message: string): never => {
    throw new RefusedError(name, [{ place, line, column: null, message }]);
  };
  const missing = columnsOf(game).find((column) => !table.columns.includes(column));
  if (missing !== undefined) refuse(1, "header", `lacks the column ${quoted(missing)}`);
  if (game.columns.keys === null) refuse(1, "header", "has no column that says what was pressed");
  if (table.rows.length === 0) refuse(1, "", "expected a row for at least one frame");
  const frameAt = game.columns.frame === null ? -1 : table.columns.indexOf(game.columns.frame);
  const held = heldBy(table, game);
  const pressed = new PressedFrames();
  table.rows.forEach((row, i) => {
    const frame = frameAt < 0 ? i + 1 : wholeNumber(row[frameAt]!.trim());
    if (frame === null)
      return refuse(i + 2, game.columns.frame!, `expected a frame number, found ${quoted(row[frameAt]!)}`);
    const keys = held(row);
    if (typeof keys === "string") return refuse(i + 2, "keys", keys);
    if (frame + game.frameOffset < 1) return;
    const fault = pressed.hold(frame + game.frameOffset, keys);
    if (fault !== null) refuse(i + 2, game.columns.frame ?? "frame", `frame ${frame} ${fault}`);
  });
  return pressed.log();
}

const bitOf = (button: Button): number => 1 << BUTTONS.indexOf(button);

/** What reads the buttons out of a row; a text says what is wrong with it. */
function heldBy(
  table: CsvTable,
  { columns, keys }: Pick<Game, "columns" | "keys">,
): (row: readonly string[]) => number | string {
  if (typeof columns.keys === "string") {
    const at = table.columns.indexOf(columns.keys);
    const names = new Map(Object.entries(keys).map(([name, button]) => [name.toLowerCase(), bitOf(button)]));
    const bits = bitsOf(keys);
    return (row) => (bits === null ? namedKeys(row[at]!, names) : bitKeys(row[at]!, bits));
  }
  const places = Object.entries(columns.keys ?? {}).map(
    ([column, button]) => [table.columns.indexOf(column), bitOf(button), column] as const,
  );
  return (row) => {
    let held = 0;
    for (const [at, bit, column] of places) {
      const down = isDown(row[at]!);
      if (down === null) return `${column}: expected 0 or 1, found ${quoted(row[at]!)}`;
      if (down) held |= bit;
    }
    return held;
  };
}

/** The bits of a number by what the game calls them, where it calls all of them by numbers; else null. */
function bitsOf(keys: Game["keys"]): readonly (readonly [bit: number, button: number])[] | null {
  const bits = Object.entries(keys).map(([name, button]) => [numberOf(name), bitOf(button)] as const);
  return bits.length > 0 && bits.every(([bit]) => bit !== null) ? (bits as [number, number][]) : null;
}

/** A whole number of a game, decimal or hexadecimal; null for none. */
export function numberOf(text: string): number | null {
  const plain = text.trim();
  return /^(\d{1,10}|0x[0-9a-f]{1,8})$/i.test(plain) ? Number(plain) : null;
}

function bitKeys(text: string, bits: readonly (readonly [number, number])[]): number | string {
  const number = text.trim() === "" ? 0 : numberOf(text);
  if (number === null) return `expected a number, found ${quoted(text)}`;
  // Shifts would cut what is beyond 32 bits.
  return bits.reduce((held, [bit, button]) => (Math.floor(number / bit) % 2 === 1 ? held | button : held), 0);
}

function namedKeys(text: string, names: ReadonlyMap<string, number>): number {
  return namesIn(text).reduce((held, name) => held | (names.get(name.toLowerCase()) ?? 0), 0);
}

/** The names of keys in a field: parted by blanks, commas, semicolons, bars or plus signs. */
export function namesIn(text: string): readonly string[] {
  return text.split(/[\s,;|+]+/).filter((name) => name !== "" && name !== ".");
}

/** Whether a field of a column a key says that it is held; null where it says neither. */
export function isDown(text: string): boolean | null {
  const word = text.trim().toLowerCase();
  if (["", "0", "false", "no", "up", "."].includes(word)) return false;
  return ["1", "true", "yes", "down", "x"].includes(word) ? true : null;
}
