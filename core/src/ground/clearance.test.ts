import { expect, it } from "vitest";
import { compile } from "../simulation/compile.ts";
import { tinyWorld } from "../test-support/tiny-world.ts";
import { clearance } from "./clearance.ts";

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
