import { randomUUID } from "node:crypto";
import { readFileSync } from "node:fs";
import fc from "fast-check";
import { strToU8, unzipSync, zipSync } from "fflate";
import type { Zippable } from "fflate";
import { readLog } from "@keen-pebble/core/check";
import { invert } from "@keen-pebble/core/edit";
import { fromPlain, toPlain, writeWorld } from "@keen-pebble/core/formats";
import { writePng } from "@keen-pebble/core/reading";
import request from "supertest";
import { describe, expect, it } from "vitest";
import type { DeletedWorlds, Imported, WorldList, WorldOutcomes, WorldRevision } from "./api.ts";
import { OutcomeRow } from "./models/outcome-row.ts";
import type { TestApplication } from "./test-support/application.ts";
import { demoFolder, newId, worldFile } from "./test-support/demo-world.ts";
import { followEvents } from "./test-support/follow-events.ts";
import { bombPng, pngOfSize } from "./test-support/odd-pngs.ts";
import { withTestApplication } from "./test-support/application.ts";

const round = readFileSync(`${demoFolder}logs/round-the-basin.inputs`, "utf8");
const LOG = "keen-pebble-inputs 1\ntitle Stand\ncheck end cell 4 12\n---\n4 .\n";
const PNG = Buffer.from(
  "89504e470d0a1a0a0000000d49484452000000010000000108060000001f15c4890000000d49444154789c6360606060000000050001a5f645400000000049454e44ae426082",
  "hex",
);

let test: TestApplication;
withTestApplication((made) => {
  test = made;
});

const api = () => request(test.server);
const open = async (id: string): Promise<WorldRevision> =>
  (await api().get(`/api/worlds/${id}`).expect(200)).body as WorldRevision;
const bringIn = async (files: object): Promise<Imported> =>
  (await api().post("/api/imports").send(files).expect(200)).body as Imported;
const sendBundle = (bytes: Uint8Array) =>
  api().post("/api/imports").set("Content-Type", "application/zip").send(Buffer.from(bytes));
const MIB = 1024 * 1024;
const zip = (files: Zippable): Uint8Array => zipSync(files, { level: 1 });
const shelf = async (): Promise<WorldList> => (await api().get("/api/worlds").expect(200)).body as WorldList;
const bytesOf = async (address: string): Promise<Buffer> =>
  (
    await api()
      .get(address)
      .buffer(true)
      .parse((res, done) => {
        const pieces: Buffer[] = [];
        res.on("data", (piece: Buffer) => pieces.push(piece));
        res.on("end", () => done(null, Buffer.concat(pieces)));
      })
      .expect(200)
  ).body as Buffer;

describe("a changed file of a world that is here", () => {
  it("becomes one revision that says what changed and can be taken back; the same file makes none", async () => {
    const id = newId();
    expect(await bringIn({ world: worldFile(id), logs: { stand: LOG } })).toMatchObject({
      id,
      made: "world",
      revision: 1,
    });
    const before = await open(id);
    const edited = worldFile(id)
      .replace('"speed": 2', '"speed": 4')
      .replace('"name": "Intake hall"', '"name": "Intake"')
      .replace("3,3,3,3,3", "3,3,3,4,3");
    const made = await bringIn({ world: edited, logs: { stand: LOG.replace("4 .", "5 ."), round } });
    expect(made).toMatchObject({
      id,
      made: "revision",
      revision: 2,
      summary: expect.stringMatching(
        /^Main: speed 2 to 4; Intake: name; .*log round kept; log stand: keys, 4 to 5 frames$/,
      ) as string,
    });
    const after = await open(id);
    expect(writeWorld(fromPlain(after.world))).toBe(edited);
    expect(Object.keys(after.logs).sort()).toEqual(["round", "stand"]);
    expect(await bringIn({ world: edited })).toMatchObject({ made: "nothing", revision: 2, steps: [] });

    const back = [...made.steps].reverse().map(invert);
    await api().post(`/api/worlds/${id}/revisions`).send({ batch: randomUUID(), base: 2, steps: back }).expect(201);
    expect({ ...(await open(id)), revision: 1 }).toEqual(before);
  });

  it("a whole part that does not fit is refused at its place, and nothing is stored", async () => {
    const id = newId();
    await bringIn({ world: worldFile(id) });
    const tiles = fromPlain((await open(id)).world).tiles;
    const parts = (after: unknown) => ({
      batch: randomUUID(),
      base: 1,
      steps: [
        {
          kind: "change-parts",
          parts: [{ part: "tiles/brick", before: tiles.find((tile) => tile.id === "brick"), after }],
        },
      ],
    });
    await api()
      .post(`/api/worlds/${id}/revisions`)
      .send(parts({ id: "brick" }))
      .expect(400, /tiles\/brick/);
    await api()
      .post(`/api/worlds/${id}/revisions`)
      .send(parts({ ...tiles[1]!, id: "brick", flags: ["hot"] }))
      .expect(422, /names flag hot/);
    await api()
      .post(`/api/worlds/${id}/revisions`)
      .send(parts(null))
      .expect(422, /rooms\.\d\.cells/);
    expect((await open(id)).revision).toBe(1);
  });
});

