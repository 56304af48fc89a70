import { randomUUID } from "node:crypto";
import { fromPlain } from "@keen-pebble/core/formats";
import type { Knex } from "knex";
import { pino } from "pino";
import { afterEach, describe, expect, it } from "vitest";
import type { WorldRevision } from "../api.ts";
import { connect } from "../database/connect.ts";
import { Desk } from "../desk/desk.ts";
import { contentHash } from "../services/content-hash.ts";
import { Jobs } from "../jobs/jobs.ts";
import { servicesOf } from "../services/services.ts";
import type { Services } from "../services/services.ts";
import { ownDatabase } from "../test-support/own-database.ts";
import { VERSIONS, migrate } from "./index.ts";
import { demo } from "../test-support/demo-world.ts";

const LOG =
  "keen-pebble-inputs 1\ntitle Stand: still\ncheck end cell 4 12\ncheck always aligned\n---\n# check no header\n4 .\n";
const BARE = "keen-pebble-inputs 1\n---\n1 R\n";

const speedOf = ({ world }: WorldRevision): number => fromPlain(world).rules[0]!.glide.speed;

const ends: (() => Promise<unknown>)[] = [];
afterEach(async () => {
  for (const end of ends.splice(0).reverse()) await end();
});

/** A database as a version left it, with a connection to fill it. */
async function databaseOf(version: string): Promise<{ readonly url: string; readonly db: Knex }> {
  const database = await ownDatabase();
  ends.push(database.drop);
  await migrate(database.url, version);
  const db = connect(database.url);
  ends.push(() => db.destroy());
  return { url: database.url, db };
}

/** The services on a database, as the server runs them. */
async function servicesOn(url: string, db: Knex): Promise<Services> {
  const logger = pino({ level: "silent" });
  const desk = new Desk(url, logger);
  const jobs = new Jobs({ databaseUrl: url, db, desk, logger, works: false });
  await jobs.start();
  ends.push(
    () => desk.stop(),
    () => jobs.stop(),
  );
  const services = servicesOf({ db, desk, jobs, logger, logsOfJob: 2, keepDays: 90, patience: 50 });
  ends.push(() => services.afterSave.stop());
  return services;
}

/** A world with logs and three revisions, stored with what the first version knew. */
async function fill(db: Knex, slug: string): Promise<number> {
  const world = demo.replace('"id": "saltglass-cistern"', `"id": "${slug}"`);
  const [row] = await db("worlds")
    .insert({ slug, name: `Called ${slug}`, revision: 3, rooms: 5 })
    .returning<{ id: number }[]>("id");
  const worldId = row!.id;
  const speed = (before: number, after: number) =>
    JSON.stringify([{ kind: "change-rules", rules: "main", setting: "glide.speed", before, after }]);
  await db("revisions").insert([
    {
      worldId,
      number: 1,
      batch: randomUUID(),
      steps: "[]",
      snapshot: JSON.stringify({ world, logs: { stand: LOG, bare: BARE } }),
      summary: "brought in from files",
      contentHash: contentHash(world),
    },
    {
      worldId,
      number: 2,
      batch: randomUUID(),
      steps: speed(2, 4),
      summary: "Main: speed 2 to 4",
      note: "Faster.",
      contentHash: "b".repeat(64),
    },
    {
      worldId,
      number: 3,
      batch: randomUUID(),
      steps: speed(4, 8),
      summary: "Main: speed 4 to 8",
      contentHash: "c".repeat(64),
    },
  ]);
  for (const [log, text, frames] of [
    ["stand", LOG, 4],
    ["bare", BARE, 1],
  ] as const)
    await db("logs").insert({ worldId, log, text, frames, hash: contentHash(text) });
  return worldId;
}

const outcome = (log: string) => ({
  worldHash: "a".repeat(64),
  logHash: contentHash(log),
  holds: true,
  status: "playing",
  frames: 4,
  fingerprint: "f".repeat(64),
  checks: JSON.stringify([{ check: "end cell 4 12", verdict: "pass", frame: 4, seen: null }]),
});

