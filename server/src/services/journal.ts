import type { Knex } from "knex";
import type { AcceptedAt, RevisionList } from "../api.ts";
import { ProofRunRow } from "../models/proof-run-row.ts";
import { RevisionRow } from "../models/revision-row.ts";
import type { Entries } from "./entries.ts";
import { journalText } from "./journal-text.ts";
import { NotFoundError } from "./service-errors.ts";
import type { Shelf } from "./shelf.ts";

/** Revisions of one answer. */
const PAGE = 200;

/** The revisions of a world with what the proofs said at each. */
export class Journal {
  constructor(
    private readonly db: Knex,
    private readonly shelf: Shelf,
    private readonly entries: Entries,
  ) {}

  /** The revision at which the walk that a log accepts now was accepted; the last one, where that was done again. */
  async acceptedAt(slug: string, log: string): Promise<AcceptedAt> {
    const row = await this.shelf.row(slug);
    const text = await this.shelf.log(slug, log);
    // The header's line; reading a whole log for it may take a second.
    const accept = /\naccept ([0-9a-f]{64})\n/.exec(text.slice(0, text.indexOf("\n---\n") + 1))?.[1];
    if (accept === undefined) throw new NotFoundError("accepted walk of log", log);
    const line = `\naccept ${accept}\n`;
    const { rows } = await this.db.raw<{ rows: { number: number }[] }>(
      `select r.number from revisions r, jsonb_array_elements(r.steps) s
        where r."worldId" = ? and s ->> 'log' = ? and position(? in coalesce(s ->> 'after', s ->> 'text')) > 0 and position(? in coalesce(s ->> 'before', '')) = 0
        order by r.number desc limit 1`,
      [row.id, log, line, line],
    );
    // One that came in with the world was accepted before it was here.
    return { revision: rows[0]?.number ?? 1 };
  }

  /** The Journal as Markdown, with the pictures of its entries and what the proofs said. */
  async text(slug: string): Promise<string> {
    const row = await this.shelf.row(slug);
    const runs = await ProofRunRow.query(this.db)
      .select("revision", "state", "total", "holds")
      .where("worldId", row.id)
      .where("state", "done");
    return journalText(row.name, await this.shelf.revisions(row), await this.entries.all(row.id), runs);
  }

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
      .whereIn(
        "revision",
        rows.map(({ number }) => number),
      );
    const entries = await this.entries.between(
      id,
      rows.length < PAGE ? 0 : rows.at(-1)!.number,
      before === null ? null : before - 1,
    );
    const byRevision = new Map(runs.map(({ revision, state, total, holds }) => [revision, { state, total, holds }]));
    const last = rows.at(-1)?.number ?? 1;
    return {
      revisions: rows.map(({ number, summary, note, savedAt }) => ({
        revision: number,
        summary,
        note,
        savedAt: savedAt.toISOString(),
        proofs: byRevision.get(number) ?? null,
      })),
      entries,
      before: last > 1 ? last : null,
    };
  }
}
