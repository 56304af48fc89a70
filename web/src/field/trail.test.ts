import type { TraceRows } from "@keen-pebble/core/simulate";
import { ARRIVE } from "@keen-pebble/core/world";
import fc from "fast-check";
import { expect, it } from "vitest";
import { makeTrail, strokeTrail } from "./trail.ts";
import { trailStep } from "./trail-colour.ts";

const WAYS = [
  [0, 0],
  [1, 0],
  [-1, 0],
  [0, 1],
  [0, -1],
] as const;
/** Half a tile, in px, and a place that takes it back: lines go through what the rows say. */
const HALF = 1;
const PLACE = { zoom: 1, left: -HALF, top: -HALF };

/** A walk by one px a frame, held within four px each way: it often goes where it was. */
function walked(keys: readonly number[], arrivals: readonly number[] = []): TraceRows {
  const x = [0];
  const y = [0];
  for (const key of keys) {
    const [dx, dy] = WAYS[key]!;
    x.push(Math.min(4, Math.max(0, x.at(-1)! + dx)));
    y.push(Math.min(4, Math.max(0, y.at(-1)! + dy)));
  }
  const units = (px: number[]): Int32Array => Int32Array.from(px, (each) => each * 256);
  return {
    count: x.length,
    x: units(x),
    y: units(y),
    room: new Uint8Array(x.length),
    events: Int32Array.from(arrivals.flatMap((frame) => [frame, ARRIVE, 0])),
  } as unknown as TraceRows;
}

const edge = (ax: number, ay: number, bx: number, by: number): string =>
  `${Math.min(ax, bx)},${Math.min(ay, by)} ${ax === bx ? "down" : "right"}`;

/** The step of colour that is seen of each stroked edge, a px long, and how many lines that took. */
function stroked(rows: TraceRows, from: number, to: number): { edges: Map<string, number>; lines: number } {
  const edges = new Map<string, number>();
  let path: string[] = [];
  let lines = 0;
  let at: readonly [number, number] = [0, 0];
  const c = {
    strokeStyle: "",
    beginPath: () => {
      path = [];
    },
    stroke: () => {
      for (const each of path) edges.set(each, Number(c.strokeStyle));
    },
    moveTo: (x: number, y: number) => {
      at = [Math.round(x), Math.round(y)];
    },
    lineTo: (toX: number, toY: number) => {
      lines++;
      const [x, y] = [Math.round(toX), Math.round(toY)];
      const [dx, dy] = [Math.sign(x - at[0]), Math.sign(y - at[1])];
      for (let [ax, ay] = at; ax !== x || ay !== y; [ax, ay] = [ax + dx, ay + dy])
        path.push(edge(ax, ay, ax + dx, ay + dy));
    },
  };
  strokeTrail(c as unknown as CanvasRenderingContext2D, makeTrail(rows, 0, HALF), PLACE, from, to, String);
  return { edges, lines };
}

it("strokes each frame's way from one frame to another in the colour of the last frame there, and nothing else", () => {
  fc.assert(
    fc.property(
      // Gone again and again, so that a step of colour goes the same ways more than once.
      fc.array(fc.tuple(fc.nat(4), fc.nat(5)), { maxLength: 8 }),
      fc.integer({ min: 1, max: 200 }),
      fc.nat(48_000),
      // Both ends in one step of colour, or not.
      fc.oneof(fc.nat(900), fc.nat(48_000)),
      (held, rounds, begin, long) => {
        const round = held.flatMap(([key, frames]) => Array<number>(frames).fill(key));
        const rows = walked(Array.from({ length: rounds }, () => round).flat());
        const frames = rows.count - 1;
        const [from, to] = [begin, begin + long].map((at) => Math.round((at / 45_000) * frames)) as [number, number];
        const wanted = new Map<string, number>();
        const px = (at: number): [number, number] => [rows.x[at]! / 256, rows.y[at]! / 256];
        for (let frame = from + 1; frame <= Math.min(to, frames); frame++)
          if (rows.x[frame] !== rows.x[frame - 1] || rows.y[frame] !== rows.y[frame - 1])
            wanted.set(edge(...px(frame - 1), ...px(frame)), trailStep(frame, frames));
        expect(stroked(rows, from, to).edges).toEqual(wanted);
      },
    ),
    { seed: 20261130, numRuns: 300 },
  );
});

it("takes a walk that goes round for few more lines than one round has", () => {
  const round = [1, 1, 1, 3, 3, 3, 2, 2, 2, 4, 4, 4];
  const rows = walked(Array.from({ length: 48 * 50 }, () => round).flat());
  // Four, and in each step of colour the two parts of a line that goes on in the next one.
  expect(stroked(rows, 0, Infinity).lines).toBeLessThanOrEqual(4 + 48 * 2);
  expect(stroked(rows, 12 * 1230, Infinity).lines).toBeLessThanOrEqual(4 + 48 * 2);
  expect(stroked(rows, 0, 12 * 1230).lines).toBeLessThanOrEqual(4 + 48 * 2);
});

it("has each place of arrival once, by its first frame", () => {
  const round = [1, 3, 2, 4];
  const rows = walked(Array.from({ length: 50 }, () => round).flat(), [1, 2, 5, 6, 7, 9, 199]);
  expect([...makeTrail(rows, 0, HALF).stations]).toEqual([1, 2, 1, 2, 2, 2, 7, 1, 2]);
  expect(makeTrail(rows, 1, HALF).stations.length).toBe(0);
});
