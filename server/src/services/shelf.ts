import { randomUUID } from "node:crypto";
import type { Project } from "@keen-pebble/core";
import { applyAll, logFrames, readLog, summary, toPlain, writeLog } from "@keen-pebble/core";
import { readWorld } from "@keen-pebble/core/reading";
import type { Knex } from "knex";
import type { Transaction } from "objection";
import { UniqueViolationError } from "objection";
import type { NewRevision, NewWorld, StoredRevision, WorldEntry, WorldRevision } from "../api.ts";
import { LogRow } from "../models/log-row.ts";
import { RevisionRow } from "../models/revision-row.ts";
import { WorldRow } from "../models/world-row.ts";
import { contentHash } from "./content-hash.ts";
import { Projects, SNAPSHOT_EVERY, toSnapshot } from "./projects.ts";
import { IdTakenError, NotFoundError, StaleBaseError } from "./service-errors.ts";

/** Worlds, their revisions and their logs: everything that is stored goes through here (architecture.md, flow 4). */
export class Shelf {
  private readonly projects = new Projects();

  constructor(private readonly db: Knex) {}

  /** All worlds, the one saved last first. */
  async list(): Promise<WorldEntry[]> {
    const rows = await WorldRow.query(this.db)
      .select(
        "worlds.*",
        LogRow.query().whereColumn("logs.worldId", "worlds.id").count().as("logs"),
        RevisionRow.query()
          .select("summary")
          .whereColumn("revisions.worldId", "worlds.id")
          .whereColumn("revisions.number", "worlds.revision")
          .as("summary"),
      )
      .orderBy("savedAt", "desc")
      .orderBy("slug");
    return (rows as (WorldRow & { logs: string; summary: string })[]).map((row) => ({
      id: row.slug,
      name: row.name,
      revision: row.revision,
      rooms: row.rooms,
      logs: Number(row.logs),
      summary: row.summary,
      savedAt: row.savedAt.toISOString(),
    }));
  }

  /** A world at its newest revision. */
  async open(slug: string): Promise<WorldRevision> {
    const { row, project } = await this.project(slug);
    return { revision: row.revision, world: toPlain(project.world), logs: project.logs };
  }

  /** A world's row and project at its newest revision. */
  async project(slug: string): Promise<{ row: WorldRow; project: Project }> {
    const row = await WorldRow.query(this.db).findOne({ slug });
    if (!row) throw new NotFoundError("world", slug);
    return { row, project: await this.projects.load(this.db, row) };
  }

  /**
   * Puts a world and its logs on the shelf as revision 1.
   * @throws {RefusedError} where a file is not in order; nothing is stored then
   * @throws {IdTakenError}
   */
  async add(files: NewWorld, says: string): Promise<StoredRevision & { id: string }> {
    const world = readWorld(files.world, "the world");
    const logs = Object.fromEntries(Object.entries(files.logs).map(([id, text]) => [id, writeLog(readLog(text, `log ${id}`))]));
    const project = applyAll({ world, logs: {} }, Object.entries(logs).map(([log, text]) => ({ kind: "add-log", log, text })));
    try {
      const row = await WorldRow.transaction(this.db, async (trx) => {
        const made = await WorldRow.query(trx).insertAndFetch({ slug: world.id, name: world.name, revision: 1, rooms: world.rooms.length });
        await insertRevision(trx, made.id, 1, { batch: randomUUID(), base: 0, steps: [] }, says, project);
        await replaceLogs(trx, made.id, {}, project.logs);
        return made;
      });
      this.projects.keep(row.id, 1, project);
    } catch (error) {
      if (error instanceof UniqueViolationError) throw new IdTakenError(world.id);
      throw error;
    }
    return { id: world.id, revision: 1, summary: says };
  }

  /**
   * Stores a batch of steps as the next revision, whole or not at all. A batch that is stored already is answered again.
   * @throws {StaleBaseError} with the steps since the base
   * @throws {EditError} where a step does not fit
   */
  async store(slug: string, batch: NewRevision): Promise<StoredRevision> {
    const stored = await WorldRow.transaction(this.db, async (trx) => {
      const row = await WorldRow.query(trx).findOne({ slug }).forUpdate();
      if (!row) throw new NotFoundError("world", slug);
      const before = await RevisionRow.query(trx).select("number", "summary").findOne({ worldId: row.id, batch: batch.batch });
      if (before) return { row, revision: before.number, summary: before.summary, project: null };
      if (batch.base !== row.revision) throw new StaleBaseError(batch.base, await stepsSince(trx, row, batch.base));

      const project = await this.projects.load(trx, row);
      const after = applyAll(project, batch.steps);
      const revision = row.revision + 1;
      const says = summary(after.world, batch.steps);
      await insertRevision(trx, row.id, revision, batch, says, after);
      await replaceLogs(trx, row.id, project.logs, after.logs);
      await row.$query(trx).patch({ revision, name: after.world.name, rooms: after.world.rooms.length, savedAt: new Date() });
      return { row, revision, summary: says, project: after };
    });
    if (stored.project) this.projects.keep(stored.row.id, stored.revision, stored.project);
    return { revision: stored.revision, summary: stored.summary };
  }
}

async function stepsSince(trx: Transaction, row: WorldRow, base: number): Promise<{ revision: number; steps: RevisionRow["steps"] }> {
  const rows = await RevisionRow.query(trx).select("steps").where("worldId", row.id).where("number", ">", base).orderBy("number");
  return { revision: row.revision, steps: rows.flatMap((r) => r.steps) };
}

async function insertRevision(trx: Transaction, worldId: number, number: number, batch: NewRevision, says: string, project: Project): Promise<void> {
  const snapshot = toSnapshot(project);
  await RevisionRow.query(trx).insert({
    worldId,
    number,
    batch: batch.batch,
    steps: [...batch.steps],
    snapshot: number % SNAPSHOT_EVERY === 1 ? snapshot : null,
    summary: says,
    contentHash: contentHash(snapshot.world),
  });
}

async function replaceLogs(trx: Transaction, worldId: number, before: Project["logs"], after: Project["logs"]): Promise<void> {
  const gone = Object.keys(before).filter((log) => before[log] !== after[log]);
  if (gone.length > 0) await LogRow.query(trx).delete().where("worldId", worldId).whereIn("log", gone);
  for (const [log, text] of Object.entries(after)) {
    if (before[log] !== text) await LogRow.query(trx).insert({ worldId, log, text, frames: logFrames(readLog(text)), hash: contentHash(text) });
  }
}
