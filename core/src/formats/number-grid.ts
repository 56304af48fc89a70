import { plainText } from "../base/plain-text.ts";
import { shortened } from "../base/quoted.ts";
import { RefusedError } from "../base/refused-error.ts";
import { LIMITS } from "../world/limits.ts";
import type { NumberToken } from "./number-tokens.ts";
import { numberTokens } from "./number-tokens.ts";

/** A map as numbers, row by row; how its text was read is said in words. */
export interface NumberGrid {
  readonly width: number;
  readonly height: number;
  readonly values: readonly number[];
  /** Such as `30 x 20 numbers in brackets`. */
  readonly readAs: string;
  /** Whether the numbers stand for characters of the text, by their code points. */
  readonly characters: boolean;
}

/** A number of the text, or a row's end, with its place. */
interface Cell {
  readonly value: number;
  readonly line: number;
  readonly column: number;
}
type Row = readonly Cell[];

/**
 * Reads a map out of a text (formats.md section 8): rows of numbers, array literals in any bracket, hexadecimal digits
 * two a cell, rows of characters. Linear in the text.
 * @param width cells a row of a flat array; null where its lines say it
 * @throws {RefusedError} with line and column of what was not understood
 */
export function readNumberGrid(text: string, width: number | null = null, name = "the map"): NumberGrid {
  const refuse: Refuse = (message, at = null) => {
    throw new RefusedError(name, [{ place: "", line: at?.line ?? null, column: at?.column ?? null, message }]);
  };
  const plain = plainText(text);
  if (plain.length > LIMITS.fileBytes) refuse(`is larger than ${LIMITS.fileBytes} bytes`);
  if (plain.trim() === "") refuse("is empty: expected rows of numbers", { line: 1, column: 1 });
  const found = readHexDigits(plain) ?? readTokens(plain, width, refuse) ?? readCharacters(plain, refuse);
  return gridOf(found, refuse);
}

type Refuse = (message: string, at?: { readonly line: number; readonly column: number } | null) => never;

interface Found {
  readonly rows: readonly Row[];
  readonly as: string;
  readonly characters?: boolean;
}

function gridOf({ rows, as, characters = false }: Found, refuse: Refuse): NumberGrid {
  const max = LIMITS.roomSide[1];
  const [first] = rows;
  if (first === undefined || first.length === 0) return refuse("has no row of numbers", { line: 1, column: 1 });
  const width = first.length;
  for (const row of rows) {
    if (row.length === width) continue;
    const at = row[Math.min(width, row.length - 1)] ?? row[0]!;
    refuse(`expected ${width} cells as in the first row, found ${row.length}`, at);
  }
  if (width > max) refuse(`a row has at most ${max} cells, found ${width}`, first[max]);
  if (rows.length > max) refuse(`a room has at most ${max} rows, found ${rows.length}`, rows[max]![0]);
  const values = rows.flatMap((row) => row.map(({ value }) => value));
  const what = characters ? "characters" : "numbers";
  return { width, height: rows.length, values, readAs: `${width} x ${rows.length} ${what}${as}`, characters };
}

/** Lines of hexadecimal digits without a separator, two a cell; null where the text is something else. */
function readHexDigits(text: string): Found | null {
  const lines = text
    .split("\n")
    .map((line, i) => ({ digits: line.trim(), line: i + 1, column: line.search(/\S/) + 1 }));
  const rows = lines.filter(({ digits }) => digits !== "");
  const isHex = rows.every(
    ({ digits }) => digits.length >= 4 && digits.length % 2 === 0 && /^[0-9a-fA-F]+$/.test(digits),
  );
  // Digits alone are a cell each.
  if (!isHex || rows.every(({ digits }) => /^\d+$/.test(digits)) || rows.every(({ digits }) => !/\d/.test(digits)))
    return null;
  return {
    as: ", two hexadecimal digits each",
    rows: rows.map(({ digits, line, column }) =>
      Array.from({ length: digits.length / 2 }, (_, i) => ({
        value: Number.parseInt(digits.slice(i * 2, i * 2 + 2), 16),
        line,
        column: column + i * 2,
      })),
    ),
  };
}

/** Rows of characters, each line as it is; blanks at its end count. */
function readCharacters(text: string, refuse: Refuse): Found {
  const lines = text.split("\n");
  while (lines.at(-1)?.trim() === "") lines.pop();
  const from = lines.findIndex((line) => line.trim() !== "");
  const rows = lines.slice(from).map((line, y) => charactersOf(line, from + y + 1, 1));
  if (rows.length === 1)
    refuse("is one line without numbers parted from each other: expected rows", { line: from + 1, column: 1 });
  const short = rows.find((row) => row.length === 0);
  if (short !== undefined)
    refuse("expected a row of characters, found an empty line", { line: rows.indexOf(short) + from + 1, column: 1 });
  return digitsOf({ rows, as: "", characters: true });
}

