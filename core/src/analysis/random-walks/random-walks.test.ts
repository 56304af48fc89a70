import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { logHolds } from "../../checks/verdict.ts";
import { compile } from "../../simulation/compile.ts";
import { run } from "../../replay/run.ts";
import { anyHouse } from "../../test-support/any-house.ts";
import { FIXED } from "../../test-support/arbitraries.ts";
import type { TinyOptions } from "../../test-support/tiny-world.ts";
import { tinyWorld } from "../../test-support/tiny-world.ts";
import type { World } from "../../world/world.ts";
import type { RandomWalkFinding } from "./search.ts";
import { shortestFindings, takeRandomWalks, randomWalkTasks } from "./search.ts";
import { shrinkWalk } from "./shrink.ts";
import type { BrokenWalk } from "./random-walks.ts";
import { RandomWalker, walkLog } from "./random-walks.ts";

const ROOM = ["##########", "#S.......#", "#...##...#", "#........#", "#..#.....#", "##########"];
const world = (rows: readonly string[], options: TinyOptions, laws: readonly string[] = []): World => ({
  ...tinyWorld(rows, options),
  laws,
});

/** The first walk that breaks a law, out of some, and what it shrinks to. */
function broken(of: World, runs = 60): { walk: BrokenWalk; short: BrokenWalk } | null {
  const randomWalker = new RandomWalker(compile(of));
  for (let seed = 1; seed <= runs; seed++) {
    const walk = randomWalker.walk(seed, 1200);
    if (walk !== null) return { walk, short: shrinkWalk(randomWalker, walk, { left: 600_000 }) };
  }
  return null;
}

describe("random walks find, and shrink to under 60 frames,", () => {
  it.each<[string, World, string]>([
    [
      "undo-both that sticks to walls",
      world(ROOM, { gait: "roam", input: { ways: 8 }, roam: { response: "undo-both", speedX: 2, speedY: 2 } }),
      "is held against nothing",
    ],
    [
      "a gap that undo-axis leaves",
      world(ROOM, { gait: "roam", roam: { response: "undo-axis", speedX: 3, speedY: 3 } }),
      "is held against nothing",
    ],
    ["equal that runs off", world(ROOM, { glide: { speed: 3, arrive: "equal" } }), "is on a leg that never ends"],
    ["past that rests beside the grid", world(ROOM, { glide: { speed: 3, arrive: "past" } }), "rests off the grid"],
    [
      "a gap in the wall of a closed room",
      world(["S...#....", "....#....", "....#....", "....#....", ".........", "....#...."], { glide: { speed: 4 } }, [
        "never cell 7 2",
      ]),
      "never cell 7 2",
    ],
    [
      "ahead that sinks in",
      world(ROOM, { gait: "roam", roam: { response: "ahead", speedX: 3, speedY: 3 } }),
      "comes to overlap what blocks it",
    ],
  ])("%s", (_what, of, law) => {
    const { walk, short } = broken(of)!;
    expect([walk.law.name, short.law.name]).toEqual([law, law]);
    expect(short.keys.length).toBeLessThanOrEqual(walk.keys.length);
    expect(short.keys.length).toBeLessThan(60);
    const c = compile(of);
    const log = walkLog(c, short, 1);
    const result = run(c, log, { checks: true });
    expect(result.frames).toBe(short.frame);
    // A check says so, or no check can; what the log shows is what was found.
    expect(logHolds(result.verdicts)).toBe(law === "is held against nothing");
  });
});

/** Counts the frames that it is asked to walk. */
class CountingRandomWalker extends RandomWalker {
  frames = 0;

  override replay(keys: Uint8Array): BrokenWalk | null {
    this.frames += keys.length;
    return super.replay(keys);
  }

  override places(keys: Uint8Array): string[] {
    this.frames += keys.length;
    return super.places(keys);
  }
}

it("find nothing where the way that it moves keeps every law", () => {
  for (const options of [
    { glide: { speed: 3 } },
    { gait: "hop" },
    { gait: "roam", roam: { speedX: 3, speedY: 3 } },
    { gait: "drift" },
  ] satisfies TinyOptions[])
    expect(broken(world(ROOM, options))).toBeNull();
});

it("the same seed walks the same walk, and what is found is found again from its keys", () => {
  fc.assert(
    fc.property(anyHouse, fc.nat(1000), (house, seed) => {
      const randomWalker = new RandomWalker(compile({ ...house, laws: ["never cell 3 3 in b"] }));
      const walk = randomWalker.walk(seed, 400);
      expect(randomWalker.walk(seed, 400)).toEqual(walk);
      if (walk === null) return;
      expect(randomWalker.replay(walk.keys)).toEqual(walk);
      const budget = { left: 20_000 };
      const counting = new CountingRandomWalker(compile({ ...house, laws: ["never cell 3 3 in b"] }));
      const short = shrinkWalk(counting, walk, budget);
      expect(randomWalker.replay(short.keys)).toEqual(short);
      // Never a frame more than it was allowed.
      expect(counting.frames).toBeLessThanOrEqual(20_000 - Math.max(0, budget.left));
    }),
    { ...FIXED, numRuns: 60 },
  );
});

it("walks parted into tasks are just those walks, and find what one after the other would find", () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 0, max: 1000 }),
      fc.integer({ min: 1, max: 5000 }),
      fc.integer({ min: 1, max: 100_000 }),
      (seed, runs, frames) => {
        const tasks = randomWalkTasks({ seed, runs, frames });
        expect(tasks.flatMap((task) => [task.seed, task.seed + task.runs])).toEqual([
          seed,
          ...tasks.slice(1).flatMap((task) => [task.seed, task.seed]),
          seed + runs,
        ]);
        expect(tasks.every((task) => task.runs >= 1 && task.frames === frames)).toBe(true);
      },
    ),
    FIXED,
  );
  const c = compile(world(ROOM, { glide: { speed: 3, arrive: "past" } }));
  const all = takeRandomWalks(c, { seed: 1, runs: 40, frames: 600 });
  expect(all.map(({ law }) => law).sort()).toEqual(["comes to overlap what blocks it", "rests off the grid"]);
  const parted = randomWalkTasks({ seed: 1, runs: 40, frames: 30_000 }).flatMap((task) =>
    takeRandomWalks(c, { ...task, frames: 600 }),
  );
  const shortest = shortestFindings(parted);
  expect(shortest.map(({ law }) => law)).toEqual(["comes to overlap what blocks it", "rests off the grid"]);
  for (const { law, frame } of all)
    expect(shortest.find((finding) => finding.law === law)!.frame).toBeLessThanOrEqual(frame);
  // What is known already is not looked for again.
  expect(
    takeRandomWalks(
      c,
      { seed: 1, runs: 40, frames: 600 },
      new Set(["rests off the grid", "comes to overlap what blocks it"]),
    ),
  ).toEqual([]);
});

it("of what several threads found, the shortest log of each law is kept, of equals the one of the smaller seed", () => {
  const found = (law: string, seed: number, frame: number): RandomWalkFinding =>
    ({ law, seed, frame, foundAt: frame }) as RandomWalkFinding;
  const all = [
    found("b", 4, 9),
    found("b", 3, 9),
    found("b", 5, 9),
    found("a", 2, 30),
    found("b", 1, 12),
    found("a", 6, 8),
  ];
  expect(shortestFindings(all).map(({ law, seed }) => [law, seed])).toEqual([
    ["a", 6],
    ["b", 3],
  ]);
});
