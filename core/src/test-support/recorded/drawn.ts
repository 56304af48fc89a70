import fc from "fast-check";
import { cutOutline } from "../../edits/walls/cut-outline.ts";
import { layWall, tidyCutTiles } from "../../edits/walls/lay-wall.ts";
import { outlineFault } from "../../edits/walls/outline.ts";
import { draftOfMap, guessAnswers, mapKinds, startedIn } from "../../formats/map-draft.ts";
import { cutMapPicture } from "../../formats/map-picture.ts";
import type { NumberGrid } from "../../formats/number-grid.ts";
import { readNumberGrid } from "../../formats/number-grid.ts";
import { readPng, writePng } from "../../formats/png.ts";
import type { Pixels } from "../../formats/room-pixels.ts";
import type { Pair } from "../../world/world.ts";
import type { Given, Questions } from "./given.ts";
import { SEED, answered, changed, projectOf } from "./given.ts";

/** Something of its own for each world. */
const sampleFor = <T>({ name }: Given, any: fc.Arbitrary<T>, numRuns: number): T[] =>
  fc.sample(any, {
    seed: SEED + ([...name].reduce((sum, each) => sum * 31 + each.codePointAt(0)!, 0) % 10_000),
    numRuns,
  });

const anyOutline: fc.Arbitrary<Pair[]> = fc.array(
  fc.tuple(fc.integer({ min: -8, max: 104 }), fc.integer({ min: -8, max: 88 })),
  { minLength: 2, maxLength: 6 },
);
const anyNumbers = fc
  .record({
    width: fc.integer({ min: 1, max: 9 }),
    height: fc.integer({ min: 1, max: 7 }),
    values: fc.array(fc.integer({ min: -1, max: 6 }), { minLength: 63, maxLength: 63 }),
    fence: fc.option(fc.integer({ min: 1, max: 9 })),
  })
  .map(({ width, height, values, fence }): number[][] =>
    Array.from({ length: height }, (_, y) =>
      Array.from({ length: width }, (_, x) =>
        fence !== null && (x === 0 || y === 0 || x === width - 1 || y === height - 1) ? fence : values[y * 9 + x]!,
      ),
    ),
  );
/** Ways to write a map down that programs have. */
const NOTATIONS: readonly ((rows: number[][]) => string)[] = [
  (rows) => rows.map((row) => row.join(",")).join("\n"),
  (rows) => rows.map((row) => row.join(" ")).join("\r\n"),
  (rows) => JSON.stringify(rows),
  (rows) =>
    `static const int MAP[][${rows[0]!.length}] = {\n${rows.map((row) => `  { ${row.join(", ")} }, // row`).join("\n")}\n};`,
  (rows) => `level = [\n${rows.map((row) => `    [${row.join(", ")}],  # row`).join("\n")}\n]`,
  (rows) => rows.map((row) => row.map((n) => "#.=~ox%@"[n + 1] ?? "?").join("")).join("\n"),
  (rows) =>
    `map: [${rows
      .flat()
      .map((n) => `0x${(n & 255).toString(16)}`)
      .join(", ")}]`,
  (rows) => rows.map((row) => row.map((n) => (n < 0 ? "" : n)).join(";")).join("\n"),
];
/** A picture of so many cells of 16 px: each has the colour of its kind, with a spot that mirrors nothing. */
function pictureOf(kinds: number[][]): Pixels {
  const [across, down] = [kinds[0]!.length * 16, kinds.length * 16];
  const rgba = new Uint8Array(across * down * 4);
  for (let y = 0; y < down; y++)
    for (let x = 0; x < across; x++) {
      const kind = kinds[y >> 4]![x >> 4]! + 1;
      const spot = (x & 15) === kind && (y & 15) === 3 ? 200 : 0;
      rgba.set([kind * 25, 255 - kind * 20, spot, kind === 0 ? 0 : 255], (y * across + x) * 4);
    }
  return { width: across, height: down, rgba };
}

/** Of walls that are drawn by hand, and of maps as other programs have them. */
export const DRAWN: Questions = {
  "walls drawn by hand": (given) => {
    const { world } = given;
    const room = world.rooms[0]!;
    const blocks = world.tiles.find(({ flags }) => flags.includes("solid"))?.id ?? world.tiles[0]!.id;
    return sampleFor(given, anyOutline, 8).map((outline) => {
      const laid = answered(() => layWall(world, room.id, outline, blocks)) as ReturnType<typeof layWall>;
      if (typeof laid === "string" || "fault" in laid) return [laid, outlineFault(outline)];
      const twice = answered(() =>
        layWall(
          laid.world,
          room.id,
          outline.map(([x, y]): Pair => [x + 5, y + 3]),
          blocks,
        ),
      );
      return [
        cutOutline(outline, world.tileSize, [room.width, room.height]),
        changed(projectOf(given), () => laid.world),
        { ...laid, world: null },
        twice,
        tidyCutTiles(laid.world),
      ];
    });
  },
  "maps as numbers": (given) =>
    sampleFor(given, anyNumbers, 2).map((rows) =>
      NOTATIONS.map((write) =>
        answered(() => {
          const grid: NumberGrid = readNumberGrid(write(rows));
          const answers = guessAnswers(grid);
          const draft = draftOfMap(grid, answers, given.world, null);
          return [grid, mapKinds(grid), answers, draft];
        }),
      ),
    ),
  "maps as pictures": (given) =>
    sampleFor(given, anyNumbers, 1).map((rows) =>
      answered(() => {
        const picture = pictureOf(rows);
        const bytes = writePng(picture);
        const cut = cutMapPicture(readPng(bytes, 4096), given.world.tileSize);
        const damaged = [9, 30, Math.floor(bytes.length / 2), bytes.length - 9].map((at) =>
          answered(
            () =>
              readPng(
                bytes.map((byte, i) => (i === at ? byte ^ 5 : byte)),
                4096,
              ).rgba,
          ),
        );
        return [cut, damaged, readPng(bytes, 4096).rgba];
      }),
    ),
  "a world begun in a room": ({ world }) => world.rooms.map(({ id }) => answered(() => startedIn(world, id).start)),
};
