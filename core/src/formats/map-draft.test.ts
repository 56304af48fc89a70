import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { FIXED } from "../test-support/arbitraries.ts";
import { emptyWorld } from "../world/empty-world.ts";
import type { World } from "../world/world.ts";
import { draftOfMap, guessAnswers, mapKinds, startedIn } from "./map-draft.ts";
import { cutMapPicture } from "./map-picture.ts";
import { toPlain } from "./plain-world.ts";
import { readNumberGrid } from "./number-grid.ts";
import { worldFromJson } from "./read-world.ts";
import { layRoom } from "./room-draft.ts";
import type { Pixels } from "./room-pixels.ts";
import { sheetPlaces, sheetTiles } from "./sheet-places.ts";
import { same } from "../test-support/same.ts";

const bare: World = { ...emptyWorld("w", "W", 16), rooms: [] };
const base: World = { ...bare, tiles: bare.tiles.slice(0, 1) };
const SHEET = { id: "tiles", file: "tiles.png", tile: 16, margin: 1, spacing: 2 };
const fenced = readNumberGrid("1,1,1,1\n1,0,3,1\n1,1,1,1");

/** A picture of that size, of one colour but where `paint` says another. */
function picture(width: number, height: number, paint: (x: number, y: number) => number): Pixels {
  const rgba = new Uint8Array(width * height * 4);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const colour = paint(x, y);
      rgba.set([colour >>> 24, (colour >>> 16) & 255, (colour >>> 8) & 255, colour & 255], (y * width + x) * 4);
    }
  return { width, height, rgba };
}

describe("what the answers most likely are", () => {
  it.each([
    ["1,1,1\n1,0,1\n1,1,1", 0, 1, [1]],
    ["7,7,7\n7,-1,7\n7,7,7", -1, 0, [7]],
    ["1,2,3\n4,5,6\n7,8,9", null, 1, []],
    ["###\n#.#\n###", 46, 1, [35]],
    ["%%%\n% %\n%%%", 32, 1, [37]],
    ["7,7,7,7,7,7\n7,0,3,0,3,7\n7,3,0,3,0,7\n7,0,3,0,3,7\n7,7,7,7,7,7", 0, 1, [7]],
    // Half of the border is not enough for a wall.
    ["1,1,2\n2,0,1\n2,1,2", 0, 1, []],
  ])("of %j", (text, empty, first, solid) => {
    const answers = guessAnswers(readNumberGrid(text));
    expect({ ...answers, solid: [...answers.solid] }).toEqual({ empty, first, solid });
  });
});

it("number N is tile N, with the flags and the place of the sheet that it has", () => {
  const places = sheetPlaces(
    SHEET,
    picture(2 + 16 * 2 + 2, 2 + 16 * 2 + 2, (x) => (x < 18 ? 0xff : 0)),
  );
  expect([places.across, places.down]).toEqual([2, 2]);
  const draft = draftOfMap(fenced, { empty: 0, first: 1, solid: new Set([1]) }, base, places);
  expect(draft.tiles).toMatchObject([
    { id: "tile-1", flags: ["solid"], look: { sheet: "tiles", at: [0, 0] } },
    { id: "tile-3", flags: [], look: { sheet: "tiles", at: [0, 1] } },
  ]);
  expect(draft.cells.slice(4, 8)).toEqual(["tile-1", "empty", "tile-3", "tile-1"]);
  expect(draft.sheets).toEqual([SHEET]);
  // In the next room they are the same tiles, whatever is said of them then.
  const world = layRoom(base, "a", draft);
  const other = { ...SHEET, id: "tiles-2", file: "tiles-2.png" };
  const next = draftOfMap(fenced, { empty: 0, first: 1, solid: new Set([3]) }, world, { ...places, sheet: other });
  // A sheet that no new tile looks at does not come in again.
  expect([next.tiles, next.sheets]).toEqual([[], []]);
});

