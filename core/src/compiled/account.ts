/** Where a candidate direction came from (semantics.md section 4.5). */
export type CandidateSource =
  | "buffered"
  | "intent"
  | "second choice"
  | "diagonal"
  | "x alone"
  | "y alone"
  | "keep going";

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

/** Displacements along the tested axis, in units, at which the body or one probe overlaps a shape, and its bounding box. */
export interface MetRange {
  readonly lo: number;
  readonly hi: number;
  readonly boxLo: number;
  readonly boxHi: number;
}

/** A solid shape that a free movement came upon. */
export interface MetShape {
  readonly cx: number;
  readonly cy: number;
  readonly poly: boolean;
  /** The body was in it before the axis moved: `contact` and `snap` do not count it. */
  readonly inside: boolean;
  /** One for a box body; for a body of probes one for each probe that can meet it. */
  readonly ranges: readonly MetRange[];
}

/** One axis of a free movement, or both at once (`undo-both`). All in units. */
export interface AxisMove {
  readonly axis: "x" | "y" | "both";
  readonly fromX: number;
  readonly fromY: number;
  /** What was to be moved. */
  readonly dx: number;
  readonly dy: number;
  /** The one place that was tested (`undo-axis`, `undo-both`, `ahead`); null where the way was (`contact`, `snap`). */
  readonly place: TestedPlace | null;
  /** The shapes on the way; empty where only a place was tested. */
  readonly shapes: readonly MetShape[];
  /** Displacement at which the shapes that stop it are met; 0 where only a place was tested. */
  readonly stopAt: number;
  /** What was moved before any slope. */
  readonly movedX: number;
  readonly movedY: number;
  /** The steps along a slope after it: along the axis and aside. */
  readonly slope: readonly { readonly along: number; readonly aside: number }[];
}

/** What `nudge` tried and moved: px aside, negative first, and whether the body was free there (semantics.md section 4.3). */
export interface Nudge {
  /** The axis that it moves along: the one without an intent. */
  readonly axis: "x" | "y";
  readonly tried: readonly { readonly px: number; readonly place: TestedPlace }[];
  /** Units moved aside. */
  readonly moved: number;
}

/** What an actor was about in a frame, and what it chose (semantics.md section 9). */
export interface ActorAccount {
  /** Its number among all actors. */
  readonly actor: number;
  readonly phase: number;
  /** Frames that the phase lasts after this one; null for ever. */
  readonly framesLeft: number | null;
  /** The direction of the leg that it began, 0 to 3 for L, R, U, D, -1 for none; null where it was on a leg. */
  readonly chose: number | null;
  /**
   * The four directions where it chose: whether each was open or shut, or left out because it turns back; and of open
   * ones the walker's distance from there, where that counts.
   */
  readonly directions: readonly {
    readonly dx: number;
    readonly dy: number;
    readonly is: "open" | "shut" | "back";
    readonly distance: number | null;
  }[];
  /** The cell of its path that it goes to; null without a path. */
  readonly target: readonly [number, number] | null;
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
  /** Movement by hops and along legs, in pieces: units along each axis, and progress of the leg after it. */
  readonly advances: {
    readonly what: "hop" | "leg";
    readonly dx: number;
    readonly dy: number;
    readonly progress: number;
    readonly ended: boolean;
  }[];
  /** The axes of a free movement in the order in which they moved. */
  readonly axes: AxisMove[];
  nudge: Nudge | null;
  /** Velocity after the frame in units, of gaits that keep one. */
  velocity: readonly [number, number] | null;
  /** What crossing a side moved the walker by, in units of the room that it came into. */
  readonly crossings: { readonly dx: number; readonly dy: number }[];
  /** The actors of the walker's room, in file order. */
  readonly actors: ActorAccount[];
}

/** An account with nothing in it yet. */
export function newAccount(): Account {
  return { reverse: null, choices: [], advances: [], axes: [], nudge: null, velocity: null, crossings: [], actors: [] };
}
