import fc from "fast-check";
import { expect, it } from "vitest";
import { compile } from "../../simulation/compile.ts";
import { startState } from "../../simulation/start-state.ts";
import { FIXED, anyOptions, anyRows } from "../../test-support/arbitraries.ts";
import type { Mirror } from "../../test-support/mirrored.ts";
import { mirroredWorld } from "../../test-support/mirrored.ts";
import { told } from "../../test-support/told.ts";
import { tinyWorld } from "../../test-support/tiny-world.ts";
import { GridSuperset } from "./grid-superset.ts";
import { Reach } from "./reach.ts";

/**
 * A room under a gait of the grid that prefers no side, and which axis a mirror turns. Off the grid one half of a cell
 * is not the mirror image of the other: a walker that is halfway is in the next one.
 */
const anyEven = fc
  .record({
    rows: anyRows,
    options: anyOptions,
    gait: fc.constantFrom("hop" as const, "glide" as const),
    inset: fc.integer({ min: 0, max: 7 }),
    mirror: fc.constantFrom<Mirror>("x", "y"),
  })
  .map(({ rows, options, gait, inset, mirror }) => {
    const body = { kind: "box", box: [inset, inset, 16 - 2 * inset, 16 - 2 * inset], flush: "free" } as const;
    return {
      rows,
      mirror,
      world: tinyWorld(rows, { ...options, gait, edges: "wall", body }),
    };
  });

/** A number for each cell of the room, as they stand in a mirror. */
function turned(cells: ArrayLike<number>, rows: readonly string[], mirror: Mirror): number[] {
  const [width, height] = [rows[0]!.length, rows.length];
  return Array.from(cells, (_, at) => {
    const [x, y] = [at % width, Math.floor(at / width)];
    return mirror === "x" ? cells[y * width + width - 1 - x]! : cells[(height - 1 - y) * width + x]!;
  });
}

it("what can be reached in a mirror is the mirrored place, in as many moves", () => {
  const seen = { reached: 0, never: 0 };
  fc.assert(
    fc.property(anyEven, ({ rows, mirror, world }) => {
      const [one, other] = [world, mirroredWorld(world, mirror)].map((each) =>
        new Reach(each, { limit: 2_000 }).answer(),
      );
      expect(other!.exhaustive).toBe(one!.exhaustive);
      if (!one!.exhaustive) return;
      expect([...other!.first[0]!]).toEqual(turned(one!.first[0]!, rows, mirror));
      expect([other!.states, other!.alignment.verdict]).toEqual([one!.states, one!.alignment.verdict]);
      for (const n of one!.first[0]!) seen[n >= 0 ? "reached" : "never"]++;
    }),
    { ...FIXED, numRuns: 120 },
  );
  told("cells in mirrors", seen);
  expect(Math.min(seen.reached, seen.never)).toBeGreaterThan(300);
});

it("what no play goes beyond is mirrored with the world", () => {
  const seen = { whole: 0, parts: 0 };
  fc.assert(
    fc.property(anyEven, ({ rows, mirror, world }) => {
      const [one, other] = [world, mirroredWorld(world, mirror)].map((each) => {
        const c = compile(each);
        return new GridSuperset(c, startState(c));
      });
      expect([...other!.comes[0]!]).toEqual(turned(one!.comes[0]!, rows, mirror));
      expect([...other!.rests[0]!]).toEqual(turned(one!.rests[0]!, rows, mirror));
      expect(other!.reversible).toBe(one!.reversible);
      seen[one!.rests[0]!.includes(0) ? "parts" : "whole"]++;
    }),
    FIXED,
  );
  told("supersets in mirrors", seen);
  expect(seen.parts).toBeGreaterThan(100);
});
