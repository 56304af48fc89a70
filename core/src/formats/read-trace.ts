import { quoted } from "../base/quoted.ts";
import { TRACE_COLUMNS } from "../simulation/trace.ts";
import { RefusedError } from "../base/refused-error.ts";
import { readCsv } from "./csv-table.ts";

const NEEDED = ["frame", "room", "x", "y"] as const;
const NUMBERS: ReadonlySet<string> = new Set(["x", "y", "cx", "cy", "pose", "moving", "aligned"]);

/** A trace as a file gives it: of this program, or of another that writes at least frame, room, x and y. */
export interface ReadTrace {
  /** Those of `TRACE_COLUMNS` that it has. */
  readonly columns: readonly string[];
  /** A row's fields, in the order of `columns`; the frame is the first. Rows are in order of frames. */
  readonly rows: readonly (readonly string[])[];
}

/**
 * Reads a trace strictly (formats.md section 3).
 * @throws {RefusedError} with the line and what was expected
 */
export function readTrace(text: string, name = "the trace"): ReadTrace {
  const refuse = (line: number, place: string, message: string): never => {
    throw new RefusedError(name, [{ place, line, column: null, message }]);
  };
  const { columns: given, rows } = readCsv(text, name);
  const missing = NEEDED.filter((column) => !given.includes(column));
  if (missing.length > 0) refuse(1, "header", `lacks the column ${missing.join(", ")}`);
  const unknown = given.find((column) => !(TRACE_COLUMNS as readonly string[]).includes(column));
  if (unknown !== undefined)
    refuse(1, "header", `has the column ${quoted(unknown)}; expected some of ${TRACE_COLUMNS.join(", ")}`);
  const columns = TRACE_COLUMNS.filter((column) => given.includes(column));
  const places = columns.map((column) => given.indexOf(column));
  let last = -1;
  const ordered = rows.map((row, i) => {
    const fields = places.map((place) => row[place]!);
    fields.forEach((field, n) => {
      if (NUMBERS.has(columns[n]!) && !/^-?\d{1,9}$/.test(field))
        refuse(i + 2, columns[n]!, `expected a whole number, found ${quoted(field)}`);
    });
    const frame = /^\d{1,8}$/.test(fields[0]!) ? Number(fields[0]) : -1;
    if (frame <= last)
      refuse(i + 2, "frame", `expected a frame number greater than ${last}, found ${quoted(fields[0]!)}`);
    last = frame;
    return fields;
  });
  return { columns, rows: ordered };
}
