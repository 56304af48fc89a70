import { readFileSync } from "node:fs";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { RefusedError } from "../base/refused-error.ts";
import { readWorld } from "./read-world.ts";
import { writeWorld } from "./write-world.ts";
import { FIXED, anyRows } from "../test-support/arbitraries.ts";
import { anyDamaged } from "../test-support/damage.ts";
import { tinyWorld } from "../test-support/tiny-world.ts";
import type { World } from "../world/world.ts";
import { readPng, writePng } from "./png.ts";
import { readRoomText } from "./read-room-text.ts";
import { layRoom } from "./room-draft.ts";
import { coloursOf, readRoomPixels, writeRoomPixels } from "./room-pixels.ts";
import { readRoomTable, writeRoomTable } from "./room-table.ts";
import { writeRoomText } from "./write-room-text.ts";
import { same } from "../test-support/same.ts";

const everything = readWorld(readFileSync(new URL("../test-support/everything.world.json", import.meta.url), "utf8"));
const tiny = tinyWorld(["S...", "....", "..#."]);

/** The world after reading a room's text into it. */
function laid(text: string, world: World, roomId: string): World {
  const result = readRoomText(text, world, roomId);
  if ("refusals" in result) throw new RefusedError("it", result.refusals);
  return layRoom(world, roomId, result.draft);
}

/** A world whose first room has things all over it. */
const anyFilled = fc
  .tuple(
    anyRows,
    fc.oneof(
      fc.array(fc.tuple(fc.nat(80), fc.nat(6)), { maxLength: 60 }),
      // Beads in reading order, and a few other things among them.
      fc
        .uniqueArray(fc.nat(80), { maxLength: 40 })
        .chain((places) =>
          fc
            .array(fc.nat(40), { minLength: places.length, maxLength: places.length })
            .map((kinds) =>
              places.sort((a, b) => a - b).map((place, i): [number, number] => [place, kinds[i]! > 6 ? 0 : kinds[i]!]),
            ),
        ),
    ),
    fc.constantFrom(null, "#", ".", "é"),
  )
  .map(([rows, things, glyph]): World => {
    const base = tinyWorld(rows);
    const room = base.rooms[0]!;
    const doors = new Set<number>();
    const fixtures = things.flatMap(([place, kind], i) => {
      const at = Math.floor((place * room.cells.length) / 81);
      const own = {
        // Some of them numbered on, as one line can say them.
        id: kind === 0 ? `bead-${i + 1}` : `thing-${i}`,
        cell: [at % room.width, Math.floor(at / room.width)],
        touch: i % 2 || kind === 0 ? "cell" : "body",
        keeps: (["run", "visit", "life"] as const)[kind === 0 ? 0 : i % 3]!,
      } as const;
      if (kind === 1 && doors.has(at)) return [];
      if (kind === 1) doors.add(at);
      return [
        [
          { ...own, kind: "item", give: "bead", count: 1 + (i % 13 === 12 ? 2 : 0) },
          {
            ...own,
            kind: "door",
            lock:
              i % 2
                ? { kind: "item", item: "bead", count: 2, spends: true }
                : { kind: "circuit", circuit: "pump", open: "off" },
            opensOn: "use",
            closes: "behind",
          },
          {
            ...own,
            kind: "hazard",
            // As large as the room is from there on.
            ...(i % 4 === 0 && own.cell[0] < room.width - 1
              ? { size: [room.width - own.cell[0], room.height - own.cell[1]] }
              : {}),
          },
          { ...own, kind: "checkpoint" },
          { ...own, kind: "switch", circuit: "pump" },
          { ...own, kind: "portal", to: { room: "a", cell: [0, 0], facing: "up-left" } },
          { ...own, kind: "marker", name: `Lamp "${i}" = head` },
        ][kind]! as World["rooms"][0]["fixtures"][0],
      ];
    });
    const tiles = base.tiles.map((tile, i) => (i === 1 ? { ...tile, glyph } : tile));
    return {
      ...base,
      tiles,
      items: [{ id: "bead", name: "Bead", role: "treasure", colour: "#5fb7a5" }],
      circuits: ["pump"],
      rooms: [{ ...room, fixtures }],
    };
  });

