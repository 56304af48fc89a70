import { randomUUID } from "node:crypto";
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { createServer } from "node:net";
import type { AddressInfo } from "node:net";
import os from "node:os";
import path from "node:path";
import { playedLog, writeLog } from "@keen-pebble/core/check";
import type { InputLog } from "@keen-pebble/core/check";
import { fromPlain, writeWorld } from "@keen-pebble/core/formats";
import { compile, fingerprint, run } from "@keen-pebble/core/simulate";
import type { World } from "@keen-pebble/core/world";
import { RIGHT, emptyWorld } from "@keen-pebble/core/world";
import type { Express } from "express";
import fc from "fast-check";
import { pino } from "pino";
import request from "supertest";
import { afterAll, beforeAll, beforeEach, describe, expect, it } from "vitest";
import type { NewPlay, PlaytestGame, PlaytestLink, Problem, RevisionList, WorldRevision } from "./api.ts";
import { createPlayApp } from "./play/play-app.ts";
import type { PlayRates } from "./play/play-app.ts";
import { PlayDoor } from "./play/play-door.ts";
import { traceHash } from "./services/content-hash.ts";
import { MOST_PLAYED_BYTES, MOST_PLAYS } from "./services/keep-play.ts";
import type { TestApplication } from "./test-support/application.ts";
import { withTestApplication } from "./test-support/application.ts";
import { blankPng } from "./test-support/odd-pngs.ts";

const WITHOUT_LIMIT: PlayRates = { requests: 1e6, games: 1e6, allGames: 1e6, plays: 1e6, allPlays: 1e6 };
const logger = pino({ level: "silent" });

let test: TestApplication;
let play: Express;
let folder: string;
let door: PlayDoor;
let id: string;
withTestApplication((made) => {
  test = made;
});
beforeAll(async () => {
  folder = mkdtempSync(path.join(os.tmpdir(), "keen-pebble-play-"));
  mkdirSync(path.join(folder, "assets"));
  writeFileSync(path.join(folder, "play.html"), "<!doctype html><title>Playtest</title>");
  writeFileSync(path.join(folder, "assets", "play-1.js"), "1;");
  play = createPlayApp(test.services.playtests, folder, logger, WITHOUT_LIMIT);
  door = new PlayDoor(play, "127.0.0.1", 0);
  await test.services.playtests.openAt(door);
});
afterAll(async () => {
  await door.close();
  rmSync(folder, { recursive: true });
});
beforeEach(async () => {
  id = `w-${randomUUID().slice(0, 8)}`;
  await api()
    .post("/api/imports")
    .send({ world: writeWorld(emptyWorld(id, "Well", 16)), logs: {} })
    .expect(200);
});

const api = () => request(test.server);
const switched = async (on: boolean, world = id): Promise<PlaytestLink> =>
  (await api().put(`/api/worlds/${world}/playtest`).send({ on }).expect(200)).body as PlaytestLink;
const tokenOf = ({ address }: PlaytestLink): string => new URL(address!).pathname.slice("/play/".length);
const opened = async (world = id): Promise<WorldRevision> =>
  (await api().get(`/api/worlds/${world}`).expect(200)).body as WorldRevision;
const journal = async (): Promise<RevisionList> =>
  (await api().get(`/api/worlds/${id}/revisions`).expect(200)).body as RevisionList;

/** A play as the page sends it. */
function playOf(world: World, revision: number, more: Partial<NewPlay> = {}, log?: InputLog): NewPlay {
  const played = log ?? {
    ...playedLog(world),
    lines: [{ kind: "keys", count: 9, keys: RIGHT, pointer: null, until: null }],
  };
  const c = compile(world, world.activeRules);
  return {
    batch: randomUUID(),
    revision,
    log: writeLog(played),
    fingerprint: fingerprint(c, run(c, played, { rows: true }).rows!, traceHash()),
    name: "Ada",
    opinion: "It is good.",
    ...more,
  };
}

async function gameOf(token: string): Promise<{ readonly revision: number; readonly world: World }> {
  const { revision, world } = (await request(play).get(`/play/${token}/game`).expect(200)).body as PlaytestGame;
  return { revision, world: fromPlain(world) };
}

const send = (token: string, body: unknown) =>
  request(play)
    .post(`/play/${token}/plays`)
    .send(body as object);

