import type { Knex } from "knex";
import type { Desk } from "../desk/desk.ts";
import type { RevisionTexts } from "../desk/desk-task.ts";
import { PendingProofRow } from "../models/pending-proof-row.ts";
import { TakenJobRow } from "../models/taken-job-row.ts";
import { contentHash } from "../services/content-hash.ts";
import type { Outcome } from "../services/proofs.ts";
import { finish, storeOutcomes } from "../services/proofs.ts";
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
  const textsOf = keptTexts(tools);
  return async ({ id, data }, signal) => {
    const pending = await PendingProofRow.query(db).select("logHash").where("jobId", id);
    const texts = await textsOf(data);
    const hashes = pending.map(({ logHash }) => logHash).filter((hash) => texts.logs.has(hash));
    const proofs = await proveInTurns(pool, { worldHash: data.worldHash, world: texts.world, logs: hashes.map((hash) => texts.logs.get(hash)!) }, signal);
    const rows = hashes.map((logHash, i): Outcome => {
      const { holds, refused, status, frames, pathHash, fingerprint, accepted, checks } = proofs[i]!;
      return { worldHash: data.worldHash, logHash, holds, refused, status, frames, pathHash: pathHash === null ? null : String(pathHash), fingerprint, accepted, worker: String(signals.worker), checks: [...checks] };
    });
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

/** A revision's texts, its logs by their hashes, the last few kept: the jobs of one run ask for the same ones. */
function keptTexts({ desk }: JobTools): (job: ProveJob) => Promise<RevisionTexts> {
  const kept = new Map<string, Promise<RevisionTexts>>();
  return ({ worldId, revision }) => {
    const key = `${worldId}/${revision}`;
    const texts =
      kept.get(key) ??
      desk.ask("texts", { worldId, revision }).then(({ world, logs }) => ({ world, logs: new Map([...logs.values()].map((text) => [contentHash(text), text])) }));
    kept.set(key, texts);
    texts.catch(() => kept.delete(key));
    for (const old of kept.keys()) if (kept.size > MOST_KEPT) kept.delete(old);
    return texts;
  };
}