it("a room written as text, table or picture is the same room when it is read", () => {
  let things = 0;
  let numbered = 0;
  fc.assert(
    fc.property(anyFilled, (world) => {
      const room = world.rooms[0]!;
      things += room.fixtures.length;
      const text = writeRoomText(world, room);
      if (text.includes("bead-#")) numbered++;
      same(laid(text, world, "a"), world);
      same(layRoom(world, "a", readRoomTable(writeRoomTable(room), world)), world);
      const pixels = writeRoomPixels(world, room);
      const png = readPng(writePng(pixels), 512);
      same(png, pixels);
      same(layRoom(world, "a", readRoomPixels(png, world)), world);
    }),
    FIXED,
  );
  expect(things).toBeGreaterThan(500);
  expect(numbered).toBeGreaterThan(5);
  for (const room of everything.rooms)
    expect(laid(writeRoomText(everything, room), everything, room.id)).toEqual(everything);
});

it("the text of the design makes tiles, items and circuits that the world lacks, and a new room", () => {
  const text = `########
#..K..D#
#.S....#
########

# = tile brick flags=solid
. = tile flagstone
K = item crank-1 on flagstone give=brass-crank
D = door sluice-1 on flagstone lock.kind=item lock.item=brass-crank lock.spends=true
S = start on flagstone facing=right
`;
  const world = laid(text, tiny, "loft");
  const room = world.rooms[1]!;
  expect([room.name, room.width, room.height]).toEqual(["Loft", 8, 4]);
  expect([...room.cells.subarray(8, 16)].map((tile) => world.tiles[tile]!.id)).toEqual([
    "brick",
    ...Array<string>(6).fill("flagstone"),
    "brick",
  ]);
  expect(room.fixtures).toEqual([
    { id: "crank-1", kind: "item", cell: [3, 1], give: "brass-crank", count: 1, touch: "cell", keeps: "run" },
    {
      id: "sluice-1",
      kind: "door",
      cell: [6, 1],
      lock: { kind: "item", item: "brass-crank", count: 1, spends: true },
      opensOn: "push",
      closes: "never",
      touch: "cell",
      keeps: "run",
    },
  ]);
  expect(world.start).toEqual({ room: "loft", cell: [2, 2], facing: "right" });
  expect(readWorld(writeWorld(world))).toEqual(world);
  expect([world.items.map(({ id, name, role }) => [id, name, role]), world.circuits]).toEqual([
    [["brass-crank", "Brass crank", "key"]],
    [],
  ]);
  // Once each, in the order in which they are named; those that the world has are not made again.
  const wired = laid(
    "DVWK\n\nD = door gate lock.kind=circuit lock.circuit=sluice lock.open=on\nV = switch valve circuit=pump\n" +
      "W = switch wheel circuit=sluice\nK = item crank give=brass-crank\n",
    { ...world, circuits: ["drain"] },
    "loft-2",
  );
  expect([wired.circuits, wired.items]).toEqual([["drain", "sluice", "pump"], world.items]);
  expect(laid("#.\n#", { ...world, tiles: world.tiles }, "loft").rooms[1]).toMatchObject({ width: 2, height: 2 });
});

