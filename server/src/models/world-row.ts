import type { QueryBuilder, TransactionOrKnex } from "objection";
import { Model } from "objection";

/** A world on the shelf; what it holds stands in its revisions. */
export class WorldRow extends Model {
  static override tableName = "worlds";
  static override jsonAttributes = ["roomNames"];

  declare id: number;
  /** The world's id in its file. */
  declare slug: string;
  declare name: string;
  /** Number of the newest revision. */
  declare revision: number;
  declare rooms: number;
  /** What its rooms are called; null for a world that was stored before this was kept. */
  declare roomNames: string[] | null;
  declare savedAt: Date;
  /** When it was taken off the shelf; null while it stands there. */
  declare deletedAt: Date | null;

  /** The worlds that stand on the shelf. */
  static onShelf(db: TransactionOrKnex): QueryBuilder<WorldRow> {
    return WorldRow.query(db).whereNull("worlds.deletedAt");
  }
}
