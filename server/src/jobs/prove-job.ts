import { writeWorld } from "@keen-pebble/core";
import type { Knex } from "knex";
import { OutcomeRow } from "../models/outcome-row.ts";
import { PendingProofRow } from "../models/pending-proof-row.ts";
import { TakenJobRow } from "../models/taken-job-row.ts";
import { contentHash } from "../services/content-hash.ts";
import type { Projects } from "../services/projects.ts";
import type { Outcome } from "../services/proofs.ts";
import { finish } from "../services/proofs.ts";
import type { JobHandler } from "./job-worker.ts";
import type { ProvePool } from "./prove-pool.ts";
import type { ProveJob, Queue } from "./queue.ts";
import type { Signals } from "./signals.ts";

/** What jobs work with. */
export interface JobTools {
  readonly db: Knex;
  readonly projects: Projects;
  readonly queue: Queue;
  readonly signals: Signals;
  readonly pool: ProvePool;
}

/** Texts of a revision as jobs ask for them. */
interface RevisionTexts {
  readonly world: string;
  readonly logs: ReadonlyMap<string, string>;
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
    const proofs = hashes.length === 0 ? [] : await pool.prove({ worldHash: data.worldHash, world: texts.world, logs: hashes.map((hash) => texts.logs.get(hash)!) }, signal);
    const rows = hashes.map((logHash, i): Outcome => {
      const { holds, refused, status, frames, pathHash, fingerprint, accepted, checks } = proofs[i]!;
      return { worldHash: data.worldHash, logHash, holds, refused, status, frames, pathHash: pathHash === null ? null : String(pathHash), fingerprint, accepted, worker: String(signals.worker), checks: [...checks] };
    });
    await db.transaction(async (trx) => {
      if (rows.length > 0) await OutcomeRow.query(trx).insert(rows).onConflict(["worldHash", "logHash"]).ignore();
      await PendingProofRow.query(trx).delete().where("jobId", id);
      await TakenJobRow.query(trx).deleteById(id);
      await queue.complete(trx, "prove", id);
    });
    // Once its outcomes can be seen: two that end at the same time would each miss the other's.
    await db.transaction((trx) => finish(trx, data.worldHash));
    await signals.tell("proofs", data.worldId);
  };
}

/** A revision's texts, the last few kept: the jobs of one run ask for the same ones. */
function keptTexts({ db, projects }: JobTools): (job: ProveJob) => Promise<RevisionTexts> {
  const kept = new Map<string, Promise<RevisionTexts>>();
  return ({ worldId, revision }) => {
    const key = `${worldId}/${revision}`;
    const texts =
      kept.get(key) ??
      projects.at(db, worldId, revision).then(({ world, logs }) => ({ world: writeWorld(world), logs: new Map(Object.values(logs).map((text) => [contentHash(text), text])) }));
    kept.set(key, texts);
    texts.catch(() => kept.delete(key));
    for (const old of kept.keys()) if (kept.size > MOST_KEPT) kept.delete(old);
    return texts;
  };
}