it("an id that ends in # stands for as many as one likes, numbered in reading order past ids that others have", () => {
  const text = "bSb.\n.bb#\n\n# = tile block\n. = tile floor\nS = start\nb = item bead-# on floor give=bead count=2\n";
  const world = laid(text, tiny, "a");
  const ids = (each: World, room: number) => each.rooms[room]!.fixtures.map(({ id, cell }) => `${id} ${cell.join()}`);
  expect(ids(world, 0)).toEqual(["bead-1 0,0", "bead-2 2,0", "bead-3 1,1", "bead-4 2,1"]);
  expect(writeRoomText(world, world.rooms[0]!)).toContain("\n; = item bead-# on floor give=bead count=2\n");
  // The same room again begins anew; another room goes on.
  expect(laid(text, world, "a")).toEqual(world);
  const more = laid("bb*\n\nb = item bead-# give=bead\n* = item bead-6 give=bead", world, "b");
  expect(ids(more, 1)).toEqual(["bead-5 0,0", "bead-7 1,0", "bead-6 2,0"]);
  // Nine in one cell and the tenth elsewhere are no series.
  const many = laid(`${"b".repeat(12)}\n\nb = hazard vent-# on block`, tiny, "c");
  expect(many.rooms[1]!.fixtures.at(-1)!.id).toBe("vent-12");
  expect(writeRoomText(many, many.rooms[1]!).match(/= hazard/g)).toHaveLength(1);
});

describe("a room text that is not in order is refused at row and column", () => {
  it.each([
    ["##x#\n\n# = tile block", 1, 3, 'nothing explains "x"'],
    ["", 1, 1, "expected a row"],
    ["#\n\n# tile block", 3, 1, "expected `CHARACTER = KIND"],
    ["#\n\n# = wall block", 3, 5, "expected a kind out of tile, start, item"],
    ["#\n\n# = tile Wall!", 3, 10, "expected an id, `on TILE` or `KEY=VALUE` after `tile`"],
    ["#\n\n# = tile block flags=wet", 3, 1, "tile block has the flags solid in this world, not wet"],
    ["#\n\n# = tile new flags=Wet", 3, 1, '"Wet" is no flag'],
    ["S\n\nS = start facing=up facing=down", 3, 21, "facing stands twice"],
    ["K\n\nK = door lock-1 lock.kind=none lock.kind=item", 3, 32, "lock.kind stands twice"],
    ["KK\n\nK = hazard vent-1", 1, 2, '"K" stands at row 1, column 1 already'],
    ["KK\n\nK = hazard vent-#\nK = hazard slot", 1, 2, "is there once, but for ids that end in #"],
    ["S\n\nS = tile wall-#", 3, 10, "expected an id, `on TILE`"],
    [`S\n\nS = hazard ${"v".repeat(40)}#`, 3, 12, "expected an id, `on TILE`"],
    ["K\n\nK = item i-1", 3, 1, "give: is required"],
    ["K\n\nK = item i-1 give=bead count=x", 3, 24, 'count: "x" is no value'],
    ["K\n\nK = hazard vent-1 colour=red", 3, 1, "colour: is not allowed"],
    ["K\n\nK = hazard vent-1 on", 3, 19, "expected a tile's id after `on`"],
    ["S\n\nS = start facing=north", 3, 1, "facing: expected a direction"],
    ["ST\n\nS = start\nT = start", 4, 1, "there is a start already"],
    ["#\n\n# = tile block\n# = hazard vent-1", 4, 1, "stands for a tile and for something else"],
    ["#".repeat(513), 1, 513, "a row has at most 512"],
    ["#\n".repeat(513), 513, 1, "a room has at most 512 rows"],
  ])("%s", (text, line, column, message) => {
    expect(readRoomText(text, tiny, "a")).toMatchObject({
      refusals: [{ line, column, message: expect.stringContaining(message) as string }],
    });
  });

  it("and says which characters nothing explains", () => {
    expect(readRoomText("ab\nba\n\nb = tile block", tiny, "a")).toMatchObject({ unknown: ["a"] });
    expect(readRoomText("K\n\nK = hazard lamp-head", everything, "hall")).toMatchObject({
      refusals: [{ message: expect.stringMatching(/lamp-head is in room \S+ already/) as string }],
    });
  });
});

function refusedTable(text: string): unknown {
  try {
    return readRoomTable(text, tiny);
  } catch (error) {
    return (error as RefusedError).refusals;
  }
}