it("is off until it is switched on, has another address each time, and is gone once it is switched off or the world is deleted", async () => {
  const off = (await api().get(`/api/worlds/${id}/playtest`).expect(200)).body as PlaytestLink;
  expect(off).toEqual({ on: false, address: null, fault: null, received: 0, most: MOST_PLAYS });
  const first = tokenOf(await switched(true));
  expect(first).toMatch(/^[A-Za-z0-9_-]{22}$/);
  expect(tokenOf(await switched(true))).toBe(first);
  await request(play).get(`/play/${first}`).expect(200);
  await switched(false);
  const { revision, world } = { revision: 1, world: emptyWorld(id, "Well", 16) };
  for (const answer of [
    await request(play).get(`/play/${first}`),
    await request(play).get(`/play/${first}/game`),
    await request(play).get(`/play/${first}/sheets/a.png`),
    await send(first, playOf(world, revision)),
  ]) {
    expect(answer.status).toBe(404);
    expect((answer.body as Problem).code).toBe("not-found");
  }
  const second = tokenOf(await switched(true));
  expect(second).not.toBe(first);
  await api().delete(`/api/worlds/${id}`).expect(200);
  await request(play).get(`/play/${second}/game`).expect(404);
});

it("listens while a link is on, and only then", async () => {
  const { address } = await switched(true);
  expect((await fetch(address!)).status).toBe(200);
  const { rows } = await test.db.raw<{ rows: { slug: string }[] }>(
    'select w.slug from playtests p join worlds w on w.id = p."worldId" where w."deletedAt" is null',
  );
  for (const { slug } of rows) await switched(false, slug);
  await test.db("playtests").delete();
  await switched(false);
  await expect(fetch(address!)).rejects.toThrow();
});

it("says so where its port is taken, and listens once that is free", async () => {
  const taken = createServer().listen(0, "127.0.0.1");
  await new Promise((resolve) => taken.once("listening", resolve));
  const { port } = taken.address() as AddressInfo;
  const other = new PlayDoor(play, "127.0.0.1", port);
  expect(await other.follow(1)).toBe(
    `port ${port} is taken by another program; name another with KEEN_PEBBLE_PLAY_PORT`,
  );
  expect(other.address("x")).toBeNull();
  await new Promise((resolve) => taken.close(resolve));
  // Asked for twice at once it listens once.
  expect(await Promise.all([other.follow(1), other.follow(2)])).toEqual([null, null]);
  expect(other.address("x")).toBe(`http://127.0.0.1:${port}/play/x`);
  await other.follow(0);
  expect(other.address("x")).toBeNull();
});

it("a play is a log from outside and an opinion, and nothing else; sent twice it is kept once", async () => {
  const token = tokenOf(await switched(true));
  const { revision, world } = await gameOf(token);
  const before = await opened();
  const sent = playOf(world, revision, { name: "Ada <b>", opinion: "# Good\n[x](http://far.example) <img src=x>" });
  for (let i = 0; i < 2; i++) expect((await send(token, sent).expect(201)).body).toEqual({ log: "playtest-1" });
  const after = await opened();
  expect(after).toEqual({ ...before, revision: 2, logs: { ...before.logs, "playtest-1": after.logs["playtest-1"] } });
  expect(after.logs["playtest-1"]).toBe(
    sent.log.replace(
      "---\n",
      `title Playtest 1: Ada <b>\ntag outside\nnote Played from outside at revision 1.\nnote Its run there: ${sent.fingerprint}\n---\n`,
    ),
  );
  const { entries, revisions } = await journal();
  expect(revisions).toHaveLength(2);
  expect(entries).toMatchObject([
    {
      kind: "opinion",
      text: sent.opinion,
      sender: "Ada <b>",
      log: "playtest-1",
      frame: 9,
      revision: 2,
      picture: false,
    },
  ]);
  expect(await switched(true)).toMatchObject({ received: 1 });
  const { text } = await api().get(`/api/worlds/${id}/journal.md`).expect(200);
  expect(text).toContain("From outside, by Ada \\<b\\>:");
  expect(text).toContain("\\# Good\n\\[x\\]\\(http\\://far\\.example\\) \\<img src=x\\>");
});

it("the sheets of the world that is linked are there, and no others", async () => {
  const token = tokenOf(await switched(true));
  const png = blankPng(16, 16);
  await api().put(`/api/worlds/${id}/sheets/a.png`).type("image/png").send(png).expect(200);
  const sheet = await request(play).get(`/play/${token}/sheets/a.png`).expect(200);
  expect(Buffer.from(sheet.body as Buffer).equals(png)).toBe(true);
  await request(play).get(`/play/${token}/sheets/b.png`).expect(404);
});

it("an opinion may be missing; what is played meanwhile changed by others is kept as it was played", async () => {
  const token = tokenOf(await switched(true));
  const { revision, world } = await gameOf(token);
  const sent = playOf(world, revision, { opinion: "" });
  const step = { kind: "change-rules", rules: world.activeRules, setting: "glide.speed", before: 2, after: 4 };
  await api()
    .post(`/api/worlds/${id}/revisions`)
    .send({ batch: randomUUID(), base: 1, steps: [step] })
    .expect(201);
  await send(token, sent).expect(201);
  expect((await opened()).revision).toBe(3);
  expect((await journal()).entries[0]).toMatchObject({ text: "Played, and said nothing.", revision: 3 });
  const other = playOf((await gameOf(token)).world, revision);
  expect((await send(token, other)).body).toMatchObject({ status: 422, code: "refused" });
});

