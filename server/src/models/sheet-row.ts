import { Model } from "objection";

/** An image sheet of a world: the bytes of a PNG. */
export class SheetRow extends Model {
  static override tableName = "sheets";
  static override idColumn = ["worldId", "file"];

  declare worldId: number;
  /** Its file's name, as the world's `sheets` give it. */
  declare file: string;
  declare png: Buffer;
}