it("loose logs go to the world that they name or that is chosen, CSV too; otherwise they are refused", async () => {
  const id = newId();
  await bringIn({ world: worldFile(id) });
  const named = round.replace("world saltglass-cistern", `world ${id}`);
  expect(await bringIn({ logs: { round: named } })).toMatchObject({ id, made: "revision", summary: "log round kept" });
  expect(await bringIn({ csvLogs: { pressed: "frame,keys\n1,U\n9,.\n" }, into: id })).toMatchObject({
    made: "revision",
    summary: "log pressed kept",
  });
  expect(readLog((await open(id)).logs["pressed"]!).lines).toMatchObject([{ count: 8 }, { count: 1 }]);
  await api()
    .post("/api/imports")
    .send({ logs: { stand: LOG } })
    .expect(422, /the logs name no world/);
  await api()
    .post("/api/imports")
    .send({ logs: { a: LOG.replace("title", "world attic\ntitle") } })
    .expect(422, /there is no world attic on the shelf/);
  await api().post("/api/imports").send({ into: id }).expect(400);
  expect((await bytesOf(`/api/worlds/${id}/logs/round`)).toString()).toBe(named);
  expect((await bytesOf(`/api/worlds/${id}/world.json`)).toString()).toBe(worldFile(id));
});

it("a recording of a game that its world knows is a log, under the game's own names; another one is refused", async () => {
  const id = `game-${randomUUID().slice(0, 8)}`;
  const game = `"games": [{ "id": "own", "name": "Own", "columns": { "frame": "tick", "keys": "pad" }, "keys": { "NORTH": "U" } }],`;
  await bringIn({ world: worldFile(id).replace('"games": [],', game) });
  await bringIn({ csvLogs: { own: "tick;pad\n1;NORTH\n5;\n" }, into: id });
  expect(readLog((await open(id)).logs["own"]!).lines).toMatchObject([{ count: 4, keys: 4 }, { count: 1 }]);
  await api()
    .post("/api/imports")
    .send({ csvLogs: { other: "a,b\n1,2\n" }, into: id })
    .expect(422, /those of Own, found/);
});

it("outcomes say what each log comes to, and are kept by the contents of world and log", async () => {
  const id = newId();
  await bringIn({
    world: worldFile(id),
    logs: { round, lost: LOG.replace("start", "").replace("title", "rules roof\ntitle") },
  });
  const ask = async (): Promise<WorldOutcomes> =>
    (await api().get(`/api/worlds/${id}/outcomes`).expect(200)).body as WorldOutcomes;
  const first = await ask();
  expect(first.outcomes).toMatchObject([
    { log: "lost", holds: false, refused: expect.stringContaining("roof") as string, checks: [] },
    { log: "round", holds: true, status: "playing", frames: 238, fingerprint: null, accepted: null },
  ]);
  expect(first.outcomes[1]!.checks).toHaveLength(6);
  await OutcomeRow.query(test.db).patch({ status: "as it was kept" }).whereNotNull("status");
  expect((await ask()).outcomes[1]!.status).toBe("as it was kept");
  await api()
    .post(`/api/worlds/${id}/revisions`)
    .send({
      batch: randomUUID(),
      base: 1,
      steps: [{ kind: "change-rules", rules: "main", setting: "glide.speed", before: 2, after: 4 }],
    })
    .expect(201);
  expect((await ask()).outcomes[1]).toMatchObject({ holds: false, status: "playing" });
});

