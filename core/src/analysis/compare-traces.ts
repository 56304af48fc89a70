import type { ReadTrace } from "../formats/read-trace.ts";

/** The first frame in which two traces differ. */
export interface TraceDifference {
  readonly frame: number;
  /** What differs, with both values. Empty where one of them has no row of that frame. */
  readonly columns: readonly { readonly column: string; readonly a: string; readonly b: string }[];
  /** Which of them lacks the row, or null. */
  readonly missing: "a" | "b" | null;
}

/** Compares two traces in the columns that both have, frame by frame; null where they are equal (formats.md section 7). */
export function compareTraces(a: ReadTrace, b: ReadTrace): TraceDifference | null {
  const common = a.columns.filter((column) => column !== "frame" && b.columns.includes(column));
  const inA = common.map((column) => a.columns.indexOf(column));
  const inB = common.map((column) => b.columns.indexOf(column));
  for (let i = 0; i < Math.max(a.rows.length, b.rows.length); i++) {
    const rowA = a.rows[i];
    const rowB = b.rows[i];
    const frameA = rowA ? Number(rowA[0]) : Infinity;
    const frameB = rowB ? Number(rowB[0]) : Infinity;
    if (frameA !== frameB)
      return { frame: Math.min(frameA, frameB), columns: [], missing: frameA > frameB ? "a" : "b" };
    const columns = common.flatMap((column, n) => {
      const [valueA, valueB] = [rowA![inA[n]!]!, rowB![inB[n]!]!];
      return valueA === valueB ? [] : [{ column, a: valueA, b: valueB }];
    });
    if (columns.length > 0) return { frame: frameA, columns, missing: null };
  }
  return null;
}
