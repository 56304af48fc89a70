import fc from "fast-check";
import { expect, it } from "vitest";
import { compile } from "../simulation/compile.ts";
import { FIXED, anyBody, anyRows } from "../test-support/arbitraries.ts";
import { tinyWorld } from "../test-support/tiny-world.ts";
import { clearance } from "./clearance.ts";
import { isFree } from "./free.ts";
import { solidAt } from "./ground.ts";
import { NOTHING } from "./solid-shape.ts";

it("is so for each cell of a room as it is said of one, at whatever sides", () => {
  fc.assert(
    fc.property(anyRows, anyBody, fc.constantFrom("wall", "wrap"), (rows, body, edges) => {
      const { ground } = compile(tinyWorld(rows, { body, edges }));
      const { width, height } = ground.rooms[0]!;
      const narrow = Array.from({ length: width * height }, (_, cell) => {
        const [x, y] = [cell % width, Math.floor(cell / width)];
        const free = isFree(ground, 0, x * ground.tileUnits, y * ground.tileUnits);
        return solidAt(ground, 0, x, y) === NOTHING && !free ? 1 : 0;
      });
      expect([...clearance(ground, 0)]).toEqual(narrow);
    }),
    FIXED,
  );
});

it("a cell whose ground is free is narrow where the body does not fit on it", () => {
  const rows = ["S....", "..#..", "....."];
  const narrow = (box: readonly [number, number, number, number]) =>
    [...clearance(compile(tinyWorld(rows, { body: { kind: "box", box, flush: "free" } })).ground, 0)]
      .map((cell, i) => (cell ? `${i % 5},${Math.floor(i / 5)}` : ""))
      .filter(Boolean);
  expect(narrow([0, 0, 16, 16])).toEqual([]);
  // Four px wider to the right: the cell left of the block and those at the east wall.
  expect(narrow([0, 0, 20, 16])).toEqual(["4,0", "1,1", "4,1", "4,2"]);
});
