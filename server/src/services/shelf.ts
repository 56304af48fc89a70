import { randomUUID } from "node:crypto";
import type { Verdict } from "@keen-pebble/core/check";
import type { EditStep, Project } from "@keen-pebble/core/edit";
import { readLog, writeLog } from "@keen-pebble/core/check";
import { differences } from "@keen-pebble/core/edit";
import { toPlain, writeWorld } from "@keen-pebble/core/formats";
import { copyName } from "@keen-pebble/core/world";
import type { Knex } from "knex";
import type { Transaction } from "objection";
import { UniqueViolationError } from "objection";
import type {
  DeletedWorld,
  NewRevision,
  ShelfEntry,
  ShelfLog,
  StaleBase,
  StoredRevision,
  WorldEntry,
  WorldRevision,
} from "../api.ts";
import type { DeskTasks, RevisionTexts } from "../desk/desk-task.ts";
import { LogRow } from "../models/log-row.ts";
import { RevisionRow } from "../models/revision-row.ts";
import { SheetRow } from "../models/sheet-row.ts";
import { WorldRow } from "../models/world-row.ts";
import { contentHash } from "./content-hash.ts";
import { Projects } from "./projects.ts";
import { IdTakenError, NotFoundError, StaleBaseError } from "./service-errors.ts";
import type { Sheets } from "./stored-revisions.ts";
import { NO_SHEETS, appendRevision, insertRevision, putSheets, replaceLogs } from "./stored-revisions.ts";
import { storedSteps } from "./stored-steps.ts";

/** Worlds, their revisions and their logs: everything that is stored goes through here (architecture.md, flow 4). */
export class Shelf {
  constructor(
    private readonly db: Knex,
    private readonly projects = new Projects(),
  ) {}

