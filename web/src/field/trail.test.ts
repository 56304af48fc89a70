import type { TraceRows } from "@keen-pebble/core/simulate";
import fc from "fast-check";
import { expect, it } from "vitest";
import { EdgeCanvas, HALF, PLACE, edge, walked } from "../test-support/stroked-edges.ts";
import { makeTrail, strokeTrail } from "./trail.ts";
import { trailScale, trailStep } from "./trail-colour.ts";

function stroked(rows: TraceRows, from: number, to: number): EdgeCanvas {
  const canvas = new EdgeCanvas();
  strokeTrail(canvas as unknown as CanvasRenderingContext2D, makeTrail(rows, 0, HALF), PLACE, from, to, String);
  return canvas;
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

it("has its colours over its own frames, but for a long walk that goes on", () => {
  expect([0, 600, 601, 1200, 1201, 36_000].map((frames) => trailScale(frames, true))).toEqual([
    0, 600, 1200, 1200, 2400, 38_400,
  ]);
  expect([0, 601, 36_000].map((frames) => trailScale(frames, false))).toEqual([0, 601, 36_000]);
});
