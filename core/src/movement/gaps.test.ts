import fc from "fast-check";
import { expect, it } from "vitest";
import { isFree } from "../ground/free.ts";
import { compile } from "../simulation/compile.ts";
import { startState } from "../simulation/start-state.ts";
import { FIXED } from "../test-support/arbitraries.ts";
import { told } from "../test-support/told.ts";
import { tinyWorld } from "../test-support/tiny-world.ts";
import { gapTowards, gapsAround, overlapDepth } from "./gaps.ts";

const PX = 256;
const rows = ["#####", "#S.=#", "#.#.#", "#/..#", "#####"];
const anyBody = fc.record({
  kind: fc.constant("box" as const),
  box: fc.tuple(fc.constant(3), fc.constant(4), fc.integer({ min: 2, max: 13 }), fc.integer({ min: 2, max: 12 })),
  flush: fc.constantFrom("free" as const, "blocks" as const),
});

it("gaps are the whole units that the body can go each way, and the depth the shortest way out", () => {
  const seen = { free: 0, blocked: 0 };
  fc.assert(
    // Quarters of a px keep the search by single steps short.
    fc.property(anyBody, fc.integer({ min: 40, max: 250 }), fc.integer({ min: 40, max: 250 }), (body, qx, qy) => {
      const c = compile(tinyWorld(rows, { body }));
      const { ground } = startState(c);
      const [x, y] = [qx * 64, qy * 64];
      /** Steps of one unit in a direction until the body is as asked. */
      const until = (dx: number, dy: number, wanted: boolean): number => {
        let n = 0;
        while (n <= 33 * PX && isFree(ground, 0, x + dx * n, y + dy * n) !== wanted) n++;
        return n;
      };
      if (isFree(ground, 0, x, y)) {
        seen.free++;
        const gaps = gapsAround(ground, 0, x, y);
        for (const [side, axis, sign] of [
          ["left", 0, -1],
          ["right", 0, 1],
          ["up", 1, -1],
          ["down", 1, 1],
        ] as const) {
          const far = until(axis === 0 ? sign : 0, axis === 1 ? sign : 0, false) - 1;
          const gap = gapTowards(ground, 0, x, y, axis, sign);
          if (gap !== null) expect({ side, gap }).toEqual({ side, gap: far });
          expect(Object.values(gaps)).toContain(gap);
        }
      } else {
        seen.blocked++;
        const out = Math.min(until(-1, 0, true), until(1, 0, true), until(0, -1, true), until(0, 1, true));
        const depth = overlapDepth(ground, 0, x, y);
        if (out <= 32 * PX) expect(depth).toBe(body.flush === "blocks" ? out - 1 : out);
      }
    }),
    { ...FIXED, numRuns: 60 },
  );
  told("gaps", seen);
  expect(Math.min(seen.free, seen.blocked)).toBeGreaterThan(10);
});
