import type { Knex } from "knex";
import type { Desk } from "../desk/desk.ts";
import { LogRow } from "../models/log-row.ts";
import { PendingProofRow } from "../models/pending-proof-row.ts";
import { TakenJobRow } from "../models/taken-job-row.ts";
import type { Outcome } from "../services/proofs.ts";
import { ALL_PLAY, finish, storeOutcomes } from "../services/proofs.ts";
import type { JobHandler } from "./job-worker.ts";
import type { ProvePool } from "./prove-pool.ts";
import { proveInTurns } from "./prove-in-turns.ts";
import type { ProveJob, Queue } from "./queue.ts";
import type { Signals } from "./signals.ts";

/** What jobs work with. */
export interface JobTools {
  readonly db: Knex;
  readonly desk: Desk;
  readonly queue: Queue;
  readonly signals: Signals;
  readonly pool: ProvePool;
}

const MOST_KEPT = 4;

/** Runs the logs of a job that are still pending, and stores what they came to with the job's end in one transaction. */
export function proveJob(tools: JobTools): JobHandler<"prove"> {
  const { db, queue, signals, pool } = tools;
  const worldOf = keptWorlds(tools);
  return async ({ id, data }, signal) => {
    const pending = await PendingProofRow.query(db).select("logHash").where("jobId", id);
    const logs = await textsOfLogs(
      tools,
      data,
      pending.map(({ logHash }) => logHash).filter((hash) => hash !== ALL_PLAY),
    );
    const hashes = [...logs.keys()];
    const asksReach = pending.some(({ logHash }) => logHash === ALL_PLAY);
    const proofs =
      hashes.length === 0
        ? []
        : await proveInTurns(
            pool,
            { worldHash: data.worldHash, world: await worldOf(data), logs: [...logs.values()] },
            signal,
          );
    const rows = hashes.map((logHash, i): Outcome => {
      const { holds, refused, status, frames, fingerprint, accepted, checks } = proofs[i]!;
      return {
        worldHash: data.worldHash,
        logHash,
        holds,
        refused,
        status,
        frames,
        fingerprint,
        accepted,
        worker: String(signals.worker),
        checks: [...checks],
        reach: null,
      };
    });
    if (asksReach) rows.push(await allPlay(tools, data.worldHash, await worldOf(data), signal));
    // All in one: a process that ends here leaves either the whole of it or nothing.
    await db.transaction(async (trx) => {
      await storeOutcomes(trx, rows);
      await PendingProofRow.query(trx).delete().where("jobId", id);
      await TakenJobRow.query(trx).deleteById(id);
      await queue.complete(trx, "prove", id);
      await finish(trx, data.worldHash);
    });
    await signals.tell("proofs", data.worldId);
  };
}

/** What a world's reach checks come to, as an outcome. */
async function allPlay(
  { pool, signals }: JobTools,
  worldHash: string,
  world: string,
  signal: AbortSignal,
): Promise<Outcome> {
  const reach = await pool.judge(world, signal);
  return {
    worldHash,
    logHash: ALL_PLAY,
    holds: reach.every(({ verdict }) => verdict === "pass"),
    refused: null,
    status: null,
    frames: null,
    fingerprint: null,
    accepted: null,
    worker: String(signals.worker),
    checks: [],
    reach,
  };
}

/** The texts of logs by their hashes: most are the newest revision's, others are looked for in the one that the job is of. */
async function textsOfLogs(
  { db, desk }: JobTools,
  { worldId, revision }: ProveJob,
  hashes: readonly string[],
): Promise<ReadonlyMap<string, string>> {
  const newest = await LogRow.query(db)
    .select("hash", "text")
    .where({ worldId })
    .whereIn("hash", [...hashes]);
  const found = new Map(newest.map(({ hash, text }) => [hash, text]));
  const missing = hashes.filter((hash) => !found.has(hash));
  const older = missing.length === 0 ? [] : (await desk.ask("texts", { worldId, revision, hashes: missing })).logs;
  return new Map([...found, ...older]);
}

/** A world's text by its hash, the last few kept: the jobs of one run ask for the same one. */
function keptWorlds({ desk }: JobTools): (job: ProveJob) => Promise<string> {
  const kept = new Map<string, Promise<string>>();
  return ({ worldId, revision, worldHash }) => {
    const text = kept.get(worldHash) ?? desk.ask("texts", { worldId, revision }).then(({ world }) => world);
    kept.delete(worldHash);
    kept.set(worldHash, text);
    text.catch(() => kept.delete(worldHash));
    for (const old of kept.keys()) if (kept.size > MOST_KEPT) kept.delete(old);
    return text;
  };
}
