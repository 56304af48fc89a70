import { Model } from "objection";

/** A job that a process works on: it holds the advisory lock of its number for as long as it lives. */
export class TakenJobRow extends Model {
  static override tableName = "taken_jobs";
  static override idColumn = "jobId";

  declare jobId: string;
  /** Digits of the number of the process. */
  declare worker: string;
}
