import { expect, it } from "vitest";
import { boxesOf } from "./px-cells.ts";

/** Px of a cell of 16 that are filled, as `x,y`. */
function filled(...at: readonly (readonly [number, number])[]): Uint8Array {
  const px = new Uint8Array(256);
  for (const [x, y] of at) px[y * 16 + x] = 1;
  return px;
}
const apart = Array.from({ length: 64 }, (_, i) => [2 * (i % 8), 2 * Math.floor(i / 8)] as const);

it("as many boxes as a shape may have are exact; one more makes them coarser", () => {
  expect(boxesOf(filled(...apart), 16)).toEqual(apart.map(([x, y]) => [x, y, 1, 1]));
  // In steps of two rows they are rows of px that reach down to the next one: one box for each column.
  expect(boxesOf(filled(...apart, [15, 15]), 16)).toEqual(Array.from({ length: 8 }, (_, i) => [2 * i, 0, 1, 16]));
});

it("a run of rows that begin and end alike is one box, another width begins another", () => {
  expect(boxesOf(filled([3, 0], [4, 0], [3, 1], [4, 1], [3, 2], [9, 2]), 16)).toEqual([
    [3, 0, 2, 2],
    [3, 2, 1, 1],
    [9, 2, 1, 1],
  ]);
  expect(boxesOf(filled([0, 0], [15, 0], [0, 15], [15, 15]), 16)).toHaveLength(4);
  expect(boxesOf(new Uint8Array(256).fill(1), 16)).toEqual([[0, 0, 16, 16]]);
  expect(boxesOf(new Uint8Array(256), 16)).toEqual([]);
});
