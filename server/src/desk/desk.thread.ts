import type { ReachRuling } from "@keen-pebble/core/check";
import { toPlain, writeWorld } from "@keen-pebble/core/formats";
import type { World } from "@keen-pebble/core/world";
import { LIMITS } from "@keen-pebble/core/world";
import { workerData } from "piscina";
import type { ImportedFiles, NewPlay, NewRevision, PlaytestGame } from "../api.ts";
import { connect } from "../database/connect.ts";
import { SCHEMAS } from "../http/api-schemas.ts";
import { readJson } from "../http/read-json.ts";
import { validate } from "../http/validate.ts";
import { problemOf } from "../problems/problem-of.ts";
import { writeBundle } from "../services/bundle-writer.ts";
import { Imports } from "../services/imports.ts";
import { Entries } from "../services/entries.ts";
import { keepPlay, linkedWorld } from "../services/keep-play.ts";
import { journalText } from "../services/journal-text.ts";
import { Projects } from "../services/projects.ts";
import { Shelf } from "../services/shelf.ts";
import { thinRevisions } from "../services/thin-revisions.ts";
import type { DeskAnswer, DeskAnswers, DeskTask, DeskTaskName, DeskTasks } from "./desk-task.ts";

const { databaseUrl } = workerData as { readonly databaseUrl: string };

/** Each thread has connections of its own: when it is ended, the database takes back what it had not finished. */
const db = connect(databaseUrl, 4);
const projects = new Projects();
const shelf = new Shelf(db, projects);
const imports = new Imports(shelf);
const bytes = (text: string): Uint8Array => new TextEncoder().encode(text);

/** Reach checks as the first report; those that were not judged yet are open. */
function reachReports({ reachChecks }: World, known: readonly ReachRuling[] | null) {
  const open = (check: string): ReachRuling => ({ check, verdict: "open", seen: "was not judged yet; ask again" });
  const checks = known ?? reachChecks.map(open);
  return checks.length === 0 ? [] : [{ reach: true as const, checks }];
}

// Packages for ZIP, PNG and XML are half of what a thread would load; many threads never need one.
const HANDLERS: { readonly [K in DeskTaskName]: (of: DeskTasks[K]) => Promise<DeskAnswers[K]> } = {
  store: ({ world, body }) => shelf.store(world, validate<NewRevision>(SCHEMAS.NewRevision, readJson(body))),
  importFiles: ({ body }) => imports.files(validate<ImportedFiles>(SCHEMAS.ImportedFiles, readJson(body))),
  importBundle: async ({ body }) => {
    const { readBundle } = await import("../services/bundle-reader.ts");
    return imports.bundle(await readBundle(Buffer.from(body)));
  },
  keepPlay: ({ token, body }) => keepPlay(db, projects, token, validate<NewPlay>(SCHEMAS.NewPlay, readJson(body))),
  playtestGame: async ({ token }) => {
    const { id, revision } = await linkedWorld(db, token);
    const game: PlaytestGame = { revision, world: toPlain((await projects.at(db, id, revision)).world) };
    return bytes(JSON.stringify(game));
  },
  putSheet: async ({ world, file, png }) => {
    const { readPng } = await import("@keen-pebble/core/reading");
    const { width, height } = readPng(png, LIMITS.sheetSide[1], file);
    await shelf.putSheet(world, file, Buffer.from(png));
    return { file, width, height };
  },
  copy: ({ world }) => shelf.copy(world),
  open: async ({ world, revision }) =>
    bytes(JSON.stringify(await (revision === undefined ? shelf.open(world) : shelf.openAt(world, revision)))),
  worldFile: async ({ world }) => bytes(writeWorld((await shelf.project(world)).project.world)),
  bundle: async ({ world }) => {
    const { row, project } = await shelf.project(world);
    const journal = journalText(
      project.world.name,
      await shelf.revisions(row),
      await new Entries(db, shelf).all(row.id),
      [],
    );
    return writeBundle({
      world: writeWorld(project.world),
      logs: project.logs,
      sheets: await shelf.sheets(row),
      journal,
    });
  },
  junit: async ({ world: id, reports, reach }) => {
    const { world } = (await shelf.project(id)).project;
    const { junitXml } = await import("@keen-pebble/core/reports");
    return bytes(junitXml([...reachReports(world, reach), ...reports], world.frameRate));
  },
  texts: (of) => shelf.texts(of),
  thin: ({ worldId, before }) => thinRevisions(db, worldId, new Date(before)),
  roomNames: async ({ worldId }) => {
    await shelf.keepRoomNames(worldId);
    return null;
  },
};

/** Does one task. */
export default async function work(task: DeskTask): Promise<DeskAnswer> {
  try {
    const handler = HANDLERS[task.name] as (of: DeskTask["of"]) => Promise<DeskAnswers[DeskTaskName]>;
    return { value: await handler(task.of) };
  } catch (error) {
    const problem = problemOf(error);
    return { problem, stack: problem.status === 500 && error instanceof Error ? (error.stack ?? null) : null };
  }
}
