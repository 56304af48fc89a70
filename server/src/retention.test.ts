import { randomUUID } from "node:crypto";
import { pino } from "pino";
import request from "supertest";
import { expect, it, vi } from "vitest";
import type { DeletedWorlds, RevisionList, StaleBase, WorldRevision } from "./api.ts";
import { FactRow } from "./models/fact-row.ts";
import { OutcomeRow } from "./models/outcome-row.ts";
import { ProofRunRow } from "./models/proof-run-row.ts";
import { RevisionRow } from "./models/revision-row.ts";
import { SearchRow } from "./models/search-row.ts";
import { WorldRow } from "./models/world-row.ts";
import { Retention } from "./services/retention.ts";
import { Shelf } from "./services/shelf.ts";
import type { TestApplication } from "./test-support/application.ts";
import { demo, newId } from "./test-support/demo-world.ts";
import { withTestApplication } from "./test-support/application.ts";

const DAY = 86_400_000;
const LOG = "keen-pebble-inputs 1\ntitle Stand\n---\n4 .\n";

let test: TestApplication;
withTestApplication((made) => {
  test = made;
});

const api = () => request(test.server);

it("of what is older than the setting says, a revision a day stays, and what was noted, is shown or is recent; worlds lead where they led", async () => {
  await api()
    .post("/api/imports")
    .send({ world: demo, logs: { stand: LOG } })
    .expect(200);
  const now = new Date("2026-11-27T12:00:00Z");
  const retention = new Retention(test.db, test.desk, 10, pino({ level: "silent" }));
  const { id: worldId } = await WorldRow.query(test.db).findOne({ slug: "saltglass-cistern" }).throwIfNotFound();
  const ageOf = (number: number): number => (number <= 60 ? 20 - Math.floor((number - 1) / 20) : 2);
  for (let number = 2; number <= 75; number++) {
    const step = {
      kind: "change-rules",
      rules: "main",
      setting: "glide.speed",
      before: number === 2 ? 2 : 1 + ((number - 1) % 9),
      after: 1 + (number % 9),
    };
    await api()
      .post("/api/worlds/saltglass-cistern/revisions")
      .send({
        batch: randomUUID(),
        base: number - 1,
        steps: [step],
        ...(number === 30 ? { note: "Feels right." } : {}),
      })
      .expect(201);
  }
  for (let number = 1; number <= 75; number++)
    await RevisionRow.query(test.db)
      .findById([worldId, number])
      .patch({ savedAt: new Date(now.getTime() - ageOf(number) * DAY) });
  await api().get("/api/worlds/saltglass-cistern/outcomes").expect(200);
  const newest = (await api().get("/api/worlds/saltglass-cistern")).body as WorldRevision;
  const at = async (revision: number): Promise<WorldRevision> =>
    (await api().get(`/api/worlds/saltglass-cistern/revisions/${revision}`).expect(200)).body as WorldRevision;
  const before = new Map(
    await Promise.all([1, 20, 30, 40, 60, 61, 74].map(async (number) => [number, await at(number)] as const)),
  );

  // Runs and outcomes of long ago, shown by nobody.
  for (let revision = 2; revision <= 15; revision++)
    await ProofRunRow.query(test.db)
      .insert({
        worldId,
        revision,
        worldHash: `old-${revision}`,
        logs: {},
        total: 0,
        state: "done",
        holds: 0,
        startedAt: new Date(now.getTime() - 15 * DAY),
        finishedAt: null,
      })
      .onConflict(["worldId", "revision"])
      .ignore();
  await OutcomeRow.query(test.db).insert({
    worldHash: "old-2",
    logHash: "a",
    holds: true,
    refused: null,
    status: null,
    frames: null,
    fingerprint: null,
    accepted: null,
    worker: null,
    checks: [],
  });
  await test
    .db("outcomes")
    .where({ worldHash: "old-2" })
    .update({ madeAt: new Date(now.getTime() - 15 * DAY) });
  for (const [state, days] of [
    ["found", 15],
    ["found", 1],
    ["running", 15],
  ] as const)
    await SearchRow.query(test.db).insert({
      id: randomUUID(),
      worldId,
      log: "stand",
      check: "always still",
      state,
      good: null,
      bad: 1,
      found: null,
      startedAt: new Date(now.getTime() - days * DAY),
    });
  const outcomesBefore = await OutcomeRow.query(test.db).resultSize();

  const cleaned = await retention.clean(now);
  const kept = (await RevisionRow.query(test.db).select("number").where("worldId", worldId).orderBy("number")).map(
    ({ number }) => number,
  );
  expect(kept).toEqual([1, 20, 29, 30, 40, 60, ...Array.from({ length: 15 }, (_, i) => 61 + i)]);
  expect(cleaned).toMatchObject({ revisions: 75 - kept.length, searches: 1, worlds: 0 });
  expect(cleaned.runs).toBeGreaterThan(0);
  expect(await OutcomeRow.query(test.db).where({ worldHash: "old-2" })).toEqual([]);
  expect(await OutcomeRow.query(test.db).resultSize()).toBe(outcomesBefore - cleaned.outcomes);

  // Another application, with nothing in its memory.
  const fresh = new Shelf(test.db);
  for (const [number, was] of before) expect(await fresh.openAt("saltglass-cistern", number)).toEqual(was);
  expect(await fresh.open("saltglass-cistern")).toEqual(newest);
  await api().get("/api/worlds/saltglass-cistern/revisions/25").expect(404);
  // Whoever comes with a base that is not kept apart any more hears so, and can begin from the newest.
  expect(
    ((await api().get("/api/worlds/saltglass-cistern/steps?since=25").expect(200)).body as StaleBase).steps,
  ).toBeNull();
  expect(
    ((await api().get("/api/worlds/saltglass-cistern/steps?since=60").expect(200)).body as StaleBase).steps,
  ).toHaveLength(15);
  expect((await retention.clean(now)).revisions).toBe(0);
  const { revisions } = (await api().get("/api/worlds/saltglass-cistern/revisions").expect(200)).body as RevisionList;
  expect(revisions.find(({ revision }) => revision === 40)?.summary).toMatch(/^Main: speed \d to \d$/);
});

