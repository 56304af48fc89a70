import { expect, it } from "vitest";
import { tinyWorld } from "../test-support/tiny-world.ts";
import { joinMask, joinTables } from "./joined.ts";

it("a tile's look is chosen by the neighbours that it joins with: its own kind, or a flag", () => {
  const { tiles } = tinyWorld(["S"]);
  const looks = Array.from({ length: 16 }, () => ({ fill: "#000000" }));
  const joining = tiles.map((tile, i) =>
    i === 1 ? { ...tile, joins: { to: "same", looks } } : i === 3 ? { ...tile, joins: { to: "solid", looks } } : tile,
  );
  const tables = joinTables(joining);
  expect(tables.map((table) => table && [...table])).toEqual([null, [0, 1, 0, 0], null, [0, 1, 1, 1]]);
  // . # .
  // # # /
  // . = .
  const cells = [0, 1, 0, 1, 1, 2, 0, 3, 0];
  expect(joinMask(tables[1]!, cells, 3, 3, 1, 1)).toBe(1 + 8);
  expect(joinMask(tables[3]!, cells, 3, 3, 1, 1)).toBe(1 + 2 + 4 + 8);
  expect(joinMask(tables[1]!, cells, 3, 3, 1, 0)).toBe(4);
  expect(joinMask(tables[3]!, cells, 3, 3, 1, 2)).toBe(1);
  expect(joinMask(tables[1]!, cells, 3, 3, 0, 1)).toBe(2);
});