it("a copy of a world with the longest of ids has room for three figures behind it, and copies are counted on", async () => {
  const id = `${newId()}-`.padEnd(40, "x");
  // Under a name of its own: names of copies are counted on over the whole shelf.
  await bringIn({ world: worldFile(id).replace('"name": "Saltglass Cistern"', '"name": "Cistern of the long id"') });
  const copyOf = async (world: string): Promise<string> =>
    ((await api().post(`/api/worlds/${world}/copy`).expect(201)).body as { id: string }).id;
  const second = await copyOf(id);
  expect([second, await copyOf(second), await copyOf(id)]).toEqual([2, 3, 4].map((n) => `${id.slice(0, 36)}-${n}`));
});

it("a copy has an id, a name and logs of its own; a deleted world can be put back", async () => {
  const id = newId();
  await bringIn({ world: worldFile(id), logs: { round: round.replace("world saltglass-cistern", `world ${id}`) } });
  const { body } = (await api().post(`/api/worlds/${id}/copy`).expect(201)) as { body: { id: string } };
  const copy = await open(body.id);
  expect(copy.world["name"]).toBe("Saltglass Cistern, copy");
  expect(readLog(copy.logs["round"]!).world).toBe(body.id);

  const { key } = (await api().delete(`/api/worlds/${id}`).expect(200)).body as { key: number };
  await api().get(`/api/worlds/${id}`).expect(404);
  expect((await shelf()).worlds.map((world) => world.id)).not.toContain(id);
  expect(((await api().get("/api/deleted-worlds").expect(200)).body as DeletedWorlds).worlds[0]).toMatchObject({
    key,
    id,
  });
  await api().post(`/api/deleted-worlds/${key}/restore`).expect(200, { id });
  expect((await open(id)).logs).toHaveProperty("round");
  await api().delete(`/api/worlds/${id}`).expect(200);
  await bringIn({ world: worldFile(id) });
  await api().post(`/api/deleted-worlds/${key}/restore`).expect(409);
  await api().post("/api/deleted-worlds/x/restore").expect(400);
});

it("a sheet's picture is stored and given back; what is no PNG is refused", async () => {
  const id = newId();
  await bringIn({ world: worldFile(id) });
  const put = (file: string, bytes: Buffer) =>
    api().put(`/api/worlds/${id}/sheets/${file}`).set("Content-Type", "image/png").send(bytes);
  const picture = Buffer.from(writePng({ width: 2, height: 1, rgba: Uint8Array.from([1, 2, 3, 255, 4, 5, 6, 255]) }));
  await put("cistern.png", picture).expect(200, { file: "cistern.png", width: 2, height: 1 });
  expect((await bytesOf(`/api/worlds/${id}/sheets/cistern.png`)).equals(picture)).toBe(true);
  await put("cistern.png", picture.subarray(0, 40)).expect(422, /cistern.png is refused: is a broken PNG/);
  await put("cistern.png", Buffer.from("GIF89a")).expect(422, /is no PNG/);
  await put("..png", picture).expect(400);
  await api().get(`/api/worlds/${id}/sheets/gone.png`).expect(404);
  await api().put("/api/worlds/nowhere/sheets/a.png").set("Content-Type", "image/png").send(picture).expect(404);
});