it("a Journal takes so many plays; deleting one makes room", async () => {
  const token = tokenOf(await switched(true));
  const { revision, world } = await gameOf(token);
  await send(token, playOf(world, revision)).expect(201);
  const [entry] = (await journal()).entries;
  const row = await test.db("journal_entries").where({ id: entry!.id }).first<Record<string, unknown>>();
  delete row["id"];
  await test.db("journal_entries").insert(Array.from({ length: MOST_PLAYS - 1 }, () => row));
  expect((await send(token, playOf(world, revision))).body).toMatchObject({ status: 422, code: "refused" });
  expect((await opened()).revision).toBe(2);
  await api().delete(`/api/worlds/${id}/entries/${entry!.id}`).expect(200);
  await send(token, playOf(world, revision)).expect(201);
});

it("the logs of plays take so much room and no more; a log that was deleted gives its name to no other", async () => {
  const token = tokenOf(await switched(true));
  const { revision, world } = await gameOf(token);
  await send(token, playOf(world, revision)).expect(201);
  const { logs } = await opened();
  const text = logs["playtest-1"]!;
  // As docs/guide.md says.
  expect([MOST_PLAYS, MOST_PLAYED_BYTES]).toEqual([200, 8_388_608]);
  const large = `${text}#${"a".repeat(MOST_PLAYED_BYTES - text.length)}\n`;
  const store = (base: number, step: object) =>
    api()
      .post(`/api/worlds/${id}/revisions`)
      .send({ batch: randomUUID(), base, steps: [step] })
      .expect(201);
  await store(2, { kind: "change-log", log: "playtest-1", before: text, after: large });
  expect((await send(token, playOf(world, revision))).body).toMatchObject({ status: 422, code: "refused" });
  await store(3, { kind: "remove-log", log: "playtest-1", text: large });
  expect((await send(token, playOf(world, revision)).expect(201)).body).toEqual({ log: "playtest-2" });
});

it("nothing else of the server is at that address, and nothing of it at the server's own", async () => {
  const token = tokenOf(await switched(true));
  const page = await request(play).get(`/play/${token}`).expect(200);
  expect(page.text).toContain("Playtest");
  expect(page.headers["content-security-policy"]).toContain("default-src 'self'");
  expect(page.headers["content-security-policy"]).toContain("frame-ancestors 'none'");
  await request(play).get("/assets/play-1.js").expect(200);
  for (const address of [
    "/",
    "/play",
    "/play/",
    `/play/${token}/`.replace(/\/$/, "/plays"),
    "/play.html",
    "/assets/",
    "/assets/../play.html",
    "/assets/%2e%2e/play.html",
    "/assets/..%2fplay.html",
    "/api/worlds",
    "/api/health",
    `/api/worlds/${id}`,
    `/play/${token}/../../api/worlds`,
    `/play/${token}/sheets/..%2f..%2fplay.html`,
    `/play/${id}/game`,
    "/play/__proto__/game",
    `/play/${token}/%zz`,
  ])
    expect([address, (await request(play).get(address)).status]).toEqual([address, expect.toSatisfy(isRefusal)]);
  for (const method of ["put", "delete", "patch"] as const)
    for (const address of [`/play/${token}`, `/play/${token}/plays`, `/api/worlds/${id}`])
      expect((await request(play)[method](address).send({})).status).toBe(404);
  await api().post(`/play/${token}/plays`).send({}).expect(404);
});

it("another site's page sends nothing, and whoever asks too often waits", async () => {
  const token = tokenOf(await switched(true));
  const { revision, world } = await gameOf(token);
  const foreign = await send(token, playOf(world, revision)).set("Origin", "http://far.example");
  expect(foreign.status).toBe(403);
  const narrow = createPlayApp(test.services.playtests, folder, logger, {
    requests: 12,
    games: 2,
    allGames: 3,
    plays: 2,
    allPlays: 3,
  });
  const statuses: number[] = [];
  for (let i = 0; i < 4; i++)
    statuses.push((await request(narrow).post(`/play/${token}/plays`).send(playOf(world, revision))).status);
  expect(statuses).toEqual([201, 201, 429, 429]);
  for (const status of [200, 200, 429]) await request(narrow).get(`/play/${token}/game`).expect(status);
  for (let i = 0; i < 5; i++) await request(narrow).get(`/play/${token}`).expect(200);
  await request(narrow).get(`/play/${token}`).expect(429);
});

