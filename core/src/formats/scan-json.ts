import type { JSONPath, JSONVisitor, ParseErrorCode } from "jsonc-parser";
import { printParseErrorCode, visit } from "jsonc-parser";
import type { Refusal } from "../base/refused-error.ts";
import { RefusedError } from "../base/refused-error.ts";
import { LIMITS } from "../world/limits.ts";

/** More values than any world within its limits has. */
const MOST_VALUES = 3_000_000;

/** More keys than any object of a world has. */
const MOST_KEYS = 64;

/** A path into JSON as places are written in messages: `rooms[2].fixtures[5].cell`. */
export function placeText(path: readonly (string | number)[]): string {
  return path.map((part, i) => (typeof part === "number" ? `[${part}]` : i === 0 ? part : `.${part}`)).join("");
}

/** How much a JSON text may hold; those of a world file where nothing else is said. */
export interface JsonLimits {
  readonly bytes?: number;
  readonly values?: number;
  /** Keys of one object. */
  readonly keys?: number;
}

/** What no text may hold that is to be stored: NUL, and halves of a character that is written as two. */
const UNSTORABLE = /\0|[\ud800-\udbff](?![\udc00-\udfff])|(?<![\ud800-\udbff])[\udc00-\udfff]/;

/**
 * Scans JSON before anything is built: refuses broken syntax, comments, nesting deeper than 32, too many values
 * or keys, keys that stand twice, and texts with NUL or half a character, each with line and column; then builds the value.
 * @throws {RefusedError}
 */
export function scanJson(
  text: string,
  name: string,
  { bytes = LIMITS.fileBytes, values: mostValues = MOST_VALUES, keys: mostKeys = MOST_KEYS }: JsonLimits = {},
): unknown {
  const refuse = (place: string, line: number, column: number, message: string): never => {
    throw new RefusedError(name, [{ place, line: line + 1, column: column + 1, message }]);
  };
  if (text.length > bytes) {
    throw new RefusedError(name, [{ place: "", line: null, column: null, message: `is larger than ${bytes} bytes` }]);
  }
  visit(text, guard(refuse, mostValues, mostKeys), { disallowComments: true, allowTrailingComma: false });
  try {
    return JSON.parse(text) as unknown;
  } catch (error) {
    // The scanner is a little more lenient about numbers and escapes than JSON itself.
    throw new RefusedError(name, [
      { place: "", line: null, column: null, message: `broken JSON: ${(error as Error).message}` },
    ]);
  }
}

type Refuse = (place: string, line: number, column: number, message: string) => never;

/** Refuses what no file may hold while it is scanned. */
function guard(refuse: Refuse, mostValues: number, mostKeys: number): JSONVisitor {
  let depth = 0;
  let values = 0;
  const keys: Set<string>[] = [];
  const count = (line: number, column: number) => {
    if (++values > mostValues) refuse("", line, column, `has more than ${mostValues} values`);
  };
  const enter = (line: number, column: number) => {
    count(line, column);
    if (++depth > LIMITS.depth) refuse("", line, column, `is nested deeper than ${LIMITS.depth}`);
  };
  return {
    onObjectBegin: (_offset, _length, line, column) => {
      enter(line, column);
      keys.push(new Set());
    },
    onObjectEnd: () => {
      depth--;
      keys.pop();
    },
    onArrayBegin: (_offset, _length, line, column) => enter(line, column),
    onArrayEnd: () => {
      depth--;
    },
    onObjectProperty: (key, _offset, _length, line, column, path) => {
      const seen = keys.at(-1)!;
      if (seen.has(key)) refuse(placeText([...path(), key]), line, column, "the key stands twice");
      seen.add(key);
      if (seen.size > mostKeys) refuse(placeText(path()), line, column, `has more than ${mostKeys} keys`);
      if (UNSTORABLE.test(key)) refuse(placeText(path()), line, column, "has a key with NUL or half a character in it");
    },
    onLiteralValue: (value: unknown, _offset, _length, line, column, path) => {
      count(line, column);
      if (typeof value === "string" && UNSTORABLE.test(value))
        refuse(placeText(path()), line, column, "holds NUL or half a character");
    },
    onError: (code: ParseErrorCode, _offset, _length, line, column) =>
      refuse("", line, column, `broken JSON: ${syntaxText(code)}`),
  };
}

function syntaxText(code: ParseErrorCode): string {
  return printParseErrorCode(code)
    .replace(/([a-z])([A-Z])/g, "$1 $2")
    .toLowerCase();
}

/** Adds line and column to refusals whose place is a path into the text; needs one more pass, made for errors only. */
export function locate(
  text: string,
  refusals: readonly { readonly path: JSONPath; readonly message: string }[],
): Refusal[] {
  const wanted = new Map<string, { line: number; column: number }>();
  for (const refusal of refusals) {
    // Where a key is missing, its object's place is shown.
    for (let n = refusal.path.length; n >= 0; n--)
      wanted.set(placeText(refusal.path.slice(0, n)), { line: -1, column: -1 });
  }
  const found = (path: JSONPath, line: number, column: number) => {
    const spot = wanted.get(placeText(path));
    if (spot && spot.line < 0) Object.assign(spot, { line: line + 1, column: column + 1 });
  };
  // Most of a large file is passed over: what nothing is asked of, and what is in it.
  const asked = new Set(refusals.flatMap(({ path }) => path));
  const isAsked = (path: JSONPath): boolean =>
    path.length === 0 || (asked.has(path.at(-1)!) && wanted.has(placeText(path)));
  const enter = (line: number, column: number, path: JSONPath): boolean => {
    found(path, line, column);
    return isAsked(path);
  };
  visit(text, {
    onObjectBegin: (_offset, _length, line, column, path) => enter(line, column, path()),
    onArrayBegin: (_offset, _length, line, column, path) => enter(line, column, path()),
    // The scanner counts its way out of what it passes over only where these are there.
    onObjectEnd: () => undefined,
    onArrayEnd: () => undefined,
    onObjectProperty: (key, _offset, _length, line, column, path) => {
      if (asked.has(key)) found([...path(), key], line, column);
    },
    onLiteralValue: (_value, _offset, _length, line, column, path) => {
      const at = path();
      if (isAsked(at)) found(at, line, column);
    },
  });
  return refusals.map(({ path, message }) => {
    for (let n = path.length; n >= 0; n--) {
      const spot = wanted.get(placeText(path.slice(0, n)));
      if (spot && spot.line > 0) return { place: placeText(path), line: spot.line, column: spot.column, message };
    }
    return { place: placeText(path), line: null, column: null, message };
  });
}
