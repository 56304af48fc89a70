import { writePng } from "@keen-pebble/core/reading";
import type { World } from "@keen-pebble/core/world";
import { emptyWorld } from "@keen-pebble/core/world";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { session } from "../../page-session.ts";
import { hall } from "../../test-support/hall.ts";
import { openHere } from "../../test-support/opened.ts";
import { areMap } from "./map-files.ts";
import type { MapTarget } from "./map-import.ts";
import { MapImport } from "./map-import.ts";
import type { MapRead } from "./read-map.ts";
import { PATIENCE } from "../../test-support/patience.ts";

beforeEach(() => {
  localStorage.clear();
  vi.stubGlobal("createImageBitmap", () => Promise.resolve({}));
  vi.stubGlobal("ImageData", class {});
});
afterEach(() => vi.unstubAllGlobals());

const whole = emptyWorld("w", "W", 16);
const bare: World = { ...whole, tiles: whole.tiles.slice(0, 1), rooms: [] };

/** An import into a world, and what it made. */
function importInto(more: Partial<MapTarget> = {}) {
  const made: MapRead[] = [];
  const mapImport = new MapImport({
    base: (tileSize) => ({ ...bare, tileSize }),
    tileSize: () => null,
    roomId: () => "hall",
    make: (read) => {
      made.push(read);
      return Promise.resolve(null);
    },
    ...more,
  });
  const read = (): MapRead => {
    const { reading } = mapImport.store.getState();
    if (reading === null || "refused" in reading) throw new Error(JSON.stringify(reading));
    return reading;
  };
  return { mapImport, made, read, state: mapImport.store.getState };
}

/** A PNG of that size; `colours` are the px of a row that is repeated, 0 transparent. */
const png = (width: number, height: number, colourAt: (x: number, y: number) => number): File => {
  const rgba = new Uint8Array(width * height * 4);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const colour = colourAt(x, y);
      if (colour > 0) rgba.set([colour, colour, colour, 255], (y * width + x) * 4);
    }
  return new File([writePng({ width, height, rgba }).slice()], "rooms.png");
};
const source = (text: string, name = "map_of_hall.c"): File => new File([text], name);
const settled = async (act: () => void, done: () => boolean): Promise<void> => {
  act();
  await vi.waitFor(() => expect(done()).toBe(true), PATIENCE);
};
const FENCED = "{ {1,1,1}, {1,3,1}, {1,1,1} }";

describe("what is taken for a map from elsewhere", () => {
  it.each<[string, string, boolean]>([
    ["hall.c", FENCED, true],
    ["hall.csv", "1,2\n3,4", true],
    ["notes.txt", "##\n##", true],
    ["hall.png", "", true],
    ["hall.world.json", "{}", false],
    ["hall.txt", "##\n##\n\n# = tile wall", false],
    ["hall.room.txt", "##", false],
    ["keys.csv", "frame,keys\n1,R", false],
    ["keys.csv", '\ufeff"frame","keys"\n1,R', false],
    ["walk.inputs", "", false],
    ["all.zip", "", false],
  ])("%s", async (name, text, isMap) => expect(await areMap([source(text, name)])).toBe(isMap));

  it("only where all of them are", async () => {
    expect(await areMap([source(FENCED), source("{}", "a.json")])).toBe(false);
    expect(await areMap([])).toBe(false);
  });
});