  /** All worlds, the one saved last first. */
  async list(): Promise<WorldEntry[]> {
    const rows = await WorldRow.onShelf(this.db)
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

  /** All worlds with what their rooms are called and what each log comes to, as far as that is known. */
  async summary(): Promise<ShelfEntry[]> {
    const worlds = await this.list();
    const logs = await LogRow.query(this.db)
      .joinRaw('join worlds w on w.id = logs."worldId" and w."deletedAt" is null')
      .joinRaw('join revisions r on r."worldId" = w.id and r.number = w.revision')
      .joinRaw('left join outcomes o on o."worldHash" = r."contentHash" and o."logHash" = logs.hash')
      .select("w.slug", "logs.log", "logs.title", "o.holds", "o.refused", "o.frames", "o.checks as verdicts")
      .orderBy("logs.log")
      .castTo<SummaryRow[]>();
    const rows = await WorldRow.onShelf(this.db).select("slug", "roomNames");
    const names = new Map(rows.map(({ slug, roomNames }) => [slug, roomNames ?? []]));
    const byWorld = new Map<string, ShelfLog[]>(worlds.map(({ id }) => [id, []]));
    for (const { slug, log, title, holds, refused, frames, verdicts } of logs) {
      byWorld
        .get(slug)
        ?.push({ log, title, outcome: holds === null ? null : { holds, refused, frames, checks: verdicts } });
    }
    return worlds.map((world) => ({
      ...world,
      roomNames: names.get(world.id) ?? [],
      outcomes: byWorld.get(world.id)!,
    }));
  }

  /** The world of a revision as a text, and some of its logs. */
  async texts({ worldId, revision, ids = [], hashes = [] }: DeskTasks["texts"]): Promise<RevisionTexts> {
    const { world, logs } = await this.projects.at(this.db, worldId, revision);
    const found = new Map(ids.flatMap((id) => (logs.has(id) ? [[id, logs.get(id)!] as const] : [])));
    const wanted = new Set(hashes);
    for (const text of logs.values()) {
      const hash = contentHash(text);
      if (wanted.has(hash)) found.set(hash, text);
    }
    return { world: writeWorld(world), logs: found };
  }

  /** Keeps what the rooms of a world are called, where that is not known yet. */
  async keepRoomNames(worldId: number): Promise<void> {
    const row = await WorldRow.query(this.db).findById(worldId).whereNull("roomNames");
    if (!row) return;
    const { world } = await this.projects.at(this.db, row.id, row.revision);
    await WorldRow.query(this.db)
      .findById(worldId)
      .whereNull("roomNames")
      .patch({ roomNames: world.rooms.map((room) => room.name) });
  }

  /** The text of a log of the newest revision. */
  async log(slug: string, log: string): Promise<string> {
    const row = await this.row(slug);
    const found = await LogRow.query(this.db).select("text").findById([row.id, log]);
    if (!found) throw new NotFoundError("log", log);
    return found.text;
  }

  /** What happened to a world since one of its revisions; the steps are null where that one is not kept apart any more. */
  async since(slug: string, base: number): Promise<StaleBase> {
    return WorldRow.transaction(this.db, async (trx) => {
      const row = await WorldRow.onShelf(trx).findOne({ slug });
      if (!row) throw new NotFoundError("world", slug);
      return stepsSince(trx, row, base);
    });
  }

  /** A world at its newest revision. */
  async open(slug: string): Promise<WorldRevision> {
    const { row, project } = await this.project(slug);
    return { revision: row.revision, world: toPlain(project.world), logs: Object.fromEntries(project.logs) };
  }

  /** A world's row and project at its newest revision. */
  async project(slug: string): Promise<{ row: WorldRow; project: Project }> {
    const row = await this.row(slug);
    return { row, project: await this.projects.at(this.db, row.id, row.revision) };
  }

  /** A world at one of its revisions. */
  async openAt(slug: string, number: number): Promise<WorldRevision> {
    const row = await this.row(slug);
    if (!(await RevisionRow.query(this.db).select("number").findById([row.id, number])))
      throw new NotFoundError("revision", String(number));
    const project = await this.projects.at(this.db, row.id, number);
    return { revision: number, world: toPlain(project.world), logs: Object.fromEntries(project.logs) };
  }

  /** A world's row. */
  async row(slug: string): Promise<WorldRow> {
    const row = await WorldRow.onShelf(this.db).findOne({ slug });
    if (!row) throw new NotFoundError("world", slug);
    return row;
  }

  /** Writes what somebody says of a revision; an empty text takes it away. */
  async note(slug: string, number: number, note: string): Promise<void> {
    const row = await this.row(slug);
    const said = note.trim() === "" ? null : note.trim();
    if ((await RevisionRow.query(this.db).patch({ note: said }).where({ worldId: row.id, number })) === 0)
      throw new NotFoundError("revision", String(number));
  }

  /**
   * Puts a project on the shelf as revision 1, under its world's id.
   * @param says the revision's summary
   * @throws {IdTakenError}
   */
  async add(
    project: Project,
    says: string,
    more: { readonly sheets?: Sheets; readonly note?: string | null } = {},
  ): Promise<StoredRevision & { id: string }> {
    const { world } = project;
    try {
      const row = await WorldRow.transaction(this.db, async (trx) => {
        const made = await WorldRow.query(trx).insertAndFetch({
          slug: world.id,
          name: world.name,
          revision: 1,
          rooms: world.rooms.length,
          roomNames: world.rooms.map((room) => room.name),
        });
        await insertRevision(
          trx,
          made.id,
          { number: 1, batch: randomUUID(), steps: [], says, note: more.note ?? null },
          project,
        );
        await replaceLogs(trx, made.id, new Map(), project.logs);
        await putSheets(trx, made.id, more.sheets ?? NO_SHEETS);
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
   * @throws {RefusedError} where the world that came of it is not in order
   */
  async store(slug: string, batch: NewRevision): Promise<StoredRevision> {
    return appendRevision(this.db, this.projects, slug, async (trx, row) => {
      const before = await RevisionRow.query(trx)
        .select("number", "summary")
        .findOne({ worldId: row.id, batch: batch.batch });
      if (before) return { revision: before.number, summary: before.summary };
      if (batch.base !== row.revision) throw new StaleBaseError(batch.base, await stepsSince(trx, row, batch.base));
      return batch;
    });
  }

  /**
   * Makes the differences to another state of the world one revision; none where there are none.
   * @param after makes that state of the present one
   */
  async replace(
    slug: string,
    after: (present: Project) => Project,
    sheets: Sheets,
  ): Promise<StoredRevision & { readonly steps: readonly EditStep[] }> {
    let steps: readonly EditStep[] = [];
    const stored = await appendRevision(this.db, this.projects, slug, async (trx, row, present) => {
      steps = differences(present, after(present));
      if (steps.length > 0) return { batch: randomUUID(), steps, sheets };
      await putSheets(trx, row.id, sheets);
      return { revision: row.revision, summary: "nothing changed" };
    });
    return { ...stored, steps };
  }

  /** A copy of the world with its logs and sheets, under an id and a name of its own. */
  async copy(slug: string): Promise<StoredRevision & { id: string }> {
    const { row, project } = await this.project(slug);
    const sheets = await this.sheets(row);
    const id = await this.freeId(slug);
    const names = await WorldRow.onShelf(this.db).select("name");
    const name = copyName(
      project.world.name,
      names.map((each) => each.name),
    );
    const world = { ...project.world, id, name };
    const logs = new Map([...project.logs].map(([log, text]) => [log, withWorld(text, slug, id)]));
    return this.add({ world, logs }, `copy of ${slug}`, { sheets });
  }

  /** Image sheets of a world, by their files' names. */
  async sheets(row: WorldRow): Promise<Sheets> {
    const sheets = await SheetRow.query(this.db).where("worldId", row.id).orderBy("file");
    return new Map(sheets.map((sheet) => [sheet.file, sheet.png]));
  }

  /** Stores the picture of a sheet; one of the same name is replaced. */
  async putSheet(slug: string, file: string, png: Buffer): Promise<void> {
    const row = await this.row(slug);
    await WorldRow.transaction(this.db, (trx) => putSheets(trx, row.id, new Map([[file, png]])));
  }

  /** The picture of a sheet, or null. */
  async sheet(slug: string, file: string): Promise<Buffer | null> {
    const row = await this.row(slug);
    return (await SheetRow.query(this.db).findById([row.id, file]))?.png ?? null;
  }

  /** All revisions of a world, the first one first, without their steps. */
  async revisions(row: WorldRow): Promise<Pick<RevisionRow, "number" | "summary" | "note" | "savedAt">[]> {
    return RevisionRow.query(this.db)
      .select("number", "summary", "note", "savedAt")
      .where("worldId", row.id)
      .orderBy("number");
  }

  /** Takes a world off the shelf; it can be put back until `Retention` takes it. */
  async remove(slug: string): Promise<DeletedWorld> {
    const row = await this.row(slug);
    const deletedAt = new Date();
    await row.$query(this.db).patch({ deletedAt });
    return { key: row.id, id: slug, name: row.name, deletedAt: deletedAt.toISOString() };
  }

  /** Worlds that were taken off the shelf and can be put back, the last one first. */
  async deleted(): Promise<DeletedWorld[]> {
    const rows = await WorldRow.query(this.db).whereNotNull("deletedAt").orderBy("deletedAt", "desc");
    return rows.map((row) => ({ key: row.id, id: row.slug, name: row.name, deletedAt: row.deletedAt!.toISOString() }));
  }

  /**
   * Puts a deleted world back on the shelf.
   * @throws {IdTakenError} where another world has its id by now
   */
  async restore(key: number): Promise<{ id: string }> {
    const row = await WorldRow.query(this.db).whereNotNull("deletedAt").findById(key);
    if (!row) throw new NotFoundError("deleted world", String(key));
    try {
      await row.$query(this.db).patch({ deletedAt: null });
    } catch (error) {
      if (error instanceof UniqueViolationError) throw new IdTakenError(row.slug);
      throw error;
    }
    return { id: row.slug };
  }

  /** An id that no world on the shelf has: the given one with a number. */
  private async freeId(slug: string): Promise<string> {
    const taken = new Set((await WorldRow.onShelf(this.db).select("slug")).map((row) => row.slug));
    const stem = slug.replace(/-\d+$/, "").slice(0, 36);
    let n = 2;
    while (taken.has(`${stem}-${n}`)) n++;
    return `${stem}-${n}`;
  }
}

/** A log's text with the world that it names changed from one id to another. */
function withWorld(text: string, from: string, to: string): string {
  const log = readLog(text);
  return log.world === from ? writeLog({ ...log, world: to }) : text;
}

async function stepsSince(trx: Transaction, row: WorldRow, base: number): Promise<StaleBase> {
  if (!(await RevisionRow.query(trx).select("number").findById([row.id, base])))
    return { revision: row.revision, steps: null };
  const rows = await RevisionRow.query(trx)
    .select("steps")
    .where("worldId", row.id)
    .where("number", ">", base)
    .orderBy("number");
  return { revision: row.revision, steps: rows.flatMap((r) => storedSteps(r.steps)) };
}

interface SummaryRow {
  readonly slug: string;
  readonly log: string;
  readonly title: string | null;
  readonly holds: boolean | null;
  readonly refused: string | null;
  readonly frames: number | null;
  readonly verdicts: Verdict[];
}
