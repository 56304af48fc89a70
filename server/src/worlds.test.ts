import { randomUUID } from "node:crypto";
import type { EditStep } from "@keen-pebble/core/edit";
import { readLog } from "@keen-pebble/core/check";
import { applyAll } from "@keen-pebble/core/edit";
import { fromPlain, writeWorld } from "@keen-pebble/core/formats";
import { readWorld } from "@keen-pebble/core/reading";
import request from "supertest";
import { describe, expect, it } from "vitest";
import type { WorldRevision } from "./api.ts";
import { RevisionRow } from "./models/revision-row.ts";
import { putDemoIn } from "./services/demo.ts";
import { Shelf } from "./services/shelf.ts";
import { createApp } from "./app.ts";
import { connect } from "./database/connect.ts";
import { pino } from "pino";
import type { TestApplication } from "./test-support/application.ts";
import { demo, newId, worldFile } from "./test-support/demo-world.ts";
import { withTestApplication } from "./test-support/application.ts";

const folder = new URL("../../demo/", import.meta.url).pathname;
const LOG = "keen-pebble-inputs 1\ntitle Stand\ncheck end cell 4 12\n---\n4 .\n";

let test: TestApplication;
withTestApplication((made) => {
  test = made;
});

const api = () => request(test.server);

/** The demo's world file under another id. */

/** Puts a copy of the demo on the shelf under another id. */
async function newWorld(logs: Record<string, string> = {}): Promise<string> {
  const id = newId();
  await api()
    .post("/api/imports")
    .send({ world: worldFile(id), logs })
    .expect(200);
  return id;
}

const speed = (before: number, after: number): EditStep => ({
  kind: "change-rules",
  rules: "main",
  setting: "glide.speed",
  before,
  after,
});
const store = (id: string, base: number, steps: readonly unknown[], batch: string = randomUUID()) =>
  api().post(`/api/worlds/${id}/revisions`).send({ batch, base, steps });
const open = async (id: string): Promise<WorldRevision> =>
  (await api().get(`/api/worlds/${id}`).expect(200)).body as WorldRevision;

describe("worlds", () => {
  it("come in from files, are listed and opened as they were", async () => {
    const id = await newWorld({ stand: LOG });
    const { revision, world, logs } = await open(id);
    expect(revision).toBe(1);
    expect(writeWorld(fromPlain(world))).toBe(demo.replace('"id": "saltglass-cistern"', `"id": "${id}"`));
    expect(logs).toEqual({ stand: LOG });
    const list = (await api().get("/api/worlds").expect(200)).body as { worlds: { id: string }[] };
    expect(list.worlds.find((w) => w.id === id)).toMatchObject({
      name: "Saltglass Cistern",
      revision: 1,
      rooms: 5,
      logs: 1,
      summary: "brought in from files",
    });
  });

  it("that are not in order are refused with their place, and nothing of them is stored", async () => {
    const before = (await api().get("/api/worlds")).body as { worlds: unknown[] };
    const bad = await api()
      .post("/api/imports")
      .send({ world: demo.replace('"tileSize": 16', '"tileSize": 2') });
    expect(bad).toMatchObject({
      status: 422,
      type: "application/problem+json",
      body: { code: "refused", data: [{ place: "tileSize", line: 6, column: 3 }] },
    });
    await api()
      .post("/api/imports")
      .send({ world: worldFile("other"), logs: { a: "?" } })
      .expect(422);
    expect((await api().get("/api/worlds")).body).toEqual(before);
  });
});

