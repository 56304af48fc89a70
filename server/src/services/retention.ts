import type { Knex } from "knex";
import type { Logger } from "pino";
import type { Desk } from "../desk/desk.ts";
import { FactRow } from "../models/fact-row.ts";
import { OutcomeRow } from "../models/outcome-row.ts";
import { ProofRunRow } from "../models/proof-run-row.ts";
import { RevisionRow } from "../models/revision-row.ts";
import { SearchRow } from "../models/search-row.ts";
import { WorldRow } from "../models/world-row.ts";
import { HISTORY } from "./proofs.ts";

const DAY_MS = 86_400_000;
const LOOK_MS = 3_600_000;
/** Number of the lock that whoever cleans holds. */
const CLEANING = 7_105_332;

/** What went. */
export interface Cleaned {
  readonly revisions: number;
  readonly runs: number;
  readonly outcomes: number;
  readonly searches: number;
  readonly worlds: number;
}

/**
 * Once a day takes away what nobody looks at any more: of what is older than so many days, revisions but for one a day,
 * runs and outcomes that are neither shown nor of a revision that somebody has said something of, and searches. Worlds
 * that were taken off the shelf go after as many days.
 */
export class Retention {
  private timer: NodeJS.Timeout | null = null;

  /** @param days how long everything is kept */
  constructor(
    private readonly db: Knex,
    private readonly desk: Desk,
    private readonly days: number,
    private readonly logger: Logger,
  ) {}

  start(): void {
    const look = (): void =>
      void this.daily().catch((error: unknown) => this.logger.warn({ err: error }, "could not take away what is old"));
    this.timer = setInterval(look, LOOK_MS);
    this.timer.unref();
    look();
  }

  stop(): void {
    if (this.timer !== null) clearInterval(this.timer);
  }

  /** Cleans, where nobody has within a day. */
  private async daily(): Promise<void> {
    const now = new Date();
    const due = await this.db.transaction(async (trx) => {
      const { rows } = await trx.raw<{ rows: { mine: boolean }[] }>("select pg_try_advisory_xact_lock(?) as mine", [
        CLEANING,
      ]);
      if (!rows[0]!.mine) return false;
      const last = await FactRow.query(trx).findById("cleaned");
      if (last !== undefined && now.getTime() - Date.parse(String(last.value)) < DAY_MS) return false;
      await FactRow.query(trx).insert({ name: "cleaned", value: now.toISOString() }).onConflict("name").merge();
      return true;
    });
    if (due) this.logger.info(await this.clean(now), "what was old went");
  }

  /** Takes away what is old at a moment. */
  async clean(now: Date): Promise<Cleaned> {
    const before = new Date(now.getTime() - this.days * DAY_MS);
    const worlds = await WorldRow.query(this.db).delete().where("deletedAt", "<", before);
    const searches = await SearchRow.query(this.db)
      .delete()
      .whereNot("state", "running")
      .where("startedAt", "<", before);
    let revisions = 0;
    const old = await RevisionRow.query(this.db)
      .select("worldId")
      .where("savedAt", "<", before)
      .groupBy("worldId")
      .havingRaw("count(*) > 1");
    for (const { worldId } of old) revisions += await this.desk.ask("thin", { worldId, before: before.toISOString() });
    const runs = await this.dropRuns(before);
    const outcomes = await this.dropOutcomes(before);
    return { revisions, runs, outcomes, searches, worlds };
  }

  /** Runs of revisions that are gone, and old ones that are neither among the last of their world nor of a noted revision. */
  private async dropRuns(before: Date): Promise<number> {
    const gone = await ProofRunRow.query(this.db)
      .delete()
      .whereNotExists(
        RevisionRow.query()
          .whereColumn("revisions.worldId", "proof_runs.worldId")
          .whereColumn("revisions.number", "proof_runs.revision"),
      );
    const old = await ProofRunRow.query(this.db)
      .delete()
      .whereNot("state", "running")
      .where("startedAt", "<", before)
      .whereRaw(
        `(select count(*) from proof_runs later where later."worldId" = proof_runs."worldId" and later.revision > proof_runs.revision) >= ?`,
        [HISTORY],
      )
      .whereNotExists(
        RevisionRow.query()
          .whereColumn("revisions.worldId", "proof_runs.worldId")
          .whereColumn("revisions.number", "proof_runs.revision")
          .whereNotNull("note"),
      );
    return gone + old;
  }

  /** Old outcomes of no run that is left and of no newest revision. */
  private async dropOutcomes(before: Date): Promise<number> {
    return OutcomeRow.query(this.db)
      .delete()
      .where("madeAt", "<", before)
      .whereNotExists(ProofRunRow.query().whereColumn("proof_runs.worldHash", "outcomes.worldHash"))
      .whereRaw(
        `not exists (select 1 from revisions r join worlds w on w.id = r."worldId" and w.revision = r.number where r."contentHash" = outcomes."worldHash")`,
      );
  }
}
