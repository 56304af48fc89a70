import { CoreError } from "./core-error.ts";

/** One thing that is wrong with a file: where, and what was expected there. */
export interface Refusal {
  /** `rooms[2].fixtures[5].cell` in JSON, `header` or `line` in text; empty for the file as a whole. */
  readonly place: string;
  /** 1-based, where the place is known in the text. */
  readonly line: number | null;
  /** 1-based, in UTF-16 code units, where the place is known in the text. */
  readonly column: number | null;
  readonly message: string;
}

/** A refusal in one line: `line 12, column 5: rooms[0].width: must be ...`. */
export function refusalText(refusal: Refusal): string {
  const at =
    refusal.line === null
      ? ""
      : refusal.column === null
        ? `line ${refusal.line}: `
        : `line ${refusal.line}, column ${refusal.column}: `;
  return `${at}${refusal.place === "" ? "" : `${refusal.place}: `}${refusal.message}`;
}

/** A file from outside that a strict reader does not take (formats.md, opening). Nothing of it is kept. */
export class RefusedError extends CoreError {
  constructor(
    readonly what: string,
    readonly refusals: readonly Refusal[],
  ) {
    const first = refusals[0];
    super(
      "refused",
      `${what} is refused: ${first ? refusalText(first) : "it cannot be read"}${refusals.length > 1 ? ` (and ${refusals.length - 1} more)` : ""}`,
      refusals,
    );
  }
}
