import { readWorld } from "@keen-pebble/core/reading";
import { readLog } from "@keen-pebble/core/check";
import { compile, run } from "@keen-pebble/core/simulate";
import { emptyWorld } from "@keen-pebble/core/world";
import { strFromU8, unzipSync } from "fflate";
import { beforeEach, describe, expect, it } from "vitest";
import { bytesOf, newWorldTarget } from "../elsewhere/new-world-target.ts";
import type { MapRead } from "../elsewhere/read-map.ts";
import type { ShelfSession } from "./shelf.ts";
import { TEMPLATES, WorldMaking, readTyped } from "./make-world.ts";

/** What was brought in on the shelf, and bundles that a world was made of. */
let brought: { readonly files: readonly File[]; readonly into: string | null; readonly origin: string | undefined }[];
let bundles: File[];
let opened: string[];
let answer: string | { readonly fault: string };
const shelf = {
  store: { getState: () => ({ worlds: [{ id: "hall" }, { id: "hall-2" }] }) },
  bringIn: (files: readonly File[], into: string | null, origin?: "made") => void brought.push({ files, into, origin }),
  makeOf: (bundle: File) => {
    bundles.push(bundle);
    return Promise.resolve(answer);
  },
} as unknown as ShelfSession;
const making = new WorldMaking(shelf, (world) => void opened.push(world));
const target = newWorldTarget(shelf, (world) => void opened.push(world));

beforeEach(() => {
  brought = [];
  bundles = [];
  opened = [];
  answer = "hall-3";
});

describe("a world that is made", () => {
  it("is empty with one room as asked for, under an id that nobody has", async () => {
    making.makeEmptyWorld("Hall", 7, 5, 8);
    const [{ files, into, origin }] = brought as [(typeof brought)[number]];
    expect([files.map(({ name }) => name), into, origin]).toEqual([["hall-3.world.json"], null, "made"]);
    const world = readWorld(await files[0]!.text());
    expect([world.id, world.name, world.tileSize, world.rooms.map(({ width, height }) => [width, height])]).toEqual([
      "hall-3",
      "Hall",
      8,
      [[7, 5]],
    ]);
    making.makeTypedWorld("Nave", emptyWorld("typed", "Typed", 16));
    expect(readWorld(await brought[1]!.files[0]!.text())).toMatchObject({ id: "nave", name: "Nave" });
  });

  it("can be one of the rooms to begin with, or one that is typed: of 16 px a cell, to be walked in at once", async () => {
    for (const { name, text } of TEMPLATES) {
      const typed = await readTyped(text);
      if (!("world" in typed)) throw new Error(`${name}: ${JSON.stringify(typed)}`);
      const { world } = typed;
      expect([name, world.tileSize, world.rooms.length]).toEqual([name, 16, 1]);
      const lines = text.split("\n").filter((line) => line.startsWith("#"));
      expect([world.rooms[0]!.width, world.rooms[0]!.height]).toEqual([lines[0]!.length, lines.length]);
      const row = lines.findIndex((line) => line.includes("S"));
      expect(world.start.cell).toEqual([lines[row]!.indexOf("S"), row]);
      const log = readLog("keen-pebble-inputs 1\ncheck never overlap\n---\n60 R\n60 D\n");
      expect(run(compile(world), log, { checks: true }).verdicts[0]!.verdict).toBe("pass");
    }
    expect(await readTyped("#?#\n#.#")).toHaveProperty("refusals");
  });

  it("can be the Trying grounds: under an id and a name of its own, with logs that name it and hold", async () => {
    await making.makeTryingGrounds("Hall");
    const [{ files, origin }] = brought as [(typeof brought)[number]];
    expect(origin).toBe("made");
    const [first, ...logs] = files;
    const world = readWorld(await first!.text());
    expect([first!.name, world.id, world.name]).toEqual(["hall-3.world.json", "hall-3", "Hall"]);
    expect(logs.length).toBeGreaterThan(3);
    for (const file of logs) {
      expect(file.name).toMatch(/^[a-z0-9-]+\.inputs$/);
      const log = readLog(await file.text(), file.name);
      expect(log.world).toBe("hall-3");
      const { verdicts } = run(compile(world, log.rules ?? undefined), log, { checks: true });
      expect(verdicts.length).toBeGreaterThan(0);
      expect(verdicts.every(({ verdict }) => verdict === "pass")).toBe(true);
    }
  });
});

describe("a map as a world of its own", () => {
  const read = (sheet: MapRead["sheet"]): MapRead =>
    ({ world: emptyWorld("map", "Map", 16), sheet }) as unknown as MapRead;
  const picture = { width: 1, height: 1, rgba: new Uint8Array([1, 2, 3, 255]) } as never;

  it("begins with no room and the empty tile alone, under a name that is free", () => {
    const base = target.base(24, "Hall");
    expect(base).toMatchObject({ id: "hall-3", name: "Hall", tileSize: 24, rooms: [] });
    expect(base!.tiles.map(({ id }) => id)).toEqual(["empty"]);
    expect([target.tileSize(), target.roomId("First room")]).toEqual([null, "first-room"]);
  });

  it("is made of one bundle of the world and its sheet, and opened", async () => {
    const bytes = new Uint8Array([7, 8, 9]);
    expect(await target.make(read({ sheet: { file: "stones.png" }, picture, bytes } as never))).toBeNull();
    expect(opened).toEqual(["hall-3"]);
    expect(bundles.map(({ name }) => name)).toEqual(["map.keenpebble.zip"]);
    const entries = unzipSync(new Uint8Array(await bundles[0]!.arrayBuffer()));
    expect(Object.keys(entries).sort()).toEqual(["sheets/stones.png", "world.json"]);
    expect([...entries["sheets/stones.png"]!]).toEqual([7, 8, 9]);
    expect(readWorld(strFromU8(entries["world.json"]!)).id).toBe("map");
    await target.make(read(null));
    expect(Object.keys(unzipSync(new Uint8Array(await bundles[1]!.arrayBuffer())))).toEqual(["world.json"]);
  });

  it("that the shelf does not take is not opened, and says why", async () => {
    answer = { fault: "no room for it" };
    expect(await target.make(read(null))).toBe("no room for it");
    expect(opened).toEqual([]);
  });

  it("whose sheet was cut out of a picture sends those cells as a PNG", async () => {
    const png = await bytesOf({ sheet: { file: "stones.png" }, picture, bytes: null } as never);
    expect([...png.slice(0, 4)]).toEqual([0x89, 0x50, 0x4e, 0x47]);
  });
});
