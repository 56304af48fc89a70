import { randomUUID } from "node:crypto";
import type { Knex } from "knex";
import type { Model } from "objection";
import type { LogOutcome, ProofState, WorldOutcomes, WorldProofs } from "../api.ts";
import type { Queue } from "../jobs/queue.ts";
import type { Signals } from "../jobs/signals.ts";
import { LogRow } from "../models/log-row.ts";
import { OutcomeRow } from "../models/outcome-row.ts";
import { PendingProofRow } from "../models/pending-proof-row.ts";
import { ProofRunRow } from "../models/proof-run-row.ts";
import { RevisionRow } from "../models/revision-row.ts";
import { WorldRow } from "../models/world-row.ts";
import type { Shelf } from "./shelf.ts";

/** Stores what logs came to; what is stored already stays as it is. */
export async function storeOutcomes(trx: Knex.Transaction, outcomes: readonly Outcome[]): Promise<void> {
  if (outcomes.length === 0) return;
  // Not through the models: they would take what comes back for all that was handed in.
  await trx("outcomes")
    .insert(
      outcomes.map((outcome) => ({
        ...outcome,
        checks: JSON.stringify(outcome.checks),
        reach: outcome.reach === null ? null : JSON.stringify(outcome.reach),
      })),
    )
    .onConflict(["worldHash", "logHash"])
    .ignore();
}

/** An outcome as it is stored. */
export type Outcome = Omit<OutcomeRow, keyof Model>;

/** Stands for a log's hash where a world's reach checks are meant: they are about all play, and no log's. */
export const ALL_PLAY = "all-play";

/** How the logs of a revision are parted into jobs. */
export interface Slices {
  /** At most so many logs, and about so many frames, where looking at ten checks counts as a frame. */
  readonly logs: number;
  readonly frames: number;
}

/** Runs of which the board shows the history. */
export const HISTORY = 8;
/** Rows of one statement. */
const ROWS = 1000;

/**
 * Proves all logs of a world's newest revision: each is run once for the contents of world and log, by whatever process
 * takes the job, and what it came to is kept by both (architecture.md, flow 5).
 */
export class Proofs {
  constructor(
    private readonly db: Knex,
    private readonly shelf: Shelf,
    private readonly queue: Queue,
    private readonly signals: Signals,
    private readonly slices: Slices,
    /** How long an answer that wants all outcomes waits for them, in ms. */
    private readonly patience: number,
  ) {}

  /** Asks for the proofs of the newest revision. What is known or under way already is not run again. */
  async request(slug: string): Promise<ProofState> {
    const row = await this.shelf.row(slug);
    const state = await this.db.transaction((trx) => this.enqueue(trx, row.id));
    await this.signals.tell("jobs");
    await this.signals.tell("proofs", row.id);
    return state;
  }

  /** Takes back what is under way for a world. Outcomes that are there stay. */
  async cancel(slug: string): Promise<ProofState> {
    const row = await this.shelf.row(slug);
    const jobs = await this.db.transaction(async (trx) => {
      const dropped = await this.drop(trx, row.id, null);
      await ProofRunRow.query(trx)
        .patch({ state: "cancelled", finishedAt: new Date() })
        .where({ worldId: row.id, state: "running" });
      return dropped;
    });
    if (jobs.length > 0) await this.signals.tellCancelled(jobs);
    await this.signals.tell("proofs", row.id);
    return this.state(row);
  }

  /** How the proofs of the newest revision stand. */
  async state(row: Pick<WorldRow, "id" | "revision">): Promise<ProofState> {
    const run = await ProofRunRow.query(this.db).where("worldId", row.id).orderBy("revision", "desc").first();
    if (!run) return { revision: row.revision, state: "none", done: 0, total: 0, holds: 0 };
    const { done, holds } = run.state === "done" ? { done: run.total, holds: run.holds } : await countOf(this.db, run);
    return { revision: run.revision, state: run.state, done, total: run.total, holds };
  }

  /** The newest outcomes with the history of the last runs. */
  async ofWorld(slug: string): Promise<WorldProofs> {
    const row = await this.shelf.row(slug);
    const state = await this.state(row);
    const runs = await ProofRunRow.query(this.db)
      .where("worldId", row.id)
      .whereIn("state", ["done", "running"])
      .orderBy("revision", "desc")
      .limit(HISTORY);
    const summaries = await RevisionRow.query(this.db)
      .select("number", "summary")
      .where("worldId", row.id)
      .whereIn(
        "number",
        runs.map((run) => run.revision),
      );
    const history = [];
    for (const run of runs) {
      const known = await this.known(this.db, run.worldHash, Object.values(run.logs));
      const logs = Object.fromEntries(
        Object.entries(run.logs).flatMap(([log, hash]) =>
          known.has(hash) ? [[log, verdictOf(known.get(hash)!)] as const] : [],
        ),
      );
      history.push({
        revision: run.revision,
        summary: summaries.find(({ number }) => number === run.revision)?.summary ?? "",
        logs,
      });
    }
    return { proofs: state, history: history.reverse() };
  }