describe("bundles", () => {
  const files = (id: string): Zippable => ({
    "world.json": strToU8(worldFile(id)),
    "logs/round.inputs": strToU8(round),
    "sheets/cistern.png": PNG,
    "journal.md": strToU8("# Notes\n\nThe basin is deep.\n"),
  });

  /** A bundle of so many bytes, most of them in its journal. */
  const filled = (bytes: number): Zippable => {
    const { "journal.md": _, ...others } = files("a") as Record<string, Uint8Array>;
    const taken = Object.values(others).reduce((sum, { length }) => sum + length, 0);
    return { ...others, "journal.md": new Uint8Array(bytes - taken) };
  };

  it("come in and go out whole; the same contents are the same bytes", async () => {
    const id = newId();
    expect((await sendBundle(zip(files(id))).expect(200)).body).toMatchObject({ id, made: "world", revision: 1 });
    const out = await bytesOf(`/api/worlds/${id}/bundle.zip`);
    expect((await bytesOf(`/api/worlds/${id}/bundle.zip`)).equals(out)).toBe(true);
    // Each is dated with the first day that a ZIP can name: day and month 1, no year after 1980, midnight.
    expect(out.readUInt32LE(10)).toBe(0x0021_0000);
    const entries = unzipSync(out);
    expect(Object.keys(entries)).toEqual(["world.json", "logs/round.inputs", "sheets/cistern.png", "journal.md"]);
    expect(Buffer.from(entries["world.json"]!).toString()).toBe(worldFile(id));
    expect(Buffer.from(entries["logs/round.inputs"]!).toString()).toBe(round);
    expect(Buffer.from(entries["sheets/cistern.png"]!).equals(PNG)).toBe(true);
    expect(Buffer.from(entries["journal.md"]!).toString()).toContain("The basin is deep.");
    expect((await sendBundle(out).expect(200)).body).toMatchObject({ id, made: "nothing" });
  });

  const asLink = (bytes: Uint8Array): Uint8Array => {
    // In the central directory: made on Unix, mode of a link.
    const at = Buffer.from(bytes).lastIndexOf(Buffer.from([0x50, 0x4b, 0x01, 0x02]));
    const view = new DataView(bytes.buffer, bytes.byteOffset);
    view.setUint8(at + 5, 3);
    view.setUint32(at + 38, 0o120777 * 65_536, true);
    return bytes;
  };
  const renamed =
    (from: string, to: string) =>
    (bytes: Uint8Array): Uint8Array =>
      Buffer.from(Buffer.from(bytes).toString("latin1").replaceAll(from, to), "latin1");
  const liar = (bytes: Uint8Array): Uint8Array => {
    // The entry says that it is small.
    const copy = Buffer.from(bytes);
    for (const [signature, size] of [
      [0x02014b50, 24],
      [0x04034b50, 22],
    ] as const) {
      const head = Buffer.alloc(4);
      head.writeUInt32LE(signature);
      copy.writeUInt32LE(100, copy.lastIndexOf(head) + size);
    }
    return copy;
  };
  it.each<[string, () => Uint8Array, RegExp]>([
    [
      "leaves the folder",
      () => renamed("logs/round.inputs", "../x/round.inputs")(zip(files("a"))),
      /invalid relative path/,
    ],
    ["has an absolute path", () => renamed("logs/round.inputs", "/ogs/round.inputs")(zip(files("a"))), /absolute path/],
    [
      "has a backslash",
      () => renamed("logs/round.inputs", "logs\\round.inputs")(zip(files("a"))),
      /invalid characters/,
    ],
    ["has a link", () => asLink(zip({ ...files("a"), "logs/a.inputs": strToU8("/etc/passwd") })), /is a link/],
    ["has a file of another kind", () => zip({ ...files("a"), "logs/a.exe": strToU8("x") }), /logs\/ID.inputs/],
    ["has a folder too many", () => zip({ ...files("a"), "more/a.txt": strToU8("x") }), /expected world.json/],
    ["has no world", () => zip({ "logs/a.inputs": strToU8(LOG) }), /world.json: is missing/],
    [
      "has 2,001 entries",
      () =>
        zip({
          ...files("a"),
          ...Object.fromEntries(Array.from({ length: 1997 }, (_, i) => [`logs/l${i}.inputs`, strToU8(LOG)])),
        }),
      /has 2001 entries, more than 2000/,
    ],
    ["unpacks to a byte more than 64 MiB", () => zip(filled(64 * MIB + 1)), /more than 67108864 bytes/],
    // Of so many in all nothing is said.
    [
      "unpacks to 64 MiB with a file of more than 16",
      () => zip(filled(64 * MIB)),
      /journal.md: is larger than 16777216/,
    ],
    [
      "says that it is smaller than it is",
      () => liar(zip({ "world.json": strToU8(worldFile("a")), "journal.md": new Uint8Array(80 * 1024 * 1024) })),
      /journal.md: cannot be unpacked/,
    ],
    [
      "has text that is not UTF-8",
      () => zip({ ...files("a"), "journal.md": Uint8Array.of(0xff, 0xfe) }),
      /journal.md: is not UTF-8/,
    ],
    [
      "has a sheet that is no PNG",
      () => zip({ ...files("a"), "sheets/b.png": strToU8("GIF89a") }),
      /sheets\/b.png is refused: is no PNG/,
    ],
    [
      "has a sheet of 30,000 px a side",
      () => zip({ ...files("a"), "sheets/b.png": Uint8Array.from(pngOfSize(30_000, 30_000)) }),
      /sheets\/b.png is refused: has 30000x30000 pixels/,
    ],
    [
      "has a sheet that unpacks to 100 MB",
      () => zip({ ...files("a"), "sheets/b.png": bombPng() }),
      /unpacks to more than its size says/,
    ],
    [
      "has a sheet with markup for a name",
      () => zip({ ...files("a"), "sheets/<b>.png": writePng({ width: 1, height: 1, rgba: new Uint8Array(4) }) }),
      /sheets\/NAME.png/,
    ],
    ["has a journal with NUL", () => zip({ ...files("a"), "journal.md": strToU8("a\0b") }), /journal.md: holds a NUL/],
    ["has a broken log", () => zip({ ...files("a"), "logs/b.inputs": strToU8("?") }), /log b is refused: line 1/],
    ["is no ZIP", () => strToU8("PK"), /is no ZIP that can be read/],
  ])("one that %s is refused", async (_what, make, message) => {
    const before = await shelf();
    const answer = await sendBundle(make());
    expect(answer).toMatchObject({ status: 422, body: { code: "refused" } });
    expect((answer.body as { detail: string }).detail).toMatch(message);
    expect(await shelf()).toEqual(before);
  });

  it("may have entries for the two folders, as many programs write them, and for no other", async () => {
    const nothing = new Uint8Array(0);
    const id = newId();
    expect(
      (await sendBundle(zip({ ...files(id), "logs/": nothing, "sheets/": nothing })).expect(200)).body,
    ).toMatchObject({ id, made: "world" });
    for (const odd of ["more/", "logs/deep/", "Logs/", "/"]) {
      const answer = await sendBundle(zip({ ...files(newId()), [odd]: nothing }));
      expect([odd, answer.status]).toEqual([odd, 422]);
    }
  });

  it("damaged ones are refused or read whole; never a fault, never half a world", async () => {
    const id = newId();
    const good = zip(files(id));
    const damage = fc.oneof(
      fc
        .array(fc.tuple(fc.nat(good.length - 1), fc.integer({ min: 0, max: 7 })), { minLength: 1, maxLength: 6 })
        .map((flips) => {
          const bytes = Uint8Array.from(good);
          for (const [at, bit] of flips) bytes[at]! ^= 1 << bit;
          return bytes;
        }),
      fc.nat(good.length - 1).map((end) => good.slice(0, end)),
      fc
        .tuple(fc.nat(good.length - 1), fc.nat(good.length - 1))
        .map(([from, to]) => Buffer.concat([good.slice(0, from), good.slice(to)])),
    );
    let refused = 0;
    await fc.assert(
      fc.asyncProperty(damage, async (bytes) => {
        const answer = await sendBundle(bytes);
        expect(answer.status === 400 ? bytes.length : answer.status).toBe(
          bytes.length === 0 ? 0 : answer.status === 200 ? 200 : 422,
        );
        if (bytes.length === 0) return;
        if (answer.status === 422) {
          refused++;
          expect((answer.body as { data: { message: string }[] }).data[0]!.message).toMatch(/\S/);
          return;
        }
        const { id: made } = answer.body as Imported;
        const { world, logs } = await open(made);
        expect(toPlain(fromPlain(world))).toEqual(world);
        for (const log of Object.values(logs)) readLog(log);
      }),
      { seed: 20_261_125, numRuns: 250 },
    );
    expect(refused).toBeGreaterThan(100);
  });
});

