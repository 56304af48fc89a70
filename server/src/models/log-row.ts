import { Model } from "objection";

/** A log of a world's newest revision. */
export class LogRow extends Model {
  static override tableName = "logs";
  static override idColumn = ["worldId", "log"];

  declare worldId: number;
  declare log: string;
  declare text: string;
  declare frames: number;
  declare hash: string;
  declare title: string | null;
  /** How many checks it has. */
  declare checks: number;
}
