import { Model } from "objection";

/** A log that a job is to run in a world, by the hashes of both. */
export class PendingProofRow extends Model {
  static override tableName = "pending_proofs";
  static override idColumn = ["worldHash", "logHash"];

  declare worldHash: string;
  declare logHash: string;
  declare worldId: number;
  declare jobId: string;
}