it("all worlds that can be put back are listed, until they are too old", async () => {
  const ids = ["one", "two", "three", "four", "five"];
  for (const id of ids) {
    await api()
      .post("/api/imports")
      .send({ world: demo.replace('"id": "saltglass-cistern"', `"id": "${id}"`) })
      .expect(200);
    await api().delete(`/api/worlds/${id}`).expect(200);
  }
  const listed = async (): Promise<string[]> =>
    ((await api().get("/api/deleted-worlds").expect(200)).body as DeletedWorlds).worlds.map(({ id }) => id);
  expect((await listed()).sort()).toEqual([...ids].sort());
  await WorldRow.query(test.db)
    .where("slug", "two")
    .patch({ deletedAt: new Date(Date.now() - 12 * DAY) });
  expect(await new Retention(test.db, test.desk, 10, pino({ level: "silent" })).clean(new Date())).toMatchObject({
    worlds: 1,
  });
  expect((await listed()).sort()).toEqual(["five", "four", "one", "three"]);
});

it("the newest revision stays as it is, however old it is: whoever opens the world next builds on it", async () => {
  const id = newId();
  await api()
    .post("/api/imports")
    .send({ world: demo.replace('"id": "saltglass-cistern"', `"id": "${id}"`), logs: {} })
    .expect(200);
  const { id: worldId } = await WorldRow.query(test.db).findOne({ slug: id }).throwIfNotFound();
  const store = (base: number, before: number, after: number) =>
    api()
      .post(`/api/worlds/${id}/revisions`)
      .send({
        batch: randomUUID(),
        base,
        steps: [{ kind: "change-rules", rules: "main", setting: "glide.speed", before, after }],
      })
      .expect(201);
  for (const [base, before, after] of [
    [1, 2, 3],
    [2, 3, 4],
    [3, 4, 5],
  ] as const)
    await store(base, before, after);
  const now = new Date("2026-11-27T12:00:00Z");
  await RevisionRow.query(test.db)
    .where("worldId", worldId)
    .patch({ savedAt: new Date(now.getTime() - 20 * DAY) });
  await new Retention(test.db, test.desk, 10, pino({ level: "silent" })).clean(now);
  const kept = await RevisionRow.query(test.db).select("number", "summary").where("worldId", worldId).orderBy("number");
  expect(kept.map(({ number, summary }) => `${number} ${summary}`)).toEqual([
    "1 brought in from files",
    "3 Main: speed 2 to 4",
    "4 Main: speed 4 to 5",
  ]);
  await store(4, 5, 6);
});

it("what is old is looked for as soon as the server starts", async () => {
  await FactRow.query(test.db).deleteById("cleaned");
  const said: string[] = [];
  const retention = new Retention(
    test.db,
    test.desk,
    10,
    pino({ level: "info" }, { write: (line) => void said.push(line) }),
  );
  const begun = vi.spyOn(globalThis, "setInterval");
  const ended = vi.spyOn(globalThis, "clearInterval");
  retention.start();
  retention.stop();
  // Once it is stopped it looks no more.
  expect(ended.mock.calls).toEqual([[begun.mock.results[0]!.value]]);
  vi.restoreAllMocks();
  while (!said.some((line) => line.includes("what was old went")))
    await new Promise((resolve) => setImmediate(resolve));
  expect(await FactRow.query(test.db).findById("cleaned")).toBeDefined();
});