  /** What each log comes to at the newest revision, in order of their ids; waits a while for what is not known yet. */
  async outcomes(slug: string): Promise<Known> {
    const row = await this.shelf.row(slug);
    const asked = await this.db.transaction((trx) => this.enqueue(trx, row.id));
    await this.signals.tell("jobs");
    if (asked.state !== "done") await this.finished(row.id, asked.revision);
    const run = await ProofRunRow.query(this.db).findById([row.id, asked.revision]).throwIfNotFound();
    const known = await this.known(this.db, run.worldHash, [...Object.values(run.logs), ALL_PLAY]);
    const allPlay = known.get(ALL_PLAY);
    const outcomes = Object.keys(run.logs)
      .sort()
      .flatMap((log): LogOutcome[] => {
        const outcome = known.get(run.logs[log]!);
        if (outcome === undefined) return [];
        const { holds, refused, status, frames, fingerprint, accepted, checks } = outcome;
        return [{ log, holds, refused, status, frames, fingerprint, accepted, checks }];
      });
    return {
      revision: run.revision,
      outcomes,
      reach: allPlay?.reach ?? null,
      missing: Object.keys(run.logs)
        .sort()
        .filter((log) => !known.has(run.logs[log]!)),
    };
  }

  /** Resolves once a run is over, or after a while. */
  private async finished(worldId: number, revision: number): Promise<void> {
    await new Promise<void>((resolve) => {
      const end = (): void => {
        clearTimeout(timer);
        stop();
        resolve();
      };
      const look = (): void =>
        void ProofRunRow.query(this.db)
          .findById([worldId, revision])
          .then((run) => {
            if (run?.state !== "running") end();
          }, end);
      const stop = this.signals.on("proofs", (world) => {
        if (world === worldId) look();
      });
      const timer = setTimeout(end, this.patience);
      look();
    });
  }

  /** Puts everything that is not known of the newest revision into jobs. */
  private async enqueue(trx: Knex.Transaction, worldId: number): Promise<ProofState> {
    const row = await WorldRow.query(trx).findById(worldId).forUpdate().throwIfNotFound();
    const { contentHash } = await RevisionRow.query(trx)
      .select("contentHash")
      .findById([worldId, row.revision])
      .throwIfNotFound();
    const logs = await LogRow.query(trx)
      .select("log", "hash", "frames", "checks")
      .where("worldId", worldId)
      .orderBy("log");
    const hashes = Object.fromEntries(logs.map(({ log, hash }) => [log, hash]));
    // What was asked for an older revision and is not begun yet is of no use any more.
    const dropped = await this.drop(trx, worldId, contentHash);
    if (dropped.length > 0) await this.signals.tellCancelled(dropped);
    const known = await this.known(trx, contentHash, [...Object.values(hashes), ALL_PLAY]);
    const missing = [...new Map(logs.filter(({ hash }) => !known.has(hash)).map((log) => [log.hash, log])).values()];
    const run = {
      worldId,
      revision: row.revision,
      worldHash: contentHash,
      logs: hashes,
      total: logs.length,
      state: "running" as const,
      holds: 0,
      finishedAt: null,
      startedAt: new Date(),
    };
    // What is pending first and the runs last, as whoever stores outcomes does: else the two could wait for each other.
    await this.putJobs(trx, run, missing, !known.has(ALL_PLAY));
    await ProofRunRow.query(trx)
      .patch({ state: "cancelled", finishedAt: new Date() })
      .where({ worldId, state: "running" })
      .where("revision", "<", row.revision);
    await ProofRunRow.query(trx).insert(run).onConflict(["worldId", "revision"]).merge();
    await finish(trx, contentHash);
    const made = await ProofRunRow.query(trx).findById([worldId, row.revision]).throwIfNotFound();
    return {
      revision: row.revision,
      state: made.state,
      done: logs.filter(({ hash }) => known.has(hash)).length,
      total: logs.length,
      holds: made.holds,
    };
  }

