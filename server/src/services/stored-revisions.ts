import type { EditStep, Project } from "@keen-pebble/core/edit";
import { logFrames, readLog } from "@keen-pebble/core/check";
import { applyAll, summary } from "@keen-pebble/core/edit";
import { placeText, toPlain } from "@keen-pebble/core/formats";
import { RefusedError } from "@keen-pebble/core/world";
import { worldFromJson } from "@keen-pebble/core/reading";
import type { Knex } from "knex";
import type { Transaction } from "objection";
import type { NewRevision, StoredRevision } from "../api.ts";
import { LogRow } from "../models/log-row.ts";
import { RevisionRow } from "../models/revision-row.ts";
import { SheetRow } from "../models/sheet-row.ts";
import { WorldRow } from "../models/world-row.ts";
import { contentHash } from "./content-hash.ts";
import type { Projects } from "./projects.ts";
import { SNAPSHOT_EVERY, toSnapshot } from "./projects.ts";
import { NotFoundError } from "./service-errors.ts";

/** Image sheets: PNG bytes by their files' names. */
export type Sheets = ReadonlyMap<string, Buffer>;

export const NO_SHEETS: Sheets = new Map();

/** What the next revision of a world does. */
export type NextRevision = Pick<NewRevision, "batch" | "steps" | "note"> & {
  readonly sheets?: Sheets;
  /** What is stored with it, or not at all. */
  readonly beside?: (trx: Transaction, row: WorldRow, revision: number) => Promise<unknown>;
};

/**
 * Adds a revision to a world under its lock, whole or not at all.
 * @param make says what it does, or which one there is already
 * @throws {EditError} where a step does not fit; {RefusedError} where the world that came of it is not in order
 */
export async function appendRevision(
  db: Knex,
  projects: Projects,
  slug: string,
  make: (trx: Transaction, row: WorldRow, present: Project) => Promise<NextRevision | StoredRevision>,
): Promise<StoredRevision> {
  const stored = await WorldRow.transaction(db, async (trx) => {
    const row = await WorldRow.onShelf(trx).findOne({ slug }).forUpdate();
    if (!row) throw new NotFoundError("world", slug);
    const project = await projects.at(trx, row.id, row.revision);
    const made = await make(trx, row, project);
    if (!("steps" in made)) return { row, ...made, project: null };
    return storeNext(trx, row, project, made);
  });
  if (stored.project) projects.keep(stored.row.id, stored.revision, stored.project);
  return { revision: stored.revision, summary: stored.summary };
}

async function storeNext(
  trx: Transaction,
  row: WorldRow,
  before: Project,
  { batch, beside, note, sheets = NO_SHEETS, steps }: NextRevision,
): Promise<StoredRevision & { readonly row: WorldRow; readonly project: Project }> {
  const after = applyAll(before, steps);
  ensureInOrder(after, steps);
  const number = row.revision + 1;
  const says = summary(after.world, steps);
  await insertRevision(trx, row.id, { number, batch, steps, says, note: note ?? null }, after);
  await replaceLogs(trx, row.id, before.logs, after.logs);
  await putSheets(trx, row.id, sheets);
  await beside?.(trx, row, number);
  await row.$query(trx).patch({
    revision: number,
    name: after.world.name,
    rooms: after.world.rooms.length,
    roomNames: after.world.rooms.map((room) => room.name),
    savedAt: new Date(),
  });
  return { row, revision: number, summary: says, project: after };
}

/** Steps that change whole parts may bring in anything: the world that came of them is read as a file would be. */
function ensureInOrder(project: Project, steps: readonly EditStep[]): void {
  if (!steps.some((step) => step.kind === "change-parts")) return;
  const result = worldFromJson(toPlain(project.world));
  if ("faults" in result) {
    throw new RefusedError(
      "the changed world",
      result.faults.map(({ path, message }) => ({ place: placeText(path), line: null, column: null, message })),
    );
  }
}

/** A revision as it is put into the database. */
interface RevisionToStore {
  readonly number: number;
  readonly batch: string;
  readonly steps: readonly EditStep[];
  readonly says: string;
  readonly note: string | null;
}

/** Puts a revision in, with a snapshot where one is due. */
export async function insertRevision(
  trx: Transaction,
  worldId: number,
  { number, batch, steps, says, note }: RevisionToStore,
  project: Project,
): Promise<void> {
  const snapshot = toSnapshot(project);
  await RevisionRow.query(trx).insert({
    worldId,
    number,
    batch,
    steps: [...steps],
    snapshot: number % SNAPSHOT_EVERY === 1 ? snapshot : null,
    summary: says,
    note,
    contentHash: contentHash(snapshot.world),
  });
}

/** Puts the pictures of sheets in; those of the same names are replaced. */
export async function putSheets(trx: Transaction, worldId: number, sheets: Sheets): Promise<void> {
  for (const [file, png] of sheets)
    await SheetRow.query(trx).insert({ worldId, file, png }).onConflict(["worldId", "file"]).merge();
}

/** Makes a world's logs those of its newest revision. */
export async function replaceLogs(
  trx: Transaction,
  worldId: number,
  before: Project["logs"],
  after: Project["logs"],
): Promise<void> {
  const gone = [...before.keys()].filter((log) => before.get(log) !== after.get(log));
  if (gone.length > 0) await LogRow.query(trx).delete().where("worldId", worldId).whereIn("log", gone);
  for (const [log, text] of after) {
    if (before.get(log) !== text) await insertLog(trx, worldId, log, text);
  }
}

async function insertLog(trx: Transaction, worldId: number, log: string, text: string): Promise<void> {
  const read = readLog(text);
  await LogRow.query(trx).insert({
    worldId,
    log,
    text,
    frames: logFrames(read),
    hash: contentHash(text),
    title: read.title,
    checks: read.checks.length,
  });
}
