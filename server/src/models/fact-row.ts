import { Model } from "objection";

/** Something that the installation remembers about itself. */
export class FactRow extends Model {
  static override tableName = "facts";
  static override idColumn = "name";
  static override jsonAttributes = ["value"];

  declare name: string;
  declare value: unknown;
}
