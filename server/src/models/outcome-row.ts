import type { ReachRuling, Verdict } from "@keen-pebble/core/check";
import { Model } from "objection";

/** What a run of a log in a world came to, for these very contents: whoever has both again need not run it again. */
export class OutcomeRow extends Model {
  static override tableName = "outcomes";
  static override idColumn = ["worldHash", "logHash"];
  static override jsonAttributes = ["checks", "reach"];

  declare worldHash: string;
  declare logHash: string;
  declare holds: boolean;
  /** Why it could not be run; what follows is null then. */
  declare refused: string | null;
  declare status: string | null;
  declare frames: number | null;
  /** Only where a walk was accepted for the log; and whether it is the same. */
  declare fingerprint: string | null;
  declare accepted: boolean | null;
  /** Digits of the number of the process that ran it. */
  declare worker: string | null;
  declare checks: Verdict[];
  /** Of all play: what the world's reach checks come to; null for a log. */
  declare reach: ReachRuling[] | null;
}
