import Papa from "papaparse";
import { RefusedError } from "../base/refused-error.ts";
import { plainText } from "../base/plain-text.ts";
import { LIMITS } from "../world/limits.ts";

/** A table out of a CSV file (RFC 4180): the names of its columns, and its rows as texts. */
export interface CsvTable {
  readonly columns: readonly string[];
  readonly rows: readonly (readonly string[])[];
}

/**
 * Reads a CSV file with a header. Lines end in CRLF or LF.
 * @param name what to call it in errors
 * @param delimiter what parts the fields
 * @throws {RefusedError} with the row where quotes are broken or a row is shorter or longer than the header. Row 1 is
 *   the header; a row is a line wherever no quoted field goes over several.
 */
export function readCsv(text: string, name: string, delimiter = ","): CsvTable {
  const refuse = (line: number, message: string): never => {
    throw new RefusedError(name, [{ place: "", line, column: null, message }]);
  };
  if (text.length > LIMITS.csvBytes) refuse(1, `is larger than ${LIMITS.csvBytes} bytes`);
  const { data, errors } = Papa.parse<string[]>(plainText(text), { delimiter, skipEmptyLines: false });
  const broken = errors[0];
  if (broken) refuse((broken.row ?? 0) + 1, `broken CSV: ${broken.message}`);
  if (data.length > 0 && data.at(-1)!.length === 1 && data.at(-1)![0] === "") data.pop();
  const columns = data[0];
  if (columns === undefined) return refuse(1, "expected a header with the names of the columns, found nothing");
  columns.forEach((column, i) => {
    if (columns.indexOf(column) !== i) refuse(1, `column ${column} stands twice`);
  });
  for (let i = 1; i < data.length; i++) {
    if (data[i]!.length !== columns.length)
      refuse(i + 1, `expected ${columns.length} fields as in the header, found ${data[i]!.length}`);
  }
  return { columns, rows: data.slice(1) };
}