/** Digits are numbers, one a cell. */
function digitsOf(found: Found): Found {
  const isDigits = found.rows.every((row) => row.every(({ value }) => value >= 48 && value <= 57));
  if (!isDigits) return found;
  const rows = found.rows.map((row) => row.map((cell) => ({ ...cell, value: cell.value - 48 })));
  return { rows, as: `${found.as}, a digit each`, characters: false };
}

const charactersOf = (text: string, line: number, column: number): Row =>
  Array.from(text, (character, i) => ({ value: character.codePointAt(0)!, line, column: column + i }));

/** Numbers between separators or brackets; null where there are none. */
function readTokens(text: string, width: number | null, refuse: Refuse): Found | null {
  const tokens = numberTokens(text);
  const groups = groupsOf(tokens, refuse);
  const best = groups.reduce<Group | null>(
    (found, group) => (group.numbers > (found?.numbers ?? 0) ? group : found),
    null,
  );
  if (best !== null) return rowsOf(best, width, refuse);
  const strings = tokens.filter(({ kind, text: piece }) => kind === "string" && piece.length > 2);
  if (groups.length > 0 && strings.length > 1) return rowsOfStrings(strings, refuse);
  return rowsOfLines(tokens, width, refuse);
}

/** Something in brackets. */
interface Group {
  readonly open: NumberToken;
  /** Numbers in it and in what stands in it. */
  numbers: number;
  readonly cells: Cell[];
  readonly groups: Group[];
  /** The first thing in it that is no number, and one that may yet be the name of what follows. */
  strange: NumberToken | null;
  pending: NumberToken | null;
}

/** What stands in brackets at the outermost, with what stands in it. */
function groupsOf(tokens: readonly NumberToken[], refuse: Refuse): Group[] {
  const roots: Group[] = [];
  const open: Group[] = [];
  for (const token of tokens) {
    const inner = open.at(-1);
    // `vec![`, `Row(`, `data: [`: what stands before a bracket is its name.
    const isName = token.kind === "open" || /^[:=]$/.test(token.text);
    if (inner !== undefined && isName) inner.pending = null;
    else if (inner !== undefined && token.kind !== "other" && token.kind !== "name" && token.kind !== "line")
      inner.strange ??= token.kind === "string" ? null : inner.pending;
    if (token.kind === "open") {
      const group: Group = { open: token, numbers: 0, cells: [], groups: [], strange: null, pending: null };
      if (inner === undefined) roots.push(group);
      else inner.groups.push(group);
      open.push(group);
      if (open.length > LIMITS.depth) refuse(`brackets are nested deeper than ${LIMITS.depth}`, token);
    } else if (token.kind === "close" && inner !== undefined) {
      if (CLOSES[inner.open.text] !== token.text)
        refuse(
          `expected \`${CLOSES[inner.open.text]!}\` for the bracket of line ${inner.open.line}, found \`${token.text}\``,
          token,
        );
      open.pop();
      const outer = open.at(-1);
      if (outer !== undefined) outer.numbers += inner.numbers;
    } else if (token.kind === "number" && inner !== undefined) {
      inner.numbers++;
      inner.cells.push(token);
    } else if (inner !== undefined && !isName && token.kind !== "separator" && token.kind !== "line")
      inner.pending ??= token;
  }
  const [unclosed] = open;
  if (unclosed !== undefined && unclosed.numbers + open.reduce((sum, { numbers }) => sum + numbers, 0) > 1)
    refuse(`the bracket \`${unclosed.open.text}\` is not closed`, unclosed.open);
  return roots;
}

const CLOSES: Readonly<Record<string, string>> = { "[": "]", "{": "}", "(": ")" };

/** Rows of the outermost group whose numbers are a grid. */
function rowsOf(group: Group, width: number | null, refuse: Refuse): Found {
  let at = group;
  // One thing in brackets around all of it, and what stands beside it that has no numbers to speak of.
  for (;;) {
    const most = at.groups.reduce<Group | null>(
      (found, each) => (each.numbers > (found?.numbers ?? 0) ? each : found),
      null,
    );
    if (
      most === null ||
      most.numbers * 2 <= at.numbers ||
      (at.cells.length === 0 && at.groups.length > 1 && isRows(at))
    )
      break;
    at = most;
  }
  if (at.strange !== null)
    refuse(`expected numbers between brackets, found "${shortened(at.strange.text)}"`, at.strange);
  if (at.groups.length === 0) return { ...flatRows(at.cells, width, refuse), as: " in brackets" };
  const deep = at.groups.find((each) => each.groups.length > 0);
  if (deep !== undefined) refuse(`has ${at.groups.length} layers of rows; give one of them`, deep.open);
  const [cell] = at.cells;
  if (cell !== undefined) refuse("expected rows in brackets only, found a number between them", cell);
  for (const row of at.groups) {
    if (row.strange !== null) refuse(`expected numbers, found "${shortened(row.strange.text)}"`, row.strange);
    if (row.cells.length === 0) refuse("expected numbers, found an empty row", row.open);
  }
  return { rows: at.groups.map(({ cells }) => cells), as: " in brackets" };
}

