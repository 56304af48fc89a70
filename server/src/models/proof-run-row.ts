import { Model } from "objection";

/** All logs of one revision of a world, proven or being proven. */
export class ProofRunRow extends Model {
  static override tableName = "proof_runs";
  static override idColumn = ["worldId", "revision"];
  static override jsonAttributes = ["logs"];

  declare worldId: number;
  declare revision: number;
  declare worldHash: string;
  /** Hash of each log's text by its id, as the revision has them. */
  declare logs: Record<string, string>;
  declare total: number;
  declare state: "running" | "done" | "cancelled" | "failed";
  /** How many of them hold; counted once it is done. */
  declare holds: number;
  declare startedAt: Date;
  declare finishedAt: Date | null;
}
