import { wholeNumber } from "../checks/words.ts";
import type { Button, Game } from "../world/game.ts";
import { GAME_NAME_PATTERN, PLAIN_GAME } from "../world/game.ts";
import type { CsvTable } from "./csv-table.ts";
import { isDown, namesIn, numberOf } from "./game-log.ts";

/** What people call columns. */
const FRAME = /^(frame|frames|tick|ticks|step|n|t|index)$/i;
const ROOM = /^(room|level|map|scene|area|stage)$/i;
const X = /^(x|px|pos_?x|x_?pos|player_?x)$/i;
const Y = /^(y|py|pos_?y|y_?pos|player_?y)$/i;
const KEYS = /^(keys?|buttons?|input|inputs|pad|held|pressed|joypad)$/i;

/** What people call keys, without what stands before such as `KEY_`. */
const CALLED: readonly (readonly [Button, RegExp])[] = [
  ["L", /^(l|left|west|arrowleft|dleft|dpadleft)$/],
  ["R", /^(r|right|east|arrowright|dright|dpadright)$/],
  ["U", /^(u|up|north|arrowup|dup|dpadup)$/],
  ["D", /^(d|down|south|arrowdown|ddown|dpaddown)$/],
  ["A", /^(a|use|fire|action|confirm|ok|space|button1|btna)$/],
  ["B", /^(b|cancel|back|run|button2|btnb)$/],
];
/** Bits in the order in which most pads have them. */
const BIT_ORDER: readonly Button[] = ["L", "R", "U", "D", "A", "B"];

/** The button that a game's name of a key stands for, by what people call them; null where nothing tells. */
export function buttonCalled(name: string): Button | null {
  const plain = name
    .toLowerCase()
    .replace(/^(key|btn|button|pad|in|is|k|go|move|walk|press)[_. -]+/, "")
    .replace(/[_. -]/g, "");
  return CALLED.find(([, pattern]) => pattern.test(plain))?.[0] ?? null;
}

/** Names of keys that a column holds, the most frequent first; numbers are told as the bits that are set in them. */
export function keysIn(table: CsvTable, column: string): readonly string[] {
  const at = table.columns.indexOf(column);
  const fields = table.rows.map((row) => row[at] ?? "");
  const filled = fields.filter((field) => field.trim() !== "");
  const counts = new Map<string, number>();
  const see = (name: string): void => void counts.set(name, (counts.get(name) ?? 0) + 1);
  if (filled.length > 0 && filled.every((field) => numberOf(field) !== null)) {
    const bits = [...Array(31).keys()].map((n) => 2 ** n);
    const numbers = filled.map((field) => numberOf(field)!);
    return bits.filter((bit) => numbers.some((number) => Math.floor(number / bit) % 2 === 1)).map(String);
  }
  for (const field of filled) for (const name of namesIn(field)) if (GAME_NAME_PATTERN.test(name)) see(name);
  return [...counts.entries()].sort((a, b) => b[1] - a[1]).map(([name]) => name);
}

/** How a recording is to be read, guessed from its columns and what is in them: to be shown, and put right by hand. */
export function guessGame(table: CsvTable, id: string, name: string): Game {
  const find = (pattern: RegExp): string | null => table.columns.find((column) => pattern.test(column.trim())) ?? null;
  const frame = find(FRAME);
  const single = find(KEYS);
  const each = new Map<string, Button>();
  for (const column of table.columns) {
    const button = buttonCalled(column);
    const at = table.columns.indexOf(column);
    const isSwitch = table.rows.every((row) => isDown(row[at]!) !== null);
    if (button !== null && isSwitch && ![...each.values()].includes(button)) each.set(column, button);
  }
  const keys = single ?? (each.size > 0 ? Object.fromEntries(each) : null);
  return {
    ...PLAIN_GAME,
    id,
    name,
    columns: { frame, x: find(X), y: find(Y), room: find(ROOM), keys },
    frameOffset: frame === null ? 0 : offsetOf(table, frame),
    keys: single === null ? {} : guessedKeys(keysIn(table, single)),
  };
}

/** Where a recording of what was pressed begins with a frame before the first step. */
function offsetOf({ columns, rows }: CsvTable, frame: string): number {
  const first = wholeNumber(rows[0]?.[columns.indexOf(frame)]?.trim() ?? "");
  return first === null || first === 1 ? 0 : 1 - first;
}

function guessedKeys(names: readonly string[]): Readonly<Record<string, Button>> {
  const areBits = names.length > 0 && names.every((name) => numberOf(name) !== null);
  const pairs = areBits
    ? BIT_ORDER.map((button, i) => [String(2 ** i), button] as const)
    : names.flatMap((name): (readonly [string, Button])[] => {
        const button = buttonCalled(name);
        return button === null ? [] : [[name, button]];
      });
  return Object.fromEntries(pairs);
}
