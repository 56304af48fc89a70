import { expect, it } from "vitest";
import { compile } from "../../simulation/compile.ts";
import { startState } from "../../simulation/start-state.ts";
import { tinyWorld } from "../../test-support/tiny-world.ts";
import { FACINGS } from "../../world/facing.ts";
import { DOWN, LEFT, RIGHT, UP, USE } from "../../world/keys.ts";
import { USE_LEFT, WAIT, goings, keysOf, perform } from "./actions.ts";

it("an action holds its direction, and the use button where it uses", () => {
  const ways = [LEFT, RIGHT, UP, DOWN];
  expect([0, 1, 2, 3].map(keysOf)).toEqual(ways);
  expect([4, 5, 6, 7].map(keysOf)).toEqual([LEFT | UP, RIGHT | UP, LEFT | DOWN, RIGHT | DOWN]);
  expect([0, 1, 2, 3].map((way) => keysOf(USE_LEFT + way))).toEqual(ways.map((way) => way | USE));
  expect(keysOf(WAIT)).toBe(0);
});

it.each([
  // Closed in at the left and below: only to the right and upwards one gets anywhere.
  ["hop", 0, 2],
  ["hop", 1, 2],
  ["hop", USE_LEFT, 2],
  ["hop", USE_LEFT + 3, 2],
  ["hop", WAIT, 1],
  ["glide", 0, 1],
  ["glide", 1, 8],
  ["glide", 2, 8],
  ["glide", USE_LEFT, 2],
  ["glide", USE_LEFT + 3, 2],
  ["glide", WAIT, 1],
] as const)(
  "under %s action %i takes %i frames, each of which is told, and ends between two legs",
  (gait, action, frames) => {
    const c = compile(tinyWorld(["...", "#S.", ".#."], { gait, glide: { speed: 2 } }));
    const s = startState(c);
    let told = 0;
    expect(perform(c, s, action, () => told++)).toBe(frames);
    expect([told, s.frame, s.legX, s.legY, s.hasPointer]).toEqual([frames, frames, 0, 0, false]);
    expect([s.x, s.y]).toEqual([(action === 1 ? 2 : 1) * c.tileUnits, (action === 2 ? 0 : 1) * c.tileUnits]);
  },
);

it("with four ways nobody goes aslant", () => {
  const ways = (count: 4 | 8) => goings(compile(tinyWorld(["S"], { input: { ways: count } })));
  expect([ways(4), ways(8)]).toEqual([
    [0, 1, 2, 3, WAIT],
    [0, 1, 2, 3, 4, 5, 6, 7, WAIT],
  ]);
});

it("where facing follows the pointer, what is used is pointed at", () => {
  const c = compile(tinyWorld(["###", "#S#", "###"], { gait: "hop", facing: { source: "pointer" } }));
  const facings = [0, 1, 2, 3].map((way) => {
    const s = startState(c);
    perform(c, s, USE_LEFT + way, () => {});
    return FACINGS[s.facing];
  });
  expect(facings).toEqual(["left", "right", "up", "down"]);
});