it("every operation of the OpenAPI document is served, and the document is whole", async () => {
  const { body } = (await api().get("/api/openapi.json").expect(200)) as {
    body: { openapi: string; paths: Record<string, Record<string, unknown>> };
  };
  expect(body.openapi).toBe("3.1.0");
  const id = newId();
  await bringIn({ world: worldFile(id) });
  await api().get("/api/health").expect(200);
  // What `proofs.test.ts` is about, asked for once each.
  await api().post(`/api/worlds/${id}/proofs`).expect(202);
  await api().get(`/api/worlds/${id}/proofs`).expect(200);
  await api().delete(`/api/worlds/${id}/proofs`).expect(200);
  await api().get(`/api/worlds/${id}/junit.xml`).expect(200);
  await api().get(`/api/worlds/${id}/revisions`).expect(200);
  await api().get(`/api/worlds/${id}/revisions/1`).expect(200);
  await api().get(`/api/worlds/${id}/journal.md`).expect(200);
  await api().put(`/api/worlds/${id}/revisions/1/note`).send({ note: "Begun." }).expect(200);
  const { id: entry } = (
    await api()
      .post(`/api/worlds/${id}/entries`)
      .send({ kind: "reason", text: "Begun.", log: null, frame: null, picture: "iVBORw0KGgo=" })
      .expect(201)
  ).body as { id: number };
  await api().get(`/api/worlds/${id}/entries/${entry}/picture`).expect(200);
  await api().put(`/api/worlds/${id}/entries/${entry}`).send({ text: "Begun well." }).expect(200);
  await api().delete(`/api/worlds/${id}/entries/${entry}`).expect(200);
  for (const on of [true, false]) await api().put(`/api/worlds/${id}/playtest`).send({ on }).expect(200);
  await api().get(`/api/worlds/${id}/playtest`).expect(200);
  await bringIn({ logs: { round }, into: id });
  const { id: search } = (
    await api().post(`/api/worlds/${id}/searches`).send({ log: "round", check: "always still" }).expect(202)
  ).body as { id: string };
  await api().get(`/api/worlds/${id}/searches/${search}`).expect(200);
  await api().delete(`/api/worlds/${id}/searches/${search}`).expect(200);
  const { logs } = await open(id);
  const accept = {
    kind: "change-log",
    log: "round",
    before: logs["round"],
    after: logs["round"]!.replace("check by", `accept ${"0".repeat(64)}\ncheck by`),
  };
  await api().get(`/api/worlds/${id}/logs/round/accepted`).expect(404);
  await api()
    .post(`/api/worlds/${id}/revisions`)
    .send({ batch: randomUUID(), base: 2, steps: [accept] })
    .expect(201);
  await api().get(`/api/worlds/${id}/logs/round/accepted`).expect(200, { revision: 3 });
  await (await followEvents(test.app, "/api/events")).close();
  await api().get("/api/shelf").expect(200);
  await api().get(`/api/worlds/${id}/steps?since=1`).expect(200);
  const said = Object.entries(body.paths).flatMap(([path, methods]) =>
    Object.keys(methods).map((method) => `${method} ${path}`),
  );
  expect([...test.held.used].sort()).toEqual(said.sort());
});
