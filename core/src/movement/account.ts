/** Where a candidate direction came from (semantics.md section 4.5). */
export type CandidateSource = "buffered" | "intent" | "second choice" | "diagonal" | "x alone" | "y alone" | "keep going";

/** A place at which the body was tested, in units. */
export interface TestedPlace {
  readonly x: number;
  readonly y: number;
  readonly free: boolean;
}

export interface TestedCandidate {
  readonly source: CandidateSource;
  readonly dx: number;
  readonly dy: number;
  readonly places: TestedPlace[];
  readonly taken: boolean;
}

/**
 * What one frame saw and decided, written by the very code that moves the walker. `step` is handed one only when a
 * frame is to be explained; otherwise it is null and costs a comparison.
 */
export interface Account {
  /** The walker turned round on its leg, or could not: the place where the leg began was tested. */
  reverse: { readonly place: TestedPlace; readonly turned: boolean } | null;
  /** The choices made in this frame, in order, each with its tested candidates. */
  readonly choices: TestedCandidate[][];
  /** The movement of the frame in pieces: units along each axis, and progress of the leg after it. */
  /** What a free movement wanted and travelled along each axis, in units, and the cell that stopped it. */
  free: { readonly wanted: readonly [number, number]; readonly travelled: readonly [number, number]; readonly slidOrNudged: boolean; readonly stop: { readonly cx: number; readonly cy: number } | null } | null;
  readonly advances: { readonly dx: number; readonly dy: number; readonly gone: number; readonly ended: boolean }[];
}

/** An account with nothing in it yet. */
export function newAccount(): Account {
  return { reverse: null, choices: [], free: null, advances: [] };
}