const isRefusal = (status: number): boolean => status === 400 || status === 404;

describe("2,000 hostile posts", () => {
  const odd = fc.oneof(
    fc.anything({ withBigInt: false, maxDepth: 2 }),
    fc.constantFrom<unknown>(
      null,
      -1,
      1e9,
      2 ** 53,
      "",
      "__proto__",
      "\u0000",
      "../..",
      "a".repeat(5000),
      [],
      {},
      "\u202e",
    ),
  );
  const KEYS = ["batch", "revision", "log", "fingerprint", "name", "opinion"] as const;
  const LINES = [
    "world other",
    "rules other",
    "with holds key 9",
    "title x",
    "accept " + "0".repeat(64),
    "check ever still",
  ];
  /** Whatever is written may be a name or an opinion, but for what no page shows. */
  const spoiltFor = (key: string, value: unknown): unknown =>
    typeof value === "string" && (key === "name" || key === "opinion") ? `${value}\u0000` : value;
  /** What is done to a play that would be taken. */
  const spoilt = fc.oneof(
    fc.tuple(fc.constantFrom(...KEYS), odd).map(([key, value]) => (play: NewPlay): unknown => ({
      ...play,
      [key]: spoiltFor(key, value),
    })),
    fc.constantFrom(...KEYS).map(
      (key) =>
        ({ [key]: _, ...play }: NewPlay): unknown =>
          play,
    ),
    odd.map((value) => () => value),
    odd.map((value) => (play: NewPlay): unknown => ({ ...play, more: value ?? null })),
    fc.tuple(fc.constantFrom(...LINES), fc.nat(3)).map(([line, at]) => (play: NewPlay): unknown => {
      const lines = play.log.split("\n");
      return { ...play, log: [...lines.slice(0, at), line, ...lines.slice(at)].join("\n") };
    }),
    fc
      .tuple(fc.constantFrom("1 A until ever still", "999999 R", "# look", "1 R @1e9,0", "1 Z", "1 R"), fc.boolean())
      .map(([line, last]) => (play: NewPlay): unknown => ({
        ...play,
        log: last ? `${play.log}${line}\n` : play.log.replace("---\n", `---\n${line}\n`),
      })),
    fc.constant((play: NewPlay): unknown => ({ ...play, fingerprint: play.fingerprint.replace(/./g, "0") })),
  );
  /** Too large a one now and then. */
  const spoiled = fc.oneof(
    { arbitrary: spoilt, weight: 40 },
    {
      arbitrary: fc.constant((play: NewPlay): unknown => ({
        ...play,
        log: `${play.log}#${"a".repeat(1200 * 1024)}\n`,
      })),
      weight: 1,
    },
  );

  /** All that there is of the world, but for what its proofs say. */
  const all = async (): Promise<unknown> => {
    const { entries, revisions } = await journal();
    return [await opened(), entries, revisions.map(({ proofs: _, ...revision }) => revision), await switched(true)];
  };

  it("change nothing, and are all refused with a reason", async () => {
    const token = tokenOf(await switched(true));
    const { revision, world } = await gameOf(token);
    const before = await all();
    const good = playOf(world, revision);
    const spoilers = fc.sample(spoiled, { numRuns: 2000, seed: 20_261_129 });
    const statuses = new Map<number, number>();
    const WORDS = /^\{"type":"urn:keen-pebble:problem:[a-z-]+"/;
    const one = async (spoil: (play: NewPlay) => unknown): Promise<void> => {
      const body = spoil({ ...good, batch: randomUUID() });
      const text = body === undefined ? "" : (JSON.stringify(body) ?? "");
      // Over connections that stay: two thousand others would cost more than what is asked of them.
      const answer = await fetch(`${origin}/play/${token}/plays`, {
        method: "POST",
        headers: { "content-type": "application/json" },
        body: text,
      });
      expect([text.slice(0, 300), answer.status, await answer.text()]).toEqual([
        text.slice(0, 300),
        expect.toSatisfy((status: number) => [400, 413, 422, 404].includes(status)),
        expect.stringMatching(WORDS),
      ]);
      statuses.set(answer.status, (statuses.get(answer.status) ?? 0) + 1);
    };
    const { origin } = new URL((await switched(true)).address!);
    for (let at = 0; at < spoilers.length; at += 20) await Promise.all(spoilers.slice(at, at + 20).map(one));
    expect([...statuses.values()].reduce((sum, each) => sum + each, 0)).toBe(2000);
    expect([...statuses.keys()]).toEqual(expect.arrayContaining([400, 413, 422]));
    expect(await all()).toEqual(before);
    // The one that they were made of is taken still.
    await send(token, good).expect(201);
  });
});