const isRows = ({ groups }: Group): boolean => groups.every((each) => each.groups.length === 0);

/** A flat list as rows: by the given width, or else by its lines. */
function flatRows(cells: readonly Cell[], width: number | null, refuse: Refuse): { readonly rows: readonly Row[] } {
  if (width !== null) {
    if (cells.length % width !== 0)
      refuse(
        `has ${cells.length} numbers, which is no whole number of rows of ${width}`,
        cells[cells.length - (cells.length % width)],
      );
    return { rows: Array.from({ length: cells.length / width }, (_, y) => cells.slice(y * width, (y + 1) * width)) };
  }
  const rows = byLine(cells);
  if (rows.length > 1 && rows.every((row) => row.length === rows[0]!.length)) return { rows };
  return refuse(`is one list of ${cells.length} numbers: say how many cells a row has`, cells[0]);
}

function byLine(cells: readonly Cell[]): Row[] {
  const rows: Cell[][] = [];
  for (const cell of cells) {
    if (rows.at(-1)?.[0]?.line === cell.line) rows.at(-1)!.push(cell);
    else rows.push([cell]);
  }
  return rows;
}

/** Rows as texts in an array: `["####", "#..#"]`. */
function rowsOfStrings(strings: readonly NumberToken[], refuse: Refuse): Found {
  const numbers = strings.map(({ text, line, column }) =>
    numberTokens(text.slice(1, -1)).map((token) => ({ ...token, line, column: column + token.column })),
  );
  const strange = numbers.map((row) => row.find(({ kind }) => kind !== "number" && kind !== "separator"));
  const isNumbers = strange.some((token, i) => token === undefined && numbers[i]!.length > 1);
  const odd = strange.find((token) => token !== undefined);
  if (isNumbers && odd !== undefined)
    refuse(`expected numbers as in the other rows, found "${shortened(odd.text)}"`, odd);
  if (isNumbers) return { rows: numbers.map((row) => row.filter(({ kind }) => kind === "number")), as: " in quotes" };
  return digitsOf({
    rows: strings.map(({ text, line, column }) => charactersOf(text.slice(1, -1), line, column + 1)),
    as: " in quotes",
    characters: true,
  });
}

/** Words that begin a line of numbers in an assembler or in BASIC. */
const DIRECTIVE = /^\.?(byte|byt|db|dc\.b|dcb|dw|dc\.w|word|fcb|data)$/i;

/** Rows by lines; null where a line has something else in it, so that the text is rows of characters. */
function rowsOfLines(tokens: readonly NumberToken[], width: number | null, refuse: Refuse): Found | null {
  const lines: NumberToken[][] = [[]];
  for (const token of tokens) {
    if (token.kind === "line") lines.push([]);
    else lines.at(-1)!.push(...unquoted(token));
  }
  const rows: Cell[][] = [];
  let strange: NumberToken | null = null;
  let isListed = false;
  for (const line of lines) {
    // A label that stands alone.
    if (line.length === 1 && line[0]!.kind === "name" && line[0]!.text.endsWith(":")) continue;
    const directive = line.findIndex(({ kind, text }) => kind === "name" && DIRECTIVE.test(text));
    const numbers = line.slice(directive + 1);
    strange ??= numbers.find(({ kind }) => kind !== "number" && kind !== "separator") ?? null;
    const cells = numbers.filter(({ kind }) => kind === "number");
    isListed ||= directive >= 0 || cells.length > 1;
    if (cells.length > 0) rows.push(cells);
  }
  // Lines of one number each are rows of digits, unless they say otherwise.
  if (!isListed) return width === null ? null : { ...flatRows(rows.flat(), width, refuse), as: "" };
  if (strange !== null) {
    if (rows.length < lines.length / 2) return null;
    refuse(`expected a number, found "${shortened(strange.text)}"`, strange);
  }
  return width === null ? { rows, as: "" } : { ...flatRows(rows.flat(), width, refuse), as: "" };
}

/** A quoted number, as tables have them, or a row in quotes. */
function unquoted(token: NumberToken): readonly NumberToken[] {
  if (token.kind !== "string") return [token];
  const inner = numberTokens(token.text.slice(1, -1));
  if (inner.length === 0 || inner.some(({ kind }) => kind !== "number" && kind !== "separator")) return [token];
  return inner.map((each) => ({ ...each, line: token.line, column: token.column + each.column }));
}