  private async putJobs(
    trx: Knex.Transaction,
    run: Pick<ProofRunRow, "worldId" | "revision" | "worldHash">,
    missing: readonly LogRow[],
    asksReach: boolean,
  ): Promise<void> {
    const { worldId, revision, worldHash } = run;
    // All play is a job of its own, and the last: the search may take longer than all logs.
    const parts: (readonly Pick<LogRow, "hash">[])[] = slicesOf(missing, this.slices);
    if (asksReach) parts.push([{ hash: ALL_PLAY }]);
    const slices = parts.map((slice) => ({ id: randomUUID(), slice }));
    const queued: string[] = [];
    const rows = slices.flatMap(({ id, slice }) =>
      slice.map(({ hash }) => ({ worldHash, logHash: hash, worldId, jobId: id })),
    );
    for (let at = 0; at < rows.length; at += ROWS) {
      // Not through the models: they would take what comes back for all that was handed in.
      const inserted = await trx("pending_proofs")
        .insert(rows.slice(at, at + ROWS))
        .onConflict(["worldHash", "logHash"])
        .ignore()
        .returning<{ logHash: string }[]>("logHash");
      queued.push(...inserted.map(({ logHash }) => logHash));
    }
    // What was stored by a job that ended meanwhile is known by now, and is not run again.
    const stored = [...(await this.known(trx, worldHash, queued)).keys()];
    if (stored.length > 0) await PendingProofRow.query(trx).delete().where({ worldHash }).whereIn("logHash", stored);
    for (const hash of stored) queued.splice(queued.indexOf(hash), 1);
    const mine = new Set(queued);
    const { jobs: waiting } = await PendingProofRow.query(trx)
      .where({ worldId })
      .countDistinct("jobId as jobs")
      .first()
      .castTo<{ jobs: string }>();
    const before = Number(waiting) - slices.length;
    const jobs = slices
      .map(({ id, slice }) => ({ id, logs: slice.map(({ hash }) => hash).filter((hash) => mine.has(hash)) }))
      .filter(({ logs }) => logs.length > 0)
      // Fair between worlds: each world's first job comes before any world's second one.
      .map(({ id, logs }, i) => ({
        id,
        data: { worldId, revision, worldHash, logs },
        priority: -Math.max(0, before) - i,
      }));
    for (let at = 0; at < jobs.length; at += ROWS) await this.queue.put(trx, "prove", jobs.slice(at, at + ROWS));
  }

  /** Takes the jobs of a world out of the queue, but for those of one content of it. */
  private async drop(trx: Knex.Transaction, worldId: number, keep: string | null): Promise<string[]> {
    const rows = await PendingProofRow.query(trx)
      .delete()
      .where({ worldId })
      .modify((query) => {
        if (keep !== null) void query.whereNot("worldHash", keep);
      })
      .returning("jobId");
    const jobs = [...new Set((rows as unknown as { jobId: string }[]).map(({ jobId }) => jobId))];
    await this.queue.cancel(trx, "prove", jobs);
    return jobs;
  }

  private async known(db: Knex, worldHash: string, hashes: readonly string[]): Promise<Map<string, Outcome>> {
    const found = await OutcomeRow.query(db)
      .where({ worldHash })
      .whereIn("logHash", [...new Set(hashes)]);
    return new Map(found.map((outcome) => [outcome.logHash, outcome]));
  }
}

/** What is known of a world at its newest revision. */
export interface Known extends Omit<WorldOutcomes, "reach"> {
  /** Null where its reach checks were not judged yet. */
  readonly reach: WorldOutcomes["reach"] | null;
}

function verdictOf({ holds, refused }: Outcome): "holds" | "breaks" | "refused" {
  return refused !== null ? "refused" : holds ? "holds" : "breaks";
}

function slicesOf(logs: readonly LogRow[], max: Slices): LogRow[][] {
  const slices: LogRow[][] = [];
  let frames = Infinity;
  for (const log of logs) {
    const last = slices.at(-1);
    const cost = log.frames * (1 + log.checks / 10);
    if (last === undefined || last.length >= max.logs || frames + cost > max.frames) {
      slices.push([log]);
      frames = cost;
    } else {
      last.push(log);
      frames += cost;
    }
  }
  return slices;
}

const COUNT = `select count(o."logHash") as done, count(*) filter (where o.holds) as holds
  from jsonb_each_text(?::jsonb) as l left join outcomes o on o."worldHash" = ? and o."logHash" = l.value`;

async function countOf(
  db: Knex,
  run: Pick<ProofRunRow, "logs" | "worldHash">,
): Promise<{ done: number; holds: number }> {
  const { rows } = await db.raw<{ rows: { done: string; holds: string }[] }>(COUNT, [
    JSON.stringify(run.logs),
    run.worldHash,
  ]);
  return { done: Number(rows[0]!.done), holds: Number(rows[0]!.holds) };
}

/** With more logs than this still to be run nobody counts whether all are there. */
const NEARLY = 50;

/**
 * Ends the runs of one content of a world whose outcomes are all there; the worlds that they are of. The runs are held
 * until the transaction ends: of two jobs that end at the same time the later one sees what the other stored.
 */
export async function finish(trx: Knex.Transaction, worldHash: string): Promise<number[]> {
  const runs = await ProofRunRow.query(trx)
    .where({ worldHash, state: "running" })
    .orderBy(["worldId", "revision"])
    .forUpdate();
  if (
    runs.length === 0 ||
    (
      await PendingProofRow.query(trx)
        .where({ worldHash })
        .limit(NEARLY + 1)
    ).length > NEARLY
  )
    return [];
  // Nobody says that a run is over while its world's reach checks are being judged.
  if ((await PendingProofRow.query(trx).findById([worldHash, ALL_PLAY])) !== undefined) return [];
  const ended: number[] = [];
  for (const run of runs) {
    const { done, holds } = await countOf(trx, run);
    if (done < run.total) continue;
    await ProofRunRow.query(trx)
      .findById([run.worldId, run.revision])
      .patch({ state: "done", holds, finishedAt: new Date() });
    ended.push(run.worldId);
  }
  return ended;
}
