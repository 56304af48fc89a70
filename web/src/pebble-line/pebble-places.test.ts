import { expect, it } from "vitest";
import { pebblePlaces } from "./pebble-places.ts";
import { frameX } from "./line-scale.ts";
import type { LineScale } from "./line-scale.ts";

const SCALE: LineScale = { left: 72, width: 600, from: 0, frames: 60 };
const at = (frame: number, verdict: "pass" | "fail" | "unreached" = "pass") => ({ frame, verdict });
const lefts = (verdicts: Parameters<typeof pebblePlaces>[0], open: number | null) =>
  pebblePlaces(verdicts, SCALE, open).map(({ left }) => left);

it("pebbles of one frame are a stack with its count, the one on top that says most", () => {
  const places = pebblePlaces([at(30), at(30, "fail"), at(30, "unreached"), at(10)], SCALE, null);
  const x = frameX(SCALE, 30);
  expect(places.map(({ left }) => left)).toEqual([x, x, x, frameX(SCALE, 10)]);
  expect(places.map(({ stands }) => stands)).toEqual([1, 3, 1, 1]);
  expect(places[1]!.above).toBeGreaterThan(places[2]!.above);
  expect(places[2]!.above).toBeGreaterThan(places[0]!.above);
});

it("the stack that is pointed at lies spread out to the left, its top one where it was, without a count", () => {
  const x = frameX(SCALE, 30);
  const places = pebblePlaces([at(30), at(30, "fail"), at(30)], SCALE, 30);
  expect(places.map(({ left }) => left)).toEqual([x - 13, x, x - 26]);
  expect(places.map(({ stands }) => stands)).toEqual([1, 1, 1]);
  expect(lefts([at(30), at(30), at(10)], 10)).toEqual([x, x, frameX(SCALE, 10)]);
});

it("stacks of neighbouring frames keep apart", () => {
  const [one, other] = lefts([at(30), at(31)], null) as [number, number];
  expect(Math.abs(one - other)).toBeGreaterThanOrEqual(13);
});
