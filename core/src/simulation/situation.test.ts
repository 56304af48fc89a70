import fc from "fast-check";
import { expect, it } from "vitest";
import type { Compiled } from "../compiled/compiled.ts";
import { sameSituation, situationHash } from "../compiled/situation.ts";
import { SimState } from "../compiled/state.ts";
import { anyHouseWithActors } from "../test-support/any-actors.ts";
import { anyHouse } from "../test-support/any-house.ts";
import { FIXED } from "../test-support/arbitraries.ts";
import { tinyWorld } from "../test-support/tiny-world.ts";
import { told } from "../test-support/told.ts";
import { PLAYING } from "../world/vocabulary.ts";
import type { World } from "../world/world.ts";
import { compile } from "./compile.ts";
import { startState } from "./start-state.ts";
import { step } from "./step.ts";

/** Presses these buttons, one entry a frame, for as long as the run goes on. */
function pressed(c: Compiled, s: SimState, keys: readonly number[]): SimState {
  for (const held of keys) if (s.status === PLAYING) step(c, s, held, null);
  return s;
}

/** What a row says, of two runs that may have different frame numbers. */
const row = (s: SimState): readonly unknown[] => [
  s.room,
  s.x,
  s.y,
  s.facing,
  s.pose,
  s.status,
  s.moving,
  s.bumping,
  ...s.eventKinds.subarray(0, s.eventCount),
  ...s.memory.bag,
];

const anyKeys = fc
  .array(fc.tuple(fc.nat(63), fc.integer({ min: 1, max: 20 })), { maxLength: 12 })
  .map((runs) => runs.flatMap(([keys, frames]) => Array<number>(frames).fill(keys)));

it("from the same situation runs go on equally, however they came there; the hash is the same", () => {
  const seen = { equal: 0, later: 0, apart: 0 };
  fc.assert(
    fc.property(anyHouse, anyKeys, anyKeys, anyKeys, (world, one, other, after) => {
      const c = compile(world);
      // The same walk after some frames of another one, and of standing about, may come to the same again.
      for (const before of [other, [...one, ...Array<number>(90).fill(0)], [...one, ...one]]) {
        const a = pressed(c, startState(c), one);
        const b = pressed(c, startState(c), before);
        if (!sameSituation(c, a, b)) {
          seen.apart++;
          continue;
        }
        expect(situationHash(c, a)).toBe(situationHash(c, b));
        seen.equal++;
        if (a.frame !== b.frame) seen.later++;
        for (const held of after) {
          if (a.status !== PLAYING) break;
          expect(row(pressed(c, a, [held]))).toEqual(row(pressed(c, b, [held])));
        }
      }
    }),
    { ...FIXED, numRuns: 300 },
  );
  told("situations", seen);
  expect(Math.min(seen.equal, seen.later, seen.apart)).toBeGreaterThan(20);
});

/** A hall in which nothing is met, so that keys alone make the difference. */
const hall = (options: Parameters<typeof tinyWorld>[1]): World =>
  tinyWorld(["..........", "....S.....", ".........."], options);

it.each([
  ["standing about", hall({}), [0], Array<number>(500).fill(0)],
  [
    "hop that repeats",
    hall({ gait: "hop", hop: { repeatAfter: 7, repeatEvery: 3 } }),
    Array<number>(8).fill(8),
    Array<number>(8 + 3 * 50).fill(8),
  ],
  [
    "hop that repeats no more",
    hall({ gait: "hop", hop: { repeatAfter: 7, repeatEvery: 0 } }),
    Array<number>(20).fill(8),
    Array<number>(300).fill(8),
  ],
  [
    "a press that was remembered in vain",
    hall({ glide: { bufferFrames: 3 } }),
    [0],
    [...Array<number>(2).fill(1), 0, 2, ...Array<number>(60).fill(0), 2, 2, 1, ...Array<number>(300).fill(0)],
  ],
  [
    "one key held while others come and go",
    hall({ input: { opposites: "latest" } }),
    [...Array<number>(200).fill(1)],
    [...Array.from({ length: 40 }, (_, i) => (i % 2 === 0 ? 1 : 3)), ...Array<number>(200).fill(1)],
  ],
])("time leaves no trace: %s", (_, world, early, late) => {
  const c = compile(world);
  const a = pressed(c, startState(c), early);
  const b = pressed(c, startState(c), late);
  // Where they stand is not the question here.
  for (const s of [a, b]) Object.assign(s, { room: 0, x: 0, y: 0, facing: 0 });
  expect(sameSituation(c, a, b)).toBe(true);
  expect(situationHash(c, a)).toBe(situationHash(c, b));
});

