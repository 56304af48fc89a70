import type { Knex } from "knex";
import type { Logger } from "pino";
import type { Jobs } from "../jobs/jobs.ts";
import type { Signals } from "../jobs/signals.ts";
import { ProofRunRow } from "../models/proof-run-row.ts";
import { WorldRow } from "../models/world-row.ts";
import { AfterSave } from "./after-save.ts";
import { Imports } from "./imports.ts";
import { Journal } from "./journal.ts";
import { Proofs } from "./proofs.ts";
import { Searches } from "./searches.ts";
import { Shelf } from "./shelf.ts";

/** All use cases of the server, put together. */
export interface Services {
  readonly shelf: Shelf;
  readonly imports: Imports;
  readonly proofs: Proofs;
  readonly searches: Searches;
  readonly journal: Journal;
  readonly signals: Signals;
  readonly afterSave: AfterSave;
  /** Asks for the proofs of newest revisions that were never asked for: a server that was killed may have left some. */
  readonly catchUp: () => Promise<void>;
}

/** About so many frames in one job. */
const FRAMES_OF_JOB = 250_000;

/** @param logsOfJob at most so many logs in one job */
export function servicesOf({ db, jobs, logger, logsOfJob }: { readonly db: Knex; readonly jobs: Jobs; readonly logger: Logger; readonly logsOfJob: number }): Services {
  const shelf: Shelf = new Shelf(db, (world) => afterSave.saved(world));
  const proofs = new Proofs(db, shelf, jobs.queue, jobs.signals, { logs: logsOfJob, frames: FRAMES_OF_JOB });
  const afterSave = new AfterSave(proofs, logger);
  return {
    shelf,
    imports: new Imports(shelf),
    proofs,
    searches: new Searches(db, shelf, jobs.queue, jobs.signals),
    journal: new Journal(db, shelf),
    signals: jobs.signals,
    afterSave,
    catchUp: async () => {
      const unproven = await WorldRow.onShelf(db)
        .select("slug")
        .whereNotExists(ProofRunRow.query().whereColumn("proof_runs.worldId", "worlds.id").whereColumn("proof_runs.revision", "worlds.revision"));
      for (const { slug } of unproven) await proofs.request(slug);
    },
  };
}