it.each([
  ["1,2\n3", 2, 2, "expected 2 cells as in the first row, found 1"],
  ["1,9", 1, 2, 'expected a tile number from 0 to 3, found "9"'],
  ["1,x", 1, 2, 'found "x"'],
  ["", 1, 1, "expected a row"],
  [`${"0,".repeat(512)}0`, 1, 513, "at most 512 cells"],
  ["", 1, 1, "expected a row of tile numbers"],
  [`${"0,".repeat(512)}0`, 1, 513, "a row has at most 512 cells"],
  ["0\n".repeat(513), 513, 1, "a room has at most 512 rows"],
])("the table %.20j is refused", (text, line, column, message) => {
  expect(refusedTable(text)).toMatchObject([{ line, column, message: expect.stringContaining(message) as string }]);
});

it("a picture's colours are matched to tiles, make new ones, or are refused where there are too many", () => {
  const rgba = Uint8Array.from([1, 2, 3, 255, 1, 2, 3, 255, 9, 9, 9, 255, 0, 0, 0, 0]);
  const pixels = { width: 2, height: 2, rgba };
  expect(coloursOf(pixels)).toEqual([
    { colour: "#010203", cells: 2 },
    { colour: "", cells: 1 },
    { colour: "#090909", cells: 1 },
  ]);
  const draft = readRoomPixels(pixels, tiny, new Map([["#010203", "block"]]));
  expect(draft.cells).toEqual(["block", "block", "colour-090909", "empty"]);
  expect(draft.tiles).toMatchObject([{ id: "colour-090909", look: { fill: "#090909" } }]);
  const photo = {
    width: 64,
    height: 64,
    rgba: Uint8Array.from({ length: 64 * 64 * 4 }, (_, i) =>
      i % 4 === 3 ? 255 : (Math.floor(i / 4) * 7 * ((i % 4) + 1)) >> (i % 4 === 1 ? 3 : 0),
    ),
  };
  expect(() => readRoomPixels(photo, tiny)).toThrow("more colours than a world has tiles");
  expect(() => readRoomPixels({ width: 600, height: 1, rgba: new Uint8Array(2400) }, tiny)).toThrow("600x1 pixels");
});

it("2,000 damaged texts, tables and pictures are refused with a place or read", () => {
  const world = tinyWorld(["S.#/", "=...", "...."]);
  const room = {
    ...world.rooms[0]!,
    fixtures: everything.rooms[0]!.fixtures.filter(
      (fixture) => fixture.kind !== "portal" && fixture.cell[0] < 4 && fixture.cell[1] < 3,
    ),
  };
  const text = writeRoomText({ ...world, items: everything.items, circuits: everything.circuits }, room);
  const counts = { read: 0, refused: 0 };
  fc.assert(
    fc.property(anyDamaged(text), (damaged) => {
      const result = readRoomText(damaged, world, "a");
      if ("refusals" in result) {
        counts.refused++;
        expect(result.refusals[0]!.line).toBeGreaterThan(0);
        expect(result.refusals[0]!.column).toBeGreaterThan(0);
      } else {
        counts.read++;
        expect(result.draft.cells).toHaveLength(result.draft.width * result.draft.height);
      }
    }),
    { ...FIXED, numRuns: 900 },
  );
  fc.assert(
    fc.property(anyDamaged(writeRoomTable(room)), (damaged) => {
      try {
        const draft = readRoomTable(damaged, world);
        expect(draft.cells).toHaveLength(draft.width * draft.height);
      } catch (error) {
        expect(error).toBeInstanceOf(RefusedError);
        expect((error as RefusedError).refusals[0]!.column).toBeGreaterThan(0);
      }
    }),
    { ...FIXED, numRuns: 500 },
  );
  const png = writePng(writeRoomPixels(world, room));
  fc.assert(
    fc.property(
      fc.array(fc.tuple(fc.nat(png.length - 1), fc.nat(255)), { minLength: 1, maxLength: 5 }),
      fc.nat(png.length),
      fc.boolean(),
      (bytes, end, cut) => {
        const damaged = cut ? png.slice(0, end) : Uint8Array.from(png);
        for (const [at, byte] of bytes) if (at < damaged.length) damaged[at] = byte;
        try {
          const pixels = readPng(damaged, 512);
          expect(pixels.rgba).toHaveLength(pixels.width * pixels.height * 4);
        } catch (error) {
          expect(error).toBeInstanceOf(RefusedError);
        }
      },
    ),
    { ...FIXED, numRuns: 600 },
  );
  expect(Math.min(counts.read, counts.refused)).toBeGreaterThan(25);
});

