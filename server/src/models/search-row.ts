import { Model } from "objection";

/** A search over revisions for the one that broke a check. */
export class SearchRow extends Model {
  static override tableName = "searches";
  static override jsonAttributes = ["found"];

  declare id: string;
  declare worldId: number;
  declare log: string;
  declare check: string;
  declare state: "running" | "found" | "never-held" | "holds" | "cancelled" | "failed";
  /** A revision at which it held and one at which it fails: it looks in between. */
  declare good: number | null;
  declare bad: number | null;
  declare found: {
    readonly revision: number;
    readonly summary: string;
    readonly frame: number;
    readonly seen: string | null;
  } | null;
  declare startedAt: Date;
}
