import fc from "fast-check";
import { expect, it } from "vitest";
import { floorModulo } from "../base/units.ts";
import { compile } from "../simulation/compile.ts";
import { run } from "../replay/run.ts";
import type { TraceRows } from "../simulation/trace.ts";
import { ROW_BUMPING } from "../simulation/trace.ts";
import { FIXED, anyGait, anyLog, anyRows } from "../test-support/arbitraries.ts";
import { told } from "../test-support/told.ts";
import { tinyWorld } from "../test-support/tiny-world.ts";
import type { Room, World } from "../world/world.ts";
import { same } from "../test-support/same.ts";

const TU = 4096;
/** How often the room is laid beside itself each way: more than a log of this length can walk. */
const TIMES = 31;

/** Where the walker would be without seams: what it went in each frame, added up. */
function unrolled(rows: TraceRows, width: number, height: number): [number, number][] {
  let [x, y] = [rows.x[0]!, rows.y[0]!];
  return Array.from({ length: rows.count }, (_, i) => {
    if (i > 0) {
      const near = (by: number, size: number): number => floorModulo(by + size / 2, size) - size / 2;
      x += near(rows.x[i]! - rows.x[i - 1]!, width * TU);
      y += near(rows.y[i]! - rows.y[i - 1]!, height * TU);
    }
    return [x, y];
  });
}

/** The rows of a log that is short enough for the map; faster walkers than a third of the room cannot be told apart. */
const shortLog = anyLog.map((log) => ({ ...log, lines: log.lines.slice(0, 8) }));

it("a room that wraps is walked as the same room laid beside itself without end", () => {
  const seen = { frames: 0, bumped: 0, crossed: 0 };
  fc.assert(
    fc.property(
      anyRows.filter((rows) => rows.length >= 5 && rows[0]!.length >= 5),
      anyGait,
      shortLog,
      (rows, options, log) => {
        const [width, height] = [rows[0]!.length, rows.length];
        const wrapped = tinyWorld(rows, { ...options, edges: "wrap" });
        const plain = rows.map((row) => row.replace("S", "."));
        const wide: World = (() => {
          const made = tinyWorld(Array.from({ length: TIMES }, () => plain.map((row) => row.repeat(TIMES))).flat(), {
            ...options,
            edges: "wall",
          });
          const middle = Math.floor(TIMES / 2);
          return { ...made, start: { ...made.start, cell: [middle * width, middle * height] } };
        })();
        const one = run(compile(wrapped), log, { rows: true }).rows!;
        const other = run(compile(wide), log, { rows: true }).rows!;
        const middle = Math.floor(TIMES / 2);
        const expected = Array.from({ length: other.count }, (_, i): [number, number] => [
          other.x[i]! - middle * width * TU,
          other.y[i]! - middle * height * TU,
        ]);
        same(unrolled(one, width, height), expected);
        same([...one.facing, ...one.pose], [...other.facing, ...other.pose]);
        same([...one.flags], [...other.flags]);
        seen.frames += one.count;
        if (one.flags.some((flags) => flags & ROW_BUMPING)) seen.bumped++;
        if (expected.some(([x, y]) => x < -TU || y < -TU || x >= width * TU || y >= height * TU)) seen.crossed++;
      },
    ),
    { ...FIXED, numRuns: 100 },
  );
  told("wrapped against unrolled", seen);
  expect(Math.min(seen.bumped, seen.crossed)).toBeGreaterThan(15);
});

it("rooms in a row, linked side by side, are walked as one wide room; shifted ones as one with a step in it", () => {
  const seen = { crossed: 0, back: 0 };
  fc.assert(
    fc.property(
      anyGait,
      shortLog,
      fc.integer({ min: 0, max: 2 }),
      fc.array(fc.constantFrom(0, 0, 0, 0, 0, 1, 2, 3), { minLength: 90, maxLength: 90 }),
      (options, log, offset, cells) => {
        // Three rooms of 6 by 5, each lying `offset` cells lower than the one to its west.
        const [width, height] = [6, 5];
        const at = (room: number, x: number, y: number): number =>
          room === 0 && y === 2 && x === 3 ? 0 : cells[(room * height + y) * width + x]!;
        const base = tinyWorld(["S"], options);
        const wall = { kind: "wall" } as const;
        const rooms = ["a", "b", "c"].map((id, r): Room => ({
          id,
          name: id,
          width,
          height,
          plan: [r * width, r * offset],
          // Row y of this room is row y - offset of the next one to the east.
          edges: {
            north: wall,
            south: wall,
            west: r > 0 ? { kind: "link", room: "abc"[r - 1]!, offset } : wall,
            east: r < 2 ? { kind: "link", room: "abc"[r + 1]!, offset: -offset } : wall,
          },
          cells: Uint16Array.from({ length: width * height }, (_, i) => at(r, i % width, Math.floor(i / width))),
          fixtures: [],
          actors: [],
        }));
        const start = { room: "a", cell: [3, 2], facing: "down" } as const;
        const linked: World = { ...base, rooms, start };
        // All rooms on one map, what is no room solid.
        const high = height + 2 * offset;
        const one: Room = {
          ...rooms[0]!,
          width: 3 * width,
          height: high,
          edges: { north: wall, south: wall, west: wall, east: wall },
          cells: Uint16Array.from({ length: 3 * width * high }, (_, i) => {
            const [x, y] = [i % (3 * width), Math.floor(i / (3 * width))];
            const room = Math.floor(x / width);
            const row = y - room * offset;
            return row < 0 || row >= height ? 1 : at(room, x % width, row);
          }),
        };
        const apart = run(compile(linked), log, { rows: true }).rows!;
        const whole = run(compile({ ...base, rooms: [one], start }), log, { rows: true }).rows!;
        // Past the outer walls the two maps are not the same any more: a walker that runs off ends in both.
        const shared = Math.min(apart.count, whole.count);
        for (let i = 0; i < shared; i++) {
          const [x, y] = [apart.x[i]! + apart.room[i]! * width * TU, apart.y[i]! + apart.room[i]! * offset * TU];
          if (
            x < 0 ||
            y < 0 ||
            x > (3 * width - 1) * TU ||
            y > (high - 1) * TU ||
            apart.status[i] !== 0 ||
            whole.status[i] !== 0
          )
            return;
          same(
            { frame: i, x, y, facing: apart.facing[i], pose: apart.pose[i] },
            {
              frame: i,
              x: whole.x[i],
              y: whole.y[i],
              facing: whole.facing[i],
              pose: whole.pose[i],
            },
          );
          if (i > 0 && apart.room[i]! > apart.room[i - 1]!) seen.crossed++;
          if (i > 0 && apart.room[i]! < apart.room[i - 1]!) seen.back++;
        }
      },
    ),
    { ...FIXED, numRuns: 600 },
  );
  told("linked against one wide room", seen);
  expect(Math.min(seen.crossed, seen.back)).toBeGreaterThan(15);
});
