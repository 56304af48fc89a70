import type { Knex } from "knex";
import type { Logger } from "pino";
import type { Desk } from "../desk/desk.ts";
import type { Jobs } from "../jobs/jobs.ts";
import type { Signals } from "../jobs/signals.ts";
import { ProofRunRow } from "../models/proof-run-row.ts";
import { WorldRow } from "../models/world-row.ts";
import { AfterSave } from "./after-save.ts";
import { Entries } from "./entries.ts";
import { Journal } from "./journal.ts";
import { Playtests } from "./playtests.ts";
import { Proofs } from "./proofs.ts";
import { Retention } from "./retention.ts";
import { Searches } from "./searches.ts";
import { Shelf } from "./shelf.ts";
import { Worlds } from "./worlds.ts";

/** All use cases of the server, put together. */
export interface Services {
  readonly shelf: Shelf;
  readonly proofs: Proofs;
  readonly searches: Searches;
  readonly entries: Entries;
  readonly journal: Journal;
  readonly signals: Signals;
  readonly afterSave: AfterSave;
  readonly worlds: Worlds;
  readonly playtests: Playtests;
  readonly retention: Retention;
  /** Asks for the proofs of newest revisions that were never asked for, and keeps what older versions did not. */
  readonly catchUp: () => Promise<void>;
}

/** About so many frames in one job. */
const FRAMES_OF_JOB = 250_000;
const PATIENCE_MS = 60_000;

/**
 * @param logsOfJob at most so many logs in one job
 * @param keepDays for so many days everything is kept
 * @param patience how long an answer that wants all outcomes waits for them, in ms
 */
export function servicesOf({
  db,
  desk,
  jobs,
  logger,
  logsOfJob,
  keepDays,
  patience = PATIENCE_MS,
}: {
  readonly db: Knex;
  readonly desk: Desk;
  readonly jobs: Jobs;
  readonly logger: Logger;
  readonly logsOfJob: number;
  readonly keepDays: number;
  readonly patience?: number;
}): Services {
  const shelf = new Shelf(db);
  const proofs = new Proofs(db, shelf, jobs.queue, jobs.signals, { logs: logsOfJob, frames: FRAMES_OF_JOB }, patience);
  const entries = new Entries(db, shelf);
  const afterSave = new AfterSave(proofs, logger);
  const worlds = new Worlds(desk, shelf, afterSave, jobs.signals);
  return {
    shelf,
    worlds,
    playtests: new Playtests(db, desk, shelf, worlds),
    retention: new Retention(db, desk, keepDays, logger),
    proofs,
    searches: new Searches(db, shelf, jobs.queue, jobs.signals),
    entries,
    journal: new Journal(db, shelf, entries),
    signals: jobs.signals,
    afterSave,
    catchUp: async () => {
      const unproven = await WorldRow.onShelf(db)
        .select("slug")
        .whereNotExists(
          ProofRunRow.query()
            .whereColumn("proof_runs.worldId", "worlds.id")
            .whereColumn("proof_runs.revision", "worlds.revision"),
        );
      // What cannot be asked for now is asked for again: nobody who starts the server waits for it.
      for (const { slug } of unproven) afterSave.saved(slug, 0);
      for (const { id } of await WorldRow.query(db).select("id").whereNull("roomNames")) {
        desk
          .ask("roomNames", { worldId: id })
          .catch((error: unknown) =>
            logger.debug({ err: error, world: id }, "what its rooms are called could not be kept"),
          );
      }
    },
  };
}
