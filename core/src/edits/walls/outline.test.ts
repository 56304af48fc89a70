import { expect, it } from "vitest";
import type { Pair } from "../../world/world.ts";
import type { Outline } from "./outline.ts";
import { outlineFault } from "./outline.ts";

/** An outline turned about by quarters. */
const turned = (outline: Outline, quarters: number): Outline =>
  outline.map((corner): Pair => {
    let [x, y] = corner;
    for (let i = 0; i < quarters; i++) [x, y] = [-y, x];
    return [x, y];
  });
const ways = (outline: Outline): (string | null)[] =>
  [0, 1, 2, 3].map((quarters) => outlineFault(turned(outline, quarters)));

it("an edge may go straight on behind a corner, whichever way it runs", () => {
  const even: Outline = [
    [0, 0],
    [8, 0],
    [16, 0],
    [16, 5],
    [16, 16],
    [3, 16],
    [0, 16],
    [0, 9],
  ];
  expect(ways(even)).toEqual([null, null, null, null]);
  expect(ways([...even].reverse())).toEqual([null, null, null, null]);
  // Slanting ones as well.
  expect(
    ways([
      [0, 0],
      [4, 2],
      [12, 6],
      [3, 15],
    ]),
  ).toEqual([null, null, null, null]);
});

it("one that goes back over itself is refused, however far, whichever way", () => {
  for (const back of [1, 8, 16, 20])
    for (const fault of ways([
      [0, 0],
      [16, 0],
      [16 - back, 0],
      [16 - back, 12],
    ]))
      expect(fault).toContain("does not cross or touch itself");
  for (const fault of ways([
    [0, 0],
    [12, 6],
    [4, 2],
    [3, 15],
  ]))
    expect(fault).toContain("does not cross or touch itself");
});

it("one that crosses or touches itself is refused, and so is one without an area or with too few corners", () => {
  for (const outline of [
    [
      [0, 0],
      [16, 16],
      [16, 0],
      [0, 16],
    ],
    [
      [0, 0],
      [16, 0],
      [8, 0],
      [8, 16],
    ],
    [
      [0, 0],
      [16, 0],
      [16, 16],
      [8, 0],
      [0, 16],
    ],
    // A corner that is set twice.
    [
      [0, 0],
      [16, 0],
      [16, 0],
      [4, 9],
    ],
  ] as const)
    for (const fault of ways(outline)) expect(fault).toContain("does not cross or touch itself");
  expect(
    outlineFault([
      [0, 0],
      [16, 0],
    ]),
  ).toBe("a wall has at least 3 corners, this one 2");
  expect(
    outlineFault([
      [0, 0],
      [16, 0],
      [4, 9],
    ]),
  ).toBeNull();
});
