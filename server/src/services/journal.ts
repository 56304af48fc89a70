import type { Knex } from "knex";
import type { RevisionList } from "../api.ts";
import { ProofRunRow } from "../models/proof-run-row.ts";
import { RevisionRow } from "../models/revision-row.ts";
import type { Shelf } from "./shelf.ts";

/** Revisions of one answer. */
const PAGE = 200;

/** The revisions of a world with what the proofs said at each. */
export class Journal {
  constructor(
    private readonly db: Knex,
    private readonly shelf: Shelf,
  ) {}

  /** The newest revisions, or those before one, newest first. */
  async list(slug: string, before: number | null): Promise<RevisionList> {
    const { id } = await this.shelf.row(slug);
    const rows = await RevisionRow.query(this.db)
      .select("number", "summary", "note", "savedAt")
      .where("worldId", id)
      .modify((query) => {
        if (before !== null) void query.where("number", "<", before);
      })
      .orderBy("number", "desc")
      .limit(PAGE);
    const runs = await ProofRunRow.query(this.db)
      .select("revision", "state", "total", "holds")
      .where("worldId", id)
      .whereIn("revision", rows.map(({ number }) => number));
    const byRevision = new Map(runs.map(({ revision, state, total, holds }) => [revision, { state, total, holds }]));
    const last = rows.at(-1)?.number ?? 1;
    return {
      revisions: rows.map(({ number, summary, note, savedAt }) => ({ revision: number, summary, note, savedAt: savedAt.toISOString(), proofs: byRevision.get(number) ?? null })),
      before: last > 1 ? last : null,
    };
  }
}