describe("edits", () => {
  it("are stored as revisions that lead to just what applying them gives, over many snapshots", async () => {
    const id = await newWorld();
    const start = { world: readWorld(demo), logs: new Map<string, string>() };
    const steps: EditStep[] = [];
    for (let i = 0; i < 60; i++) {
      const step: EditStep =
        i % 2 === 0
          ? speed(i === 0 ? 2 : 1 + ((i - 2) % 16), 1 + (i % 16))
          : {
              kind: "set-cells",
              room: "intake-hall",
              cells: [100 + i],
              before: [start.world.rooms[0]!.cells[100 + i]!],
              after: [0],
            };
      steps.push(step);
      await store(id, i + 1, [step]).expect(201);
    }
    const expected = applyAll(start, steps);
    // Another application has nothing in its memory.
    const fresh = await new Shelf(test.db).open(id);
    expect(fresh.revision).toBe(61);
    expect({ ...fromPlain(fresh.world), id: "saltglass-cistern" }).toEqual(expected.world);
    const snapshots = await RevisionRow.query(test.db)
      .select("number")
      .whereNotNull("snapshot")
      .whereIn("worldId", RevisionRow.query(test.db).select("worldId").where("summary", "Main: speed 2 to 1"));
    expect(snapshots.map((s) => s.number)).toContain(51);
  });

  it("on a stale base are refused with what happened since; the same batch twice is stored once", async () => {
    const id = await newWorld();
    const batch = randomUUID();
    await store(id, 1, [speed(2, 4)], batch).expect(201, { revision: 2, summary: "Main: speed 2 to 4" });
    await store(id, 1, [speed(2, 4)], batch).expect(201, { revision: 2, summary: "Main: speed 2 to 4" });
    expect(await store(id, 1, [speed(2, 8)])).toMatchObject({
      status: 409,
      body: { code: "stale-base", data: { revision: 2, steps: [speed(2, 4)] } },
    });
    expect((await open(id)).revision).toBe(2);
  });

  it("of two that come at the same time one is stored and the other is stale", async () => {
    const id = await newWorld();
    const answers = await Promise.all([4, 8, 16].map((to) => store(id, 1, [speed(2, to)])));
    expect(answers.map((a) => a.status).sort()).toEqual([201, 409, 409]);
  });

  it("are kept whole or not at all", async () => {
    const id = await newWorld();
    await store(id, 1, [speed(2, 4), speed(2, 8)]).expect(422, /glide.speed of rules main is 4, not 2/);
    await store(id, 1, [
      { kind: "add-log", log: "a", text: LOG },
      { kind: "add-log", log: "a", text: LOG },
    ]).expect(422);
    expect(await open(id)).toMatchObject({ revision: 1, logs: {} });
    await store(id, 1, [{ kind: "add-log", log: "a", text: LOG }]).expect(201);
    await store(id, 2, [{ kind: "remove-log", log: "a", text: LOG }]).expect(201);
    expect((await open(id)).logs).toEqual({});
  });

  it.each([
    [{ base: 0 }, "base"],
    [{ steps: [] }, "steps"],
    [{ batch: "x" }, "batch"],
    [{ steps: [{ kind: "move-mountain" }] }, "steps.0.kind"],
    [{ steps: [{ kind: "set-cells", room: "a", cells: [1, 2], before: [0], after: [0, 0] }] }, "steps.0.before"],
    [{ steps: [{ ...speed(2, 4), more: 1 }] }, "steps.0.more"],
    [{ steps: [{ kind: "change-parts", parts: [{ part: "tiles/brick", before: null }] }] }, "steps.0.parts.0.after"],
  ])("that are not in order are refused at their place: %j", async (over, place) => {
    const body = { batch: randomUUID(), base: 1, steps: [speed(2, 4)], ...over };
    expect(await api().post("/api/worlds/any/revisions").send(body)).toMatchObject({
      status: 400,
      body: { code: "bad-request", data: { place } },
    });
  });
});

describe("requests", () => {
  it("for what is not there, or from elsewhere, are told so as problem details without a stack", async () => {
    for (const [answer, status] of [
      [await api().get("/api/worlds/nowhere"), 404],
      [await api().get("/api/worlds/No%20where"), 400],
      [await api().get("/api/elsewhere"), 404],
      [await api().get("/api/worlds").set("Host", "cistern.example"), 403],
      [await api().post("/api/imports").set("Origin", "http://cistern.example").send({}), 403],
      [await api().post("/api/imports").set("Content-Type", "application/json").send("{"), 400],
    ] as const) {
      expect(answer).toMatchObject({
        status,
        type: "application/problem+json",
        body: { status, type: expect.stringMatching(/^urn:keen-pebble:problem:/) as string },
      });
      expect(answer.text).not.toContain("node_modules");
    }
  });

  it("are answered 503 while the database is away", async () => {
    const away = connect("postgres://keen_pebble@127.0.0.1:1/none");
    const app = createApp({
      db: away,
      desk: test.desk,
      services: { ...test.services, shelf: new Shelf(away) },
      logger: pino({ level: "silent" }),
      webFolder: null,
      hosts: ["127.0.0.1"],
    });
    expect(await request(app).get("/api/worlds")).toMatchObject({
      status: 503,
      body: { code: "no-database", detail: "the database does not answer; nothing was stored" },
    });
    await away.destroy();
  });
});

it("the demo is put in once, and stays away once it was taken away", async () => {
  expect(await putDemoIn(test.db, new Shelf(test.db), folder)).toEqual(["trying-grounds", "saltglass-cistern"]);
  expect(await putDemoIn(test.db, new Shelf(test.db), folder)).toEqual([]);
  const { logs } = await open("saltglass-cistern");
  const titles = Object.values(logs).map((text) => readLog(text).title);
  expect(titles).toHaveLength(25);
  expect(titles).toEqual(expect.arrayContaining(["A turn pressed early", "The whole way to the lamp"]));
});
