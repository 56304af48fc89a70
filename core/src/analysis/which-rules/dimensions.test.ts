import { expect, it } from "vitest";
import { newRules } from "../../world/new-rules.ts";
import type { Box, Pair, Rules } from "../../world/world.ts";
import { pointDimensions } from "./dimensions.ts";
import { byAgreement } from "./which-rules.ts";

const base = newRules("main", "Main", "roam", 16);
const boxed = (box: Box): Rules => ({ ...base, walker: { ...base.walker, body: { kind: "box", box, flush: "free" } } });
const probed = (...points: Pair[]): Rules => ({
  ...base,
  walker: { ...base.walker, body: { kind: "probes", points, flush: "free" } },
});
/** The points of all bodies that are tried, each as text. */
function tried(dimension: number, rules: Rules): string[] {
  return pointDimensions(2)[dimension]!(rules).map(({ walker: { body } }) =>
    body.kind === "probes" ? body.points.map(([x, y]) => `${x},${y}`).join(" ") : "no points",
  );
}
const NINE = ["0,0", "1,0", "2,0", "0,1", "1,1", "2,1", "0,2", "1,2", "2,2"];

it("the corners of a box are tried as points, whole and a px shorter; of points those of the box around them", () => {
  expect(tried(0, boxed([1, 2, 3, 4]))).toEqual(["1,2 4,2 1,6 4,6", "1,2 3,2 1,5 3,5"]);
  expect(tried(0, probed([3, 1], [0, 5]))).toEqual(["0,1 4,1 0,6 4,6", "0,1 3,1 0,5 3,5"]);
});

it("a point is tried at every px of the cell, both its edges too: alone, beside up to three others, and in the place of each", () => {
  expect(tried(1, boxed([0, 0, 2, 2]))).toEqual(NINE);
  expect(tried(2, boxed([0, 0, 2, 2]))).toEqual([]);
  expect(tried(2, probed([7, 7]))).toEqual(NINE.map((point) => `7,7 ${point}`));
  expect(tried(2, probed([1, 1], [2, 2], [3, 3]))).toHaveLength(9);
  expect(tried(2, probed([1, 1], [2, 2], [3, 3], [4, 4]))).toEqual([]);
  expect(tried(3, boxed([0, 0, 2, 2]))).toEqual([]);
  expect(tried(3, probed([7, 7]))).toEqual(NINE);
  expect(tried(3, probed([7, 7], [8, 8]))).toEqual([
    "8,8",
    ...NINE.map((point) => `8,8 ${point}`),
    "7,7",
    ...NINE.map((point) => `7,7 ${point}`),
  ]);
});

it("rules are better that miss fewer frames, and of equals those that miss the first one later, or none", () => {
  const of = (agreed: number, first: number | null) => ({ agreed, frames: 10, first });
  const order = [of(10, null), of(9, 8), of(9, 2), of(3, 9), of(3, 1)];
  for (const [i, one] of order.entries())
    for (const [k, other] of order.entries()) expect(Math.sign(byAgreement(one, other))).toBe(Math.sign(i - k));
  expect(byAgreement({ agreed: 5, frames: 5, first: null }, of(9, 2))).toBe(-1);
});
