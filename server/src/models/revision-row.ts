import type { EditStep } from "@keen-pebble/core/edit";
import { Model } from "objection";

/** A whole project as it is stored in a snapshot: files as texts. */
export interface Snapshot {
  readonly world: string;
  readonly logs: Readonly<Record<string, string>>;
}

/** One revision of a world: the steps that made it, and now and then all of it. */
export class RevisionRow extends Model {
  static override tableName = "revisions";
  static override idColumn = ["worldId", "number"];
  static override jsonAttributes = ["steps", "snapshot"];

  declare worldId: number;
  declare number: number;
  declare batch: string;
  declare steps: EditStep[];
  declare snapshot: Snapshot | null;
  declare summary: string;
  declare note: string | null;
  declare contentHash: string;
  declare savedAt: Date;
}