describe.each(VERSIONS)("a database that was filled by version %s", (version) => {
  const from = VERSIONS.indexOf(version);

  it("is brought to the newest one with every world, revision and log, and goes on from there", async () => {
    const { url, db } = await databaseOf(version);
    const worldId = await fill(db, "dry-well");
    await migrate(url);
    // Done again it does nothing.
    await migrate(url);
    const services = await servicesOn(url, db);

    const opened = await services.shelf.open("dry-well");
    expect(opened.revision).toBe(3);
    expect(speedOf(opened)).toBe(8);
    expect(opened.logs).toEqual({ bare: BARE, stand: LOG });

    const logs = await db("logs").where({ worldId }).orderBy("log").select("log", "text", "frames", "title", "checks");
    const known = from >= VERSIONS.indexOf("0004-names-and-costs");
    // What is kept beside a log's text since the fourth version is made of the text; afterwards whoever stores it says it.
    expect(logs).toEqual([
      { log: "bare", text: BARE, frames: 1, title: null, checks: 0 },
      { log: "stand", text: LOG, frames: 4, title: known ? null : "Stand: still", checks: known ? 0 : 2 },
    ]);

    const batch = randomUUID();
    const stored = await services.worlds.store(
      "dry-well",
      Buffer.from(
        JSON.stringify({
          batch,
          base: 3,
          steps: [{ kind: "change-rules", rules: "main", setting: "glide.speed", before: 8, after: 2 }],
        }),
      ),
    );
    expect(stored).toMatchObject({ revision: 4, summary: "Main: speed 8 to 2" });
    expect(speedOf(await services.shelf.open("dry-well"))).toBe(2);
    expect(await db("revisions").where({ worldId, number: 2 }).first("note", "summary")).toEqual({
      note: "Faster.",
      summary: "Main: speed 2 to 4",
    });
  });
});

it("outcomes of the second version are run again; those of the third keep what they say, but for what nobody read", async () => {
  const second = await databaseOf("0002-outcomes-sheets-deleted");
  await fill(second.db, "dry-well");
  await second.db("outcomes").insert(outcome(LOG));
  await migrate(second.url);
  expect(await second.db("outcomes")).toEqual([]);

  const third = await databaseOf("0003-proofs");
  await third.db("outcomes").insert({ ...outcome(LOG), pathHash: 5, accepted: true });
  await migrate(third.url);
  const kept: unknown = await third.db("outcomes").first();
  expect(kept).toMatchObject({
    holds: true,
    frames: 4,
    accepted: true,
    fingerprint: "f".repeat(64),
    checks: [{ verdict: "pass" }],
  });
  expect(kept).not.toHaveProperty("pathHash");
});

it("sheets and deleted worlds of the second version stay what they are, and the id of a deleted one may be used again", async () => {
  const { url, db } = await databaseOf("0002-outcomes-sheets-deleted");
  const gone = await fill(db, "dry-well");
  await db("sheets").insert({ worldId: gone, file: "tiles.png", png: Buffer.from([1, 2, 3]) });
  await db("worlds")
    .where({ id: gone })
    .update({ deletedAt: new Date("2026-08-01T00:00:00Z") });
  const there = await fill(db, "dry-well");
  await migrate(url);
  const services = await servicesOn(url, db);
  expect((await services.shelf.row("dry-well")).id).toBe(there);
  expect(await db("sheets").where({ worldId: gone })).toMatchObject([
    { file: "tiles.png", png: Buffer.from([1, 2, 3]) },
  ]);
  await expect(db("worlds").insert({ slug: "dry-well", name: "Third", revision: 1, rooms: 1 })).rejects.toThrow(
    /worlds_slug_on_shelf/,
  );
});

it("proof runs of the third version that nobody works on any more are asked for again; those with logs left go on", async () => {
  const { url, db } = await databaseOf("0003-proofs");
  const worldId = await fill(db, "dry-well");
  const run = (revision: number, worldHash: string, state = "running") => ({
    worldId,
    revision,
    worldHash,
    logs: JSON.stringify({ stand: contentHash(LOG) }),
    total: 1,
    state,
  });
  await db("proof_runs").insert([run(1, "done", "done"), run(2, "left"), run(3, "waiting")]);
  await db("pending_proofs").insert({ worldHash: "waiting", logHash: contentHash(LOG), worldId, jobId: randomUUID() });
  await migrate(url);
  const states = await db("proof_runs").orderBy("revision").select("revision", "state");
  expect(states).toEqual([
    { revision: 1, state: "done" },
    { revision: 2, state: "failed" },
    { revision: 3, state: "running" },
  ]);
});

it("a database that a newer program has brought further is left alone, with a word", async () => {
  const { url, db } = await databaseOf(VERSIONS.at(-1)!);
  await fill(db, "dry-well");
  await db("knex_migrations").insert({ name: "0099-from-the-future", batch: 9, migration_time: new Date() });
  await expect(migrate(url)).rejects.toThrow(/0099-from-the-future/);
  expect(await db("worlds").count("* as n").first()).toEqual({ n: "1" });
});

it("half of a migration that fails is not kept", async () => {
  const { url, db } = await databaseOf("0003-proofs");
  await fill(db, "dry-well");
  // The fourth would add this column; that it is there already ends it in the middle.
  await db.schema.alterTable("logs", (table) => table.text("title"));
  await expect(migrate(url)).rejects.toThrow(/title/);
  expect(await db.schema.hasColumn("worlds", "roomNames")).toBe(false);
  expect(
    (await db("knex_migrations").orderBy("id").select<{ name: string }[]>("name")).map(({ name }) => name),
  ).toEqual(VERSIONS.slice(0, 3));
  expect(await db("worlds").first<unknown>()).toMatchObject({ slug: "dry-well", revision: 3 });
});
