/** A walk that was not kept as a log: it stays until the next one is made. */
export interface KeptWalk {
  /** What was pressed, as a log's text. */
  readonly log: string;
  /** The log that it went on from, or null for one of its own. */
  readonly onto: string | null;
  /** Somebody has said no to it; undo brings it back. */
  readonly discarded: boolean;
}
