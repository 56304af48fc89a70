import fc from "fast-check";
import { expect, it } from "vitest";
import { FIXED } from "../test-support/arbitraries.ts";
import { covers, keptPart, sizeOf } from "./fixture-area.ts";
import type { Fixture } from "./fixtures.ts";
import type { Pair } from "./world.ts";

const small = fc.integer({ min: 1, max: 4 });
const anyArea = fc
  .record({ x: fc.integer({ min: -4, max: 8 }), y: fc.integer({ min: -4, max: 8 }), across: small, down: small })
  .map(
    ({ x, y, across, down }) =>
      ({ id: "m", kind: "marker", name: "M", cell: [x, y], size: [across, down] }) as unknown as Fixture,
  );

/** The cells of a fixture, listed from its size. */
function cellsOf(fixture: Fixture): string[] {
  const [[x, y], [across, down]] = [fixture.cell, sizeOf(fixture)];
  return Array.from({ length: across * down }, (_, i) => `${x + (i % across)},${y + Math.floor(i / across)}`);
}
const EVERYWHERE: readonly Pair[] = Array.from({ length: 400 }, (_, i) => [(i % 20) - 6, Math.floor(i / 20) - 6]);

it("an area covers the cells of its rectangle and no others; what is kept of it in a room are those that are inside", () => {
  fc.assert(
    fc.property(anyArea, small, small, (area, width, height) => {
      const cells = cellsOf(area);
      expect(EVERYWHERE.filter((cell) => covers(area, cell)).map(String)).toEqual(cells);
      const kept = keptPart(area, width, height);
      const inside = cells.filter((cell) => {
        const [x, y] = cell.split(",").map(Number) as [number, number];
        return x >= 0 && y >= 0 && x < width && y < height;
      });
      expect(kept === null ? [] : cellsOf(kept)).toEqual(inside);
    }),
    FIXED,
  );
});