it("a legend's id may be left out: it is then one that nobody has, and reading the room again gives the same", () => {
  const text =
    "K.k\nD#S\n\nK = item on empty give=bead\nk = item item-1 on empty give=bead\nD = door on empty lock.kind=item lock.item=bead\n# = tile flags=solid\n. = tile empty\nS = start on empty\n";
  const world = laid(text, { ...tiny, items: everything.items }, "a");
  expect(world.rooms[0]!.fixtures.map(({ id, kind }) => `${kind} ${id}`)).toEqual([
    "item item-2",
    "item item-1",
    "door door-1",
  ]);
  expect(world.tiles.at(-1)).toMatchObject({ id: "tile-1", flags: ["solid"], glyph: "#" });
  // Its character is the tile's glyph by then.
  expect(laid(text, world, "a")).toEqual(world);
  const elsewhere = { ...world, rooms: [...world.rooms, { ...world.rooms[0]!, id: "b", fixtures: [] }] };
  expect(laid(text.replace("item-1", "item-7"), elsewhere, "b").rooms[1]!.fixtures.map(({ id }) => id)).toEqual([
    "item-3",
    "item-7",
    "door-2",
  ]);
});

it("numbers of a table that are beyond the world's tiles make all up to them where that is asked for", () => {
  const draft = readRoomTable("0,1,5\n4,1,0\n", tiny, true);
  expect(draft.cells).toEqual([
    tiny.tiles[0]!.id,
    tiny.tiles[1]!.id,
    "tile-5",
    "tile-4",
    tiny.tiles[1]!.id,
    tiny.tiles[0]!.id,
  ]);
  const from = tiny.tiles.length;
  expect(draft.tiles.map(({ id }) => id)).toEqual(Array.from({ length: 6 - from }, (_, i) => `tile-${from + i}`));
});

it("lines that end as on other systems, and a byte-order mark, are read in every text of a room", () => {
  const text = "#.\n.#\n\n# = tile block\n. = tile empty\n";
  for (const odd of [`\ufeff${text}`, text.replaceAll("\n", "\r\n"), `\ufeff${text.replaceAll("\n", "\r\n")}`])
    expect(readRoomText(odd, tiny, "a")).toEqual(readRoomText(text, tiny, "a"));
  for (const odd of ["\ufeff0,1\n1,0\n", "0,1\r\n1,0\r\n"])
    expect(readRoomTable(odd, tiny)).toEqual(readRoomTable("0,1\n1,0\n", tiny));
});

it("a room of 700 tiles has a character for each, past the handy ones and the letters after them, and is read again", () => {
  const base = tinyWorld(["S"]);
  const tiles = Array.from({ length: 700 }, (_, i) => ({
    ...base.tiles[i === 0 ? 0 : 1]!,
    id: `tile-${i}`,
    name: `${i}`,
  }));
  const cells = Uint16Array.from({ length: 700 }, (_, i) => i);
  const world: World = { ...base, tiles, rooms: [{ ...base.rooms[0]!, width: 35, height: 20, cells }] };
  const text = writeRoomText(world, world.rooms[0]!);
  const used = new Set([...text.split("\n").slice(0, 20).join("")]);
  expect(used.size).toBe(700);
  const read = readRoomText(text, world, "a");
  if (!("draft" in read)) throw new Error(read.refusals[0]!.message);
  expect(read.draft.cells).toEqual(tiles.map(({ id }) => id));
});