it("each thing that is carried makes another situation, and another hash", () => {
  const c = compile(hall({ pose: { idleAfter: 9 } }));
  const numbers = [
    "room",
    "x",
    "y",
    "status",
    "held",
    "legX",
    "legY",
    "legProgress",
    "bufferedButton",
    "bufferedAge",
    "keepX",
    "keepY",
    "repeatAge",
    "vx",
    "vy",
    "facing",
    "pose",
    "poseCounter",
    "stillFrames",
  ] as const;
  const plain = startState(c);
  for (const name of numbers) {
    const other = startState(c);
    other[name] += 1;
    expect({
      name,
      same: sameSituation(c, plain, other),
      hash: situationHash(c, plain) === situationHash(c, other),
    }).toEqual({ name, same: false, hash: false });
    const copy = new SimState(c);
    copy.copyCarried(other);
    expect({ name, same: sameSituation(c, copy, other) }).toEqual({ name, same: true });
  }
});

/** One thing each that a run goes on by; a run of a house with whatever a house can have has all of them. */
const DIFFERENCES: readonly (readonly [string, (s: SimState) => void])[] = [
  ["x", (s) => s.x++],
  ["y", (s) => s.y--],
  ["room", (s) => s.room++],
  ["status", (s) => (s.status = 1)],
  ["held keys", (s) => (s.held ^= 4)],
  ["leg across", (s) => s.legX++],
  ["leg down", (s) => s.legY++],
  ["progress", (s) => s.legProgress++],
  ["direction kept across", (s) => s.keepX++],
  ["direction kept down", (s) => s.keepY++],
  ["buffered button", (s) => s.bufferedButton++],
  ["its age", (s) => s.bufferedAge++],
  ["age of a repeat", (s) => s.repeatAge++],
  ["bumping", (s) => (s.bumping = !s.bumping)],
  ["velocity across", (s) => s.vx++],
  ["velocity down", (s) => s.vy++],
  ["facing", (s) => s.facing++],
  ["pose", (s) => s.pose++],
  ["its counter", (s) => s.poseCounter++],
  ["order of the last button", (s) => s.pressRank[3]!++],
  ["checkpoint", (s) => s.memory.checkpoint++],
  ["lives", (s) => s.memory.lives++],
  ["room to begin in", (s) => s.memory.startRoom++],
  ["place to begin at across", (s) => s.memory.startX++],
  ["place to begin at down", (s) => s.memory.startY++],
  ["what is pushed", (s) => (s.memory.pushed[s.memory.pushedCount++] = 1)],
  ["last item of the bag", (s) => s.memory.bag[s.memory.bag.length - 1]!++],
  ["first flag", (s) => (s.memory.flags[0]! ^= 1)],
  ["last flag", (s) => (s.memory.flags[s.memory.flags.length - 1]! ^= 1)],
  ["last number of an actor", (s) => s.memory.actors!.numbers[s.memory.actors!.numbers.length - 1]!++],
  ["last actor that is met", (s) => (s.memory.actors!.met[s.memory.actors!.met.length - 1]! ^= 1)],
  ["seed", (s) => s.seed++],
  ["what a death gives back of the bag", (s) => s.memory.held!.bag[0]!++],
  ["what it gives back of the flags", (s) => (s.memory.held!.flags[s.memory.held!.flags.length - 1]! ^= 1)],
  ["where it puts the actors", (s) => s.memory.held!.actors[s.memory.held!.actors.length - 1]!++],
];

it.each(DIFFERENCES)("a state with another %s is another situation", (_what, change) => {
  const [house] = fc.sample(
    anyHouseWithActors.filter(({ rooms }) => rooms.some(({ fixtures }) => fixtures.length > 1)),
    { seed: 4, numRuns: 1 },
  );
  const c = compile({ ...house!, lives: 3, respawnRestores: "checkpoint" });
  const [a, b] = [pressed(c, startState(c), [1, 1, 0]), pressed(c, startState(c), [1, 1, 0])];
  expect(sameSituation(c, a, b)).toBe(true);
  change(b);
  expect([sameSituation(c, a, b), sameSituation(c, b, a)]).toEqual([false, false]);
});
