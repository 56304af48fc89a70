import { Model } from "objection";
import type { EntryKind } from "../api.ts";

/** An entry that somebody wrote into a world's Journal. */
export class EntryRow extends Model {
  static override tableName = "journal_entries";

  declare id: number;
  declare worldId: number;
  declare kind: EntryKind;
  declare text: string;
  declare revision: number;
  declare log: string | null;
  declare frame: number | null;
  /** A PNG. */
  declare picture: Buffer | null;
  /** What whoever sent it from outside wants to be called; null for what was written by hand. */
  declare sender: string | null;
  declare writtenAt: Date;
}
