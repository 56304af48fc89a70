import { expect, it } from "vitest";
import { tinyWorld } from "../../test-support/tiny-world.ts";
import type { Fixture } from "../../world/fixtures.ts";
import type { World } from "../../world/world.ts";
import type { ReachAnswer, Way } from "./answer.ts";
import { NEVER, UNDECIDED } from "./answer.ts";
import { reachSentence } from "./sentence.ts";

const way = (moves: number): Way => ({ moves, ends: null, lines: [] });
const base = tinyWorld(["S  "]);
/** A world with so many things, `a` to `e`. */
function withThings(n: number): World {
  const fixtures = [..."abcde"].slice(0, n).map((id) => ({ id, kind: "marker" }) as Fixture);
  return { ...base, rooms: [{ ...base.rooms[0]!, fixtures }] };
}
/** What is said of so many things with these numbers, without a goal and always aligned. */
function said(numbers: readonly number[], more: Partial<ReachAnswer> = {}): string[] {
  const answer: ReachAnswer = {
    gait: "glide",
    unit: "moves",
    exhaustive: true,
    shortest: true,
    states: 9,
    first: [],
    fixtures: Int32Array.from(numbers),
    losable: [],
    alignment: { verdict: "proved", way: null },
    goal: null,
    stuck: null,
    unconfirmed: [],
    ...more,
  };
  return reachSentence(withThings(numbers.length), answer).split("; ");
}
const stuck = (...moves: number[]): ReachAnswer["stuck"] => ({
  states: moves.length,
  classes: moves.map((n) => ({ ...way(n), taken: [], open: [], on: [] })),
});
const losable = (...ids: string[]): ReachAnswer["losable"] => ids.map((fixture) => ({ ...way(1), fixture }));

it.each<[readonly number[], readonly string[]]>([
  [[], ["There is nothing to reach"]],
  [[0], ["The one thing can be reached"]],
  [[3, 0], ["All 2 things can be reached"]],
  [[3, NEVER], ["1 thing of 2 can never be reached: b"]],
  [[NEVER, NEVER, 1, NEVER], ["3 things of 4 can never be reached: a, b, d"]],
  [[NEVER, NEVER, NEVER, NEVER, 7], ["4 things of 5 can never be reached: a, b and 2 more"]],
  [[UNDECIDED, 1], ["of 1 thing it is open: a"]],
  [
    [NEVER, UNDECIDED, UNDECIDED],
    ["1 thing of 3 can never be reached: a", "of 2 things it is open: b, c"],
  ],
])("of things that take %j: %j", (numbers, words) =>
  expect(said(numbers)).toEqual([...words, "there is no goal", "always on the grid at rest."]),
);

it.each<[string, Partial<ReachAnswer>, readonly string[]]>([
  ["reached", { goal: 4 }, ["the goal in 4 moves"]],
  ["reached after one", { goal: 1, stuck: stuck() }, ["the goal in 1 move", "nobody can get stuck"]],
  ["reached in frames", { goal: 30, unit: "frames" }, ["the goal in 30 frames"]],
  ["never reached", { goal: NEVER, stuck: stuck() }, ["the goal can never be reached"]],
  ["open", { goal: UNDECIDED, stuck: stuck() }, ["whether the goal can be reached is open"]],
  [
    "there, where one can get stuck",
    { goal: 0, stuck: stuck(5) },
    ["the goal in 0 moves", "one can get stuck in 1 way, first after 5 moves"],
  ],
  [
    "there, and not all was looked at",
    { goal: 4, stuck: stuck(), exhaustive: false },
    ["the goal in 4 moves", "whether one can get stuck is open"],
  ],
  [
    "there, and what can be lost is open",
    { goal: 4, stuck: stuck(), losable: null },
    ["the goal in 4 moves", "whether one can get stuck is open"],
  ],
  [
    "there, with two ways to get stuck and something to lose",
    { goal: 4, stuck: stuck(1, 8), losable: losable("a", "b", "c", "d") },
    ["the goal in 4 moves", "one can get stuck in 2 ways, first after 1 move", "a, b and 2 more can be lost for good"],
  ],
])("of a goal that is %s", (_, more, words) =>
  expect(said([1], more)).toEqual(["The one thing can be reached", ...words, "always on the grid at rest."]),
);

it("whether it always rests on the grid is proved, broken after so many frames, or open", () => {
  const last = (alignment: ReachAnswer["alignment"]): string => said([1], { alignment }).at(-1)!;
  expect(last({ verdict: "broken", way: way(1) })).toBe("off the grid at rest after 1 frame.");
  expect(last({ verdict: "broken", way: way(12) })).toBe("off the grid at rest after 12 frames.");
  expect(last({ verdict: "open", way: null })).toBe("whether it always rests on the grid is open.");
});
