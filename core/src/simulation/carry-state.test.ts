import fc from "fast-check";
import { expect, it } from "vitest";
import { anyFullLogOf } from "../test-support/any-full-log.ts";
import { anyHouse } from "../test-support/any-house.ts";
import { FIXED, anyLog } from "../test-support/arbitraries.ts";
import { tinyLog, tinyWorld } from "../test-support/tiny-world.ts";
import { carriedState } from "./carry-state.ts";
import { compile } from "./compile.ts";
import { stateAt } from "../replay/run.ts";
import { PLAYING } from "../world/vocabulary.ts";
import { SimState } from "../compiled/state.ts";
import { step } from "./step.ts";
import { same } from "../test-support/same.ts";

/** All that a state says of a frame, events included. */
function told(s: SimState): unknown {
  const { eventKinds, eventSubjects, pressRank, ground: _ground, memory, ...numbers } = s;
  const { taken, open, on, bag, touched, passed, lives, checkpoint } = memory;
  return {
    ...numbers,
    events: [...eventKinds.subarray(0, s.eventCount)],
    subjects: [...eventSubjects.subarray(0, s.eventCount)],
    ranks: [...pressRank],
    memory: [taken, open, on, bag, touched, passed].map((list) => [...list]),
    lives,
    checkpoint,
  };
}

it("a state copied in any frame goes on as the one that it was copied from, events included, and leaves that one alone", () => {
  let went = 0;
  fc.assert(
    fc.property(
      anyHouse.chain((world) =>
        fc.tuple(
          fc.constant(world),
          anyFullLogOf(world),
          fc.nat(80),
          fc.array(fc.nat(63), { minLength: 4, maxLength: 40 }),
        ),
      ),
      ([world, log, frame, keys]) => {
        const c = compile(world);
        const one = stateAt(c, log, frame);
        const copy = new SimState(c);
        // Whatever it was before.
        copy.copyFrom(stateAt(c, log, frame + 7));
        copy.copyFrom(one);
        same(told(copy), told(one));
        const before = told(one);
        const rows: unknown[] = [];
        for (const held of keys) {
          if (copy.status !== PLAYING) break;
          step(c, copy, held, null);
          rows.push(told(copy));
          went++;
        }
        same(told(one), before);
        for (const [i, row] of rows.entries()) {
          step(c, one, keys[i]!, null);
          same(told(one), row);
        }
      },
    ),
    { ...FIXED, numRuns: 120 },
  );
  expect(went).toBeGreaterThan(1000);
});

it("a state that is taken over into the same world, compiled anew, goes on as it would have, events included", () => {
  let went = 0;
  fc.assert(
    fc.property(anyHouse, anyLog, fc.nat(60), (world, log, frame) => {
      const [c, again] = [compile(world), compile(structuredClone(world))];
      const one = stateAt(c, log, frame);
      const other = carriedState(again, c, one)!;
      same(told(other), told(one));
      const keys = log.lines.flatMap((line) => (line.kind === "keys" ? Array<number>(line.count).fill(line.keys) : []));
      for (let i = one.frame; i < keys.length && one.status === PLAYING; i++, went++) {
        step(c, one, keys[i]!, null);
        step(again, other, keys[i]!, null);
        same(told(other), told(one));
      }
    }),
    { ...FIXED, numRuns: 150 },
  );
  expect(went).toBeGreaterThan(2000);
});

it("where what is remembered is another thing there is nothing to take over", () => {
  const world = tinyWorld(["S...", "...."]);
  const c = compile(world);
  const state = stateAt(c, tinyLog("3 R"), 3);
  const [room] = world.rooms;
  const lamp = { id: "lamp", kind: "checkpoint", cell: [1, 1], touch: "cell", keeps: "run" } as const;
  for (const other of [
    { ...world, lives: 3 },
    { ...world, circuits: ["pump"] },
    { ...world, items: [{ id: "key", name: "Key", role: "key", colour: "#c89b3c" } as const] },
    { ...world, rooms: [{ ...room!, fixtures: [lamp] }] },
    { ...world, rooms: [{ ...room!, width: 2, height: 4 }] },
    { ...world, rooms: [room!, { ...room!, id: "b" }] },
  ])
    expect(carriedState(compile(other), c, state)).toBeNull();
  const painted = {
    ...world,
    rooms: [{ ...room!, cells: room!.cells.map(() => 1) }],
    rules: world.rules.map((rules) => ({ ...rules, glide: { ...rules.glide, speed: 5 } })),
  };
  expect(carriedState(compile(painted), c, state)).toMatchObject({
    x: state.x,
    y: state.y,
    legProgress: state.legProgress,
  });
});
