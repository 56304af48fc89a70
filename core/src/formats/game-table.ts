import { plainText } from "../base/plain-text.ts";
import { RefusedError } from "../base/refused-error.ts";
import { LIMITS } from "../world/limits.ts";
import type { CsvTable } from "./csv-table.ts";
import { readCsv } from "./csv-table.ts";

/** Fields of CSV may be parted by these. */
const DELIMITERS = [",", ";", "\t"] as const;

/**
 * Reads what a game wrote down, as a table: CSV parted by commas, semicolons or tabs, or JSON Lines, an object a line
 * (formats.md section 9). What an object does not have is empty; a list is its parts with blanks between.
 * @throws {RefusedError} with the line and what was expected
 */
export function readGameTable(text: string, name = "the recording"): CsvTable {
  const plain = plainText(text);
  if (/^\s*\{/.test(plain)) return readJsonLines(plain, name);
  const header = plain.slice(0, plain.indexOf("\n") < 0 ? undefined : plain.indexOf("\n"));
  const count = (delimiter: string): number => header.split(delimiter).length;
  const delimiter = DELIMITERS.reduce((best, each) => (count(each) > count(best) ? each : best));
  return readCsv(plain, name, delimiter);
}

function readJsonLines(text: string, name: string): CsvTable {
  const refuse = (line: number, message: string): never => {
    throw new RefusedError(name, [{ place: "", line, column: null, message }]);
  };
  if (text.length > LIMITS.csvBytes) refuse(1, `is larger than ${LIMITS.csvBytes} bytes`);
  const columns = new Map<string, number>();
  const found: ReadonlyMap<string, string>[] = [];
  text.split("\n").forEach((line, i) => {
    if (line.trim() === "") return;
    let value: unknown;
    try {
      value = JSON.parse(line);
    } catch {
      refuse(i + 1, "is no JSON: expected an object a line");
    }
    if (typeof value !== "object" || value === null || Array.isArray(value))
      return refuse(i + 1, 'expected an object, such as {"frame": 1, "keys": ["LEFT"]}');
    const row = new Map<string, string>();
    for (const [key, each] of Object.entries(value)) {
      const field = fieldOf(each);
      if (field === null) return refuse(i + 1, `${key.slice(0, 40)}: expected a text, a number or a list of them`);
      if (!columns.has(key)) columns.set(key, columns.size);
      row.set(key, field);
    }
    found.push(row);
  });
  const names = [...columns.keys()];
  return { columns: names, rows: found.map((row) => names.map((column) => row.get(column) ?? "")) };
}

/** A value of JSON as a field of a table; null where it is none. */
function fieldOf(value: unknown): string | null {
  if (value === null || value === undefined) return "";
  if (Array.isArray(value)) {
    const parts = value.map(fieldOf);
    return parts.includes(null) ? null : parts.join(" ");
  }
  if (typeof value === "object") return null;
  return typeof value === "string" ? value : JSON.stringify(value);
}
