import type { Verdict } from "@keen-pebble/core";
import { Model } from "objection";

/** What a run of a log in a world came to, for these very contents: whoever has both again need not run it again. */
export class OutcomeRow extends Model {
  static override tableName = "outcomes";
  static override idColumn = ["worldHash", "logHash"];
  static override jsonAttributes = ["checks"];

  declare worldHash: string;
  declare logHash: string;
  declare holds: boolean;
  /** Why it could not be run; what follows is null then. */
  declare refused: string | null;
  declare status: string | null;
  declare frames: number | null;
  declare fingerprint: string | null;
  declare checks: Verdict[];
}