it("a map of any numbers makes a world that reads, with a start in the free cell that is nearest to its middle", () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 8 }),
      fc.array(fc.integer({ min: -3, max: 12 }), { minLength: 8, maxLength: 64 }),
      fc.uniqueArray(fc.integer({ min: -3, max: 12 })),
      fc.option(fc.integer({ min: -3, max: 12 })),
      (width, numbers, solid, empty) => {
        const values = numbers.slice(0, numbers.length - (numbers.length % width));
        const grid = { width, height: values.length / width, values, readAs: "", characters: false };
        const blocked = new Set(solid.filter((value) => value !== empty));
        const draft = draftOfMap(grid, { empty, first: 1, solid: blocked }, base, null);
        const world = startedIn(layRoom(base, "map", draft), "map");
        expect(worldFromJson(toPlain(world))).toHaveProperty("world");
        const [x, y] = world.start.cell;
        const all = values.every((value) => blocked.has(value));
        expect(blocked.has(values[y * width + x]!)).toBe(all);
        // The first of those that are nearest to the middle; where none is free it is the middle.
        const [midX, midY] = [Math.floor((width - 1) / 2), Math.floor((grid.height - 1) / 2)];
        const far = (i: number): number => Math.abs((i % width) - midX) + Math.abs(Math.floor(i / width) - midY);
        const free = values.map((value, i) => (all || !blocked.has(value) ? far(i) : Infinity));
        same(y * width + x, free.indexOf(Math.min(...free)));
        expect(mapKinds(grid).reduce((sum, { cells }) => sum + cells, 0)).toBe(values.length);
      },
    ),
    FIXED,
  );
});

describe("a picture of a whole map", () => {
  it("is cut into its kinds; drawn again from the sheet it is the same to the pixel", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 4, max: 9 }),
        fc.integer({ min: 1, max: 7 }),
        fc.integer({ min: 1, max: 5 }),
        fc.array(fc.nat(5), { minLength: 35, maxLength: 35 }),
        (side, width, height, kinds) => {
          const kindAt = (x: number, y: number): number => kinds[Math.floor(y / side) * 7 + Math.floor(x / side)]!;
          // Kind 0 is transparent, kinds 1 and 2 are mirror images of each other.
          const paint = (x: number, y: number): number => {
            const [kind, inside] = [kindAt(x, y), x % side];
            if (kind === 0) return 0;
            if (kind > 2) return (((kind * 40) << 24) | 0xff) >>> 0;
            return ((((kind === 1 ? inside : side - 1 - inside) * 20) << 24) | 0xff) >>> 0;
          };
          const whole = picture(width * side + 1, height * side + 2, (x, y) =>
            x < width * side && y < height * side ? paint(x, y) : 0xff,
          );
          const { grid, sheet, across, over } = cutMapPicture(whole, side);
          same([grid.width, grid.height, over], [width, height, [1, 2]]);
          const used = new Set(kinds.filter((_, i) => i % 7 < width && i < height * 7));
          used.delete(0);
          expect(new Set(grid.values.filter((value) => value > 0)).size).toBe(used.size);
          for (let y = 0; y < height * side; y++)
            for (let x = 0; x < width * side; x++) {
              const kind = grid.values[Math.floor(y / side) * width + Math.floor(x / side)]!;
              const at =
                kind === 0
                  ? -1
                  : ((Math.floor((kind - 1) / across) * side + (y % side)) * sheet.width +
                      ((kind - 1) % across) * side +
                      (x % side)) *
                    4;
              const there = at < 0 ? [0, 0, 0, 0] : [...sheet.rgba.subarray(at, at + 4)];
              same(there, [...whole.rgba.subarray((y * whole.width + x) * 4, (y * whole.width + x) * 4 + 4)]);
            }
        },
      ),
      { ...FIXED, numRuns: 60 },
    );
  });

  it.each([
    [picture(3, 3, () => 0xff), "has 0 x 0 cells of 4 px"],
    [
      picture(4 * 32, 4 * 32, (x, y) => ((Math.floor(x / 4) + Math.floor(y / 4) * 32 + 1) << 8) | 0xff),
      "has more than 1023 kinds",
    ],
  ])("is refused where it makes no room", (pixels, message) => {
    expect(() => cutMapPicture(pixels, 4)).toThrow(message);
  });
});

it("px that a sheet has left over are told", () => {
  expect(sheetTiles(35, 40, { tile: 16, margin: 1, spacing: 1 })).toEqual({ across: 2, down: 2, overX: 0, overY: 5 });
});

it("a sheet is cut as it would be laid out: so many tiles, with what is left over", () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 40 }),
      fc.nat(6),
      fc.nat(6),
      fc.nat(12),
      fc.nat(200),
      (tile, margin, spacing, tiles, more) => {
        // So many tiles, what is between them and round them, and less than one more would need.
        const over = more % (tile + (tiles > 0 ? spacing : 0));
        const side = 2 * margin + tiles * tile + Math.max(0, tiles - 1) * spacing + over;
        const { across, overX, down, overY } = sheetTiles(side, 2 * margin + tile, { tile, margin, spacing });
        same([across, overX, down, overY], [tiles, over, 1, 0]);
      },
    ),
    FIXED,
  );
});
