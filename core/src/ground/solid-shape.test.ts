import fc from "fast-check";
import { expect, it } from "vitest";
import { FIXED } from "../test-support/arbitraries.ts";
import type { Pair } from "../world/world.ts";
import { isConvexClockwise } from "../formats/world-faults.ts";
import { boxMeetsShape, probeMeetsShape, solidShape } from "./solid-shape.ts";

const triangle: readonly Pair[] = [
  [16, 0],
  [16, 16],
  [0, 16],
];

const convex = fc
  .array(fc.tuple(fc.integer({ min: 0, max: 16 }), fc.integer({ min: 0, max: 16 })), { minLength: 3, maxLength: 5 })
  .filter((points) => isConvexClockwise(points));
const bounds = fc.tuple(
  fc.integer({ min: -6, max: 20 }),
  fc.integer({ min: -6, max: 20 }),
  fc.integer({ min: 1, max: 10 }),
  fc.integer({ min: 1, max: 10 }),
);

/** Area of the polygon's part inside the box: another way to the same answer. */
function sharedArea(points: readonly Pair[], [l, t, w, h]: readonly [number, number, number, number]): number {
  let part: [number, number][] = points.map(([x, y]) => [x, y]);
  const sides: [number, number, number][] = [
    [1, 0, -l],
    [-1, 0, l + w],
    [0, 1, -t],
    [0, -1, t + h],
  ];
  for (const [a, b, c] of sides) {
    const keeps = ([x, y]: [number, number]) => a * x + b * y + c;
    part = part.flatMap((p, i) => {
      const q = part[(i + 1) % part.length]!;
      const from = keeps(p);
      const to = keeps(q);
      const cut: [number, number][] = from >= 0 ? [p] : [];
      if (from * to < 0)
        cut.push([p[0] + ((q[0] - p[0]) * from) / (from - to), p[1] + ((q[1] - p[1]) * from) / (from - to)]);
      return cut;
    });
  }
  return (
    part.reduce(
      (sum, p, i) => sum + p[0] * part[(i + 1) % part.length]![1] - p[1] * part[(i + 1) % part.length]![0],
      0,
    ) / 2
  );
}

it("a box overlaps a polygon exactly where they share an area", () => {
  fc.assert(
    fc.property(convex, bounds, (points, [l, t, w, h]) => {
      const shape = solidShape({ kind: "poly", points });
      expect(boxMeetsShape(shape, l * 256, t * 256, (l + w) * 256, (t + h) * 256, false)).toBe(
        sharedArea(points, [l, t, w, h]) > 1e-9,
      );
    }),
    { ...FIXED, numRuns: 1000 },
  );
});

it("lying flush is an overlap only where edges count, corner to corner too", () => {
  const slope = solidShape({ kind: "poly", points: triangle });
  const ledge = solidShape({ kind: "boxes", boxes: [[0, 10, 16, 6]] });
  for (const [shape, l, t, r, b] of [
    [slope, 0, 0, 8, 8],
    [slope, -4, 8, 0, 16],
    [ledge, 0, 4, 8, 10],
    [ledge, -4, 4, 0, 10],
  ] as const) {
    const units = [l, t, r, b].map((v) => v * 256) as [number, number, number, number];
    expect(boxMeetsShape(shape, ...units, true)).toBe(true);
    expect(boxMeetsShape(shape, ...units, false)).toBe(false);
  }
});

it("a probe counts left and top edges of a box, and every edge of a polygon", () => {
  const ledge = solidShape({ kind: "boxes", boxes: [[4, 4, 8, 8]] });
  const slope = solidShape({ kind: "poly", points: triangle });
  const at = (shape: typeof ledge, x: number, y: number) => probeMeetsShape(shape, x * 256, y * 256);
  expect([at(ledge, 4, 4), at(ledge, 12, 4), at(ledge, 11, 11), at(ledge, 4, 12)]).toEqual([true, false, true, false]);
  expect([at(slope, 8, 8), at(slope, 7, 8), at(slope, 16, 0), at(slope, 16, 16)]).toEqual([true, false, true, true]);
});