describe("a text of numbers", () => {
  it("is read when it comes, called after its file, and again with each answer", async () => {
    const { mapImport, read, state } = importInto();
    await mapImport.take([source(FENCED)]);
    expect(state().name).toBe("Map of hall");
    expect(read()).toMatchObject({ grid: { width: 3, height: 3 }, answers: { empty: null, first: 1 } });
    expect([...read().answers.solid]).toEqual([1]);
    expect(read().world.start).toMatchObject({ room: "hall", cell: [1, 1] });
    await settled(
      () => mapImport.answer({ empty: 3 }),
      () => read().answers.empty === 3,
    );
    expect(read().room.cells[4]).toBe(0);
    await settled(
      () => mapImport.answer({ tileSize: 8 }),
      () => read().world.tileSize === 8,
    );
  });

  it("has kinds that block at a click, and no longer at another; the empty one never", async () => {
    const { mapImport, read, state } = importInto();
    await mapImport.take([source("1,1,1\n1,0,3\n1,1,1")]);
    await settled(
      () => mapImport.toggleSolid(3),
      () => read().answers.solid.has(3),
    );
    expect(read().world.tiles.find(({ id }) => id === "tile-3")!.flags).toEqual(["solid"]);
    await settled(
      () => mapImport.toggleSolid(1),
      () => !read().answers.solid.has(1),
    );
    mapImport.toggleSolid(0);
    expect([...state().asked.solid!]).toEqual([3]);
  });

  it("that is not understood is named; corrected it is read, and what it is called stays", async () => {
    const { mapImport, read, state, made } = importInto();
    mapImport.open();
    mapImport.call("Pump hall");
    await settled(
      () => mapImport.paste("1,2\n3,x"),
      () => state().reading !== null,
    );
    expect(state().reading).toEqual({ refused: 'line 2, column 3: expected a number, found "x"' });
    await mapImport.make();
    expect(made).toEqual([]);
    await settled(
      () => mapImport.paste("1,2\n3,4"),
      () => "grid" in state().reading!,
    );
    expect([state().name, read().grid.values]).toEqual(["Pump hall", [1, 2, 3, 4]]);
    await settled(
      () => mapImport.paste(" "),
      () => state().reading === null,
    );
  });

  it("gets its looks from a sheet, dropped with it or after it; a picture that is none is told and changes nothing", async () => {
    const sheet = png(32, 32, (x, y) => (x < 16 || y < 16 ? 200 : 0));
    const { mapImport, read, state } = importInto();
    await mapImport.take([sheet, source(FENCED)]);
    expect(read().world.sheets).toMatchObject([{ id: "rooms", file: "rooms.png", tile: 16 }]);
    expect(read().world.tiles.map(({ id }) => id)).toEqual(["empty", "tile-1", "tile-3", "tile-2"]);
    await mapImport.take([new File(["GIF"], "a.png")]);
    expect(state().fault).toContain("a.png is refused: is no PNG");
    expect(read().world.sheets.length).toBe(1);
  });

  it("is made once, with the answers kept for the next one; what goes wrong is said and nothing typed is lost", async () => {
    const first = importInto();
    await first.mapImport.take([source("1,1,1\n1,0,3\n1,1,1")]);
    await settled(
      () => first.mapImport.answer({ tileSize: 24, first: 0 }),
      () => first.read().world.tileSize === 24,
    );
    await settled(
      () => first.mapImport.toggleSolid(3),
      () => first.read().answers.solid.has(3),
    );
    await first.mapImport.make();
    expect(first.made.length).toBe(1);
    expect(first.state().isOpen).toBe(false);

    const next = importInto({ make: () => Promise.resolve("the server is away; nothing was made.") });
    await next.mapImport.take([source("3,1\n1,1", "b.js")]);
    expect(next.state().asked).toMatchObject({ tileSize: 24, first: 0, solid: new Set([1, 3]) });
    await next.mapImport.make();
    expect(next.state()).toMatchObject({ isOpen: true, busy: false, fault: "the server is away; nothing was made." });
    expect(next.read().grid.values).toEqual([3, 1, 1, 1]);
  });

  it("is made once, however often one asks while it is being made", async () => {
    const asked: MapRead[] = [];
    let answer: (fault: string | null) => void = () => undefined;
    const { mapImport, state } = importInto({
      make: (read) => {
        asked.push(read);
        return new Promise((resolve) => (answer = resolve));
      },
    });
    await mapImport.take([source(FENCED)]);
    const making = mapImport.make();
    expect(state().busy).toBe(true);
    await mapImport.make();
    expect(asked).toHaveLength(1);
    answer("no room for it");
    await making;
    expect(state()).toMatchObject({ busy: false, fault: "no room for it" });
  });

  it("kept answers that somebody else wrote are not taken", () => {
    for (const kept of ["{", "7", '{"tileSize":"x","first":null,"solid":["a"]}']) {
      localStorage.setItem("keen-pebble-map-answers", kept);
      const { mapImport, state } = importInto();
      mapImport.open();
      expect(state().asked).toMatchObject({ tileSize: 16, first: 1, solid: null });
    }
  });
});

describe("a picture", () => {
  it("of the whole map is cut into kinds of its own, with a sheet of their images", async () => {
    const { mapImport, read } = importInto();
    await mapImport.take([png(34, 16, (x) => (x < 16 ? 50 : 90))]);
    expect(read()).toMatchObject({ over: [2, 0], grid: { values: [1, 2] }, sheet: { bytes: null } });
    expect(read().world.tiles.slice(1)).toMatchObject([
      { id: "hall-1", look: { sheet: "hall", at: [0, 0] } },
      { id: "hall-2", look: { sheet: "hall", at: [1, 0] } },
    ]);
  });

  it("of a pixel a cell has its colours for kinds; those of tiles that are there are these tiles", async () => {
    const { mapImport, read } = importInto({
      base: () => ({
        ...whole,
        tiles: [...whole.tiles.slice(0, 1), { ...whole.tiles[1]!, look: { fill: "#5a5a5a" } }],
      }),
      tileSize: () => 16,
    });
    await mapImport.take([png(3, 1, (x) => [0x5a, 0, 0x70][x]!)]);
    await settled(
      () => mapImport.answer({ picture: "cells", solid: new Set([1]) }),
      () => read().grid.width === 3,
    );
    const { world, room, answers } = read();
    expect([...room.cells].map((tile) => world.tiles[tile]!.id)).toEqual(["floor", "empty", "colour-707070"]);
    expect(world.tiles.at(-1)!.flags).toEqual(["solid"]);
    expect([answers.empty, answers.first, world.start]).toEqual([-1, 0, whole.start]);
    expect(read()).toMatchObject({
      over: [0, 0],
      sheet: null,
      grid: { values: [0, -1, 1], readAs: "3 x 1 pixels", characters: false },
    });
  });
});

it("a room that was read into another world than the one that is there now is not made, but read again", async () => {
  const opened = await openHere(hall(), {});
  try {
    const { mapImport, project } = session;
    const rooms = () => project.store.getState().project!.world.rooms.map(({ id }) => id);
    await mapImport.take([source("7,7\n7,8", "well.c")]);
    project.changeWorld((world) => ({ ...world, tiles: [...world.tiles, { ...world.tiles[1]!, id: "late" }] }));
    await mapImport.make();
    expect(rooms()).not.toContain("well");
    expect(mapImport.store.getState().fault).toContain("was changed meanwhile");
    await mapImport.make();
    const { world } = project.store.getState().project!;
    const cells = [...world.rooms.at(-1)!.cells].map((tile) => world.tiles[tile]!.id);
    expect([rooms().at(-1), cells]).toEqual(["well", ["tile-7", "tile-7", "tile-7", "tile-8"]]);
    expect(project.travel("undo")).toBe(true);
    expect(rooms()).not.toContain("well");
  } finally {
    opened.close();
  }
});
