import fc from "fast-check";
import { expect, it } from "vitest";
import { FIXED } from "../../test-support/arbitraries.ts";
import type { Pair } from "../../world/world.ts";
import { hullOf } from "./hull.ts";
import { shapeOfCut } from "./shape-of.ts";

const SIDE = 64;
/** As many corners as a polygon may have. */
const MOST = 8;

/** How far a corner is from the line between its neighbours, in whole px, rounded up. */
function awayFromLine(points: readonly Pair[], at: number): number {
  const [before, after] = [points.at(at - 1)!, points[(at + 1) % points.length]!];
  const [dx, dy] = [after[0] - before[0], after[1] - before[1]];
  const [x, y] = points[at]!;
  return Math.ceil(Math.abs((x - before[0]) * dy - (y - before[1]) * dx) / Math.hypot(dx, dy) - 1e-9);
}

it("a figure with more corners than a polygon may have loses those that stand out least, and says by how much", () => {
  let lessened = 0;
  fc.assert(
    fc.property(fc.array(fc.tuple(fc.nat(SIDE), fc.nat(SIDE)), { minLength: 12, maxLength: 60 }), (points) => {
      const hull = hullOf(points);
      const made = shapeOfCut({ corners: hull }, true, SIDE);
      const left = [...hull];
      let off = 0;
      while (left.length > MOST) {
        const away = left.map((_, at) => awayFromLine(left, at));
        const least = Math.min(...away);
        off = Math.max(off, least);
        left.splice(away.indexOf(least), 1);
        lessened++;
      }
      expect(made.off).toBe(off);
      if (made.shape.kind === "poly") expect(made.shape.points).toEqual(left);
      else expect(left.length).toBeLessThanOrEqual(4);
    }),
    FIXED,
  );
  expect(lessened).toBeGreaterThan(50);
});

it.each<[string, readonly Pair[], unknown]>([
  [
    "a whole cell is full",
    [
      [0, 0],
      [64, 0],
      [64, 64],
      [0, 64],
    ],
    { kind: "full" },
  ],
  [
    "an upright rectangle is a box",
    [
      [3, 5],
      [20, 5],
      [20, 40],
      [3, 40],
    ],
    { kind: "boxes", boxes: [[3, 5, 17, 35]] },
  ],
  [
    "a turned one is a polygon",
    [
      [10, 0],
      [20, 10],
      [10, 20],
      [0, 10],
    ],
    {
      kind: "poly",
      points: [
        [0, 10],
        [10, 0],
        [20, 10],
        [10, 20],
      ],
    },
  ],
])("%s", (_, corners, shape) => {
  const made = shapeOfCut({ corners }, true, SIDE);
  expect(made.off).toBe(0);
  expect(made.shape.kind === "poly" ? new Set(made.shape.points.map(String)) : made.shape).toEqual(
    made.shape.kind === "poly" ? new Set((shape as { points: Pair[] }).points.map(String)) : shape,
  );
});
