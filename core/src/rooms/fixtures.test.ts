import type { Fixture } from "../world/fixtures.ts";
import fc from "fast-check";
import { expect, it } from "vitest";
import { isFree } from "../ground/free.ts";
import type { InputLog } from "../logs/input-log.ts";
import { compile } from "../simulation/compile.ts";
import type { Compiled } from "../compiled/compiled.ts";
import { withLinesOf } from "../simulation/with-lines.ts";
import { explain, rememberedIn } from "../simulation/explain.ts";
import { run, stateAt } from "../replay/run.ts";
import { startState } from "../simulation/start-state.ts";
import type { SimState } from "../compiled/state.ts";
import { CLOSE, ENTER, EVENT_NAMES, LEAVE, PORTAL_TAKEN, RESPAWN, WRAPPED } from "../world/vocabulary.ts";
import { step } from "../simulation/step.ts";
import { traceText } from "../simulation/trace.ts";
import { anyHouse } from "../test-support/any-house.ts";
import { FIXED, anyLog } from "../test-support/arbitraries.ts";
import { told } from "../test-support/told.ts";
import { tinyLog, tinyWorld } from "../test-support/tiny-world.ts";
import type { World } from "../world/world.ts";
import { same } from "../test-support/same.ts";

/** Presses `A` now and then too. */
const anyKeys = anyLog.map((log) => ({
  ...log,
  lines: log.lines.map((line, i) => (line.kind === "keys" && i % 3 === 0 ? { ...line, keys: line.keys | 16 } : line)),
}));

function* frames(c: Compiled, log: InputLog): Generator<SimState> {
  const s = startState(c);
  for (const line of log.lines) {
    if (line.kind !== "keys") continue;
    for (let n = 0; n < line.count && s.status === 0; n++) {
      step(c, s, line.keys, null);
      yield s;
    }
  }
}

const happened = (s: SimState, kind: number): boolean => s.eventKinds.subarray(0, s.eventCount).includes(kind);
const textOf = (c: Compiled, log: InputLog): string => [...traceText(c, run(c, log, { rows: true }).rows!)].join("");

it("nobody is newly inside what blocks, but where a door closed or a portal, a respawn or a seam put the walker", () => {
  const seen = { opened: 0, closed: 0, crossed: 0, hurt: 0, taken: 0 };
  fc.assert(
    fc.property(anyHouse, anyKeys, (world, log) => {
      const rules = world.rules[0]!;
      const c = compile({
        ...world,
        rules: [
          {
            ...rules,
            glide: { ...rules.glide, arrive: "land", cutCorners: false },
            roam: { ...rules.roam, response: "contact" },
            drift: { ...rules.drift, response: "contact" },
          },
        ],
      });
      const start = startState(c);
      let wasFree = isFree(start.ground, start.room, start.x, start.y);
      // A leg was tested when it began: what changed since counts until it ends.
      let disturbed = false;
      for (const s of frames(c, log)) {
        const free = isFree(s.ground, s.room, s.x, s.y);
        disturbed ||= [CLOSE, PORTAL_TAKEN, RESPAWN, ENTER, WRAPPED].some((kind) => happened(s, kind));
        if (wasFree && !free && !disturbed) throw new Error(`newly inside at frame ${s.frame}`);
        wasFree = free;
        if (s.legX === 0 && s.legY === 0) disturbed = false;
        if (happened(s, EVENT_NAMES.indexOf("open"))) seen.opened++;
        if (happened(s, CLOSE)) seen.closed++;
        if (happened(s, ENTER)) seen.crossed++;
        if (happened(s, EVENT_NAMES.indexOf("hurt"))) seen.hurt++;
        if (happened(s, EVENT_NAMES.indexOf("take"))) seen.taken++;
      }
    }),
    { ...FIXED, numRuns: 420 },
  );
  told("houses, frames", seen);
  expect(Math.min(...Object.values(seen))).toBeGreaterThan(20);
});

it("only what keeps for a visit or a life comes back, and only on leaving or respawning", () => {
  const seen = { left: 0, died: 0, back: 0 };
  fc.assert(
    fc.property(anyHouse, anyKeys, (world, log) => {
      const c = compile({ ...world, respawnRestores: "keeps" });
      const { all } = c.fixtures;
      const before = { taken: new Uint8Array(all.length), open: new Uint8Array(all.length) };
      for (const s of frames(c, log)) {
        // A frame may leave several rooms: by a seam, then by a portal or a respawn.
        const leaves = new Set(
          [...s.eventKinds.subarray(0, s.eventCount)].flatMap((kind, i) =>
            kind === LEAVE ? [s.eventSubjects[i]!] : [],
          ),
        );
        const left = leaves.size > 0;
        const died = happened(s, RESPAWN);
        all.forEach(({ kind, keeps, lock, room }, i) => {
          const takenBack = before.taken[i] === 1 && s.memory.taken[i] === 0;
          const closed =
            kind === 1 && lock <= 1 && before.open[i] === 1 && s.memory.open[i] === 0 && !happened(s, CLOSE);
          if (!takenBack && !closed) return;
          seen.back++;
          expect({ keeps, room, leaves: [...leaves], died }).toSatisfy(
            () => (keeps === 1 && leaves.has(room)) || (keeps === 2 && died),
          );
        });
        if (left) seen.left++;
        if (died) seen.died++;
        before.taken.set(s.memory.taken);
        before.open.set(s.memory.open);
      }
    }),
    { ...FIXED, numRuns: 900 },
  );
  told("returns", seen);
  expect(Math.min(...Object.values(seen))).toBeGreaterThan(20);
});

it("the order in the file is the only order: other names change nothing but the names", () => {
  fc.assert(
    fc.property(anyHouse, anyKeys, (world, log) => {
      const other = (id: string): string => `z${100 - id.charCodeAt(0)}-${9 - Number(id.slice(2))}`;
      const { goal } = world;
      const renamed: World = {
        ...world,
        goal: goal?.kind === "marker" ? { ...goal, fixture: other(goal.fixture) } : goal,
        rooms: world.rooms.map((room) => ({
          ...room,
          fixtures: room.fixtures.map((fixture): Fixture => ({ ...fixture, id: other(fixture.id) })),
        })),
      };
      expect(textOf(compile(renamed), log)).toBe(
        textOf(compile(world), log).replaceAll(/:([abc]-\d)/g, (_, id: string) => `:${other(id)}`),
      );
    }),
    FIXED,
  );
});

it("explaining frames of a house moves the walker just as stepping does; the state in the middle is that of the run", () => {
  fc.assert(
    fc.property(anyHouse, anyKeys, fc.integer({ min: 1, max: 60 }), (world, log, frame) => {
      const c = compile(world);
      const explained = startState(c);
      let last: SimState | null = null;
      for (const s of frames(c, log)) {
        const account = explain(c, explained, s.held);
        same(
          [
            explained.room,
            explained.x,
            explained.y,
            explained.status,
            explained.eventCount,
            [...explained.memory.bag],
            [...explained.memory.open],
          ],
          [s.room, s.x, s.y, s.status, s.eventCount, [...s.memory.bag], [...s.memory.open]],
        );
        expect(account.room).toBe(s.room);
        last = s;
        if (s.frame === frame) break;
      }
      if (last === null || last.frame !== frame) return;
      const state = stateAt(c, log, frame);
      // A log that sets up what is remembered begins with it.
      const remembered = rememberedIn(c, state);
      const setUp = startState(c, undefined, withLinesOf(world, remembered));
      same({ ...rememberedIn(c, setUp), lives: null }, { ...remembered, lives: null });
      const copy = startState(c);
      copy.copyFrom(state);
      same(
        [state.x, state.y, [...state.memory.taken], [...state.memory.on]],
        [last.x, last.y, [...last.memory.taken], [...last.memory.on]],
      );
      step(c, state, 2, null);
      step(c, copy, 2, null);
      same([copy.x, copy.y, [...copy.memory.open]], [state.x, state.y, [...state.memory.open]]);
    }),
    FIXED,
  );
});

it("a link walked there and back returns to the same unit", () => {
  let crossed = 0;
  fc.assert(
    fc.property(
      fc.integer({ min: -2, max: 2 }),
      fc.integer({ min: 1, max: 5 * 256 }),
      fc.integer({ min: 10, max: 60 }),
      (offset, speed, count) => {
        const base = tinyWorld(["......", "......", "S.....", "......", "......"], {
          gait: "roam",
          roam: { speedX: speed / 256 },
        });
        const room = base.rooms[0]!;
        const there = {
          ...room,
          id: "b",
          edges: { ...room.edges, west: { kind: "link", room: "a", offset: -offset } },
        } as const;
        const here = { ...room, edges: { ...room.edges, east: { kind: "link", room: "b", offset } } } as const;
        const c = compile({ ...base, rooms: [here, there] });
        const { rows } = run(c, tinyLog(`${count} R,${count} L`), { rows: true });
        const turned = rows!.x[count]!;
        // Against the far wall the way back is longer than what was walked.
        if (rows!.room[count] === 1 && turned === 5 * 4096) return;
        if (rows!.room[count] === 1) crossed++;
        same([rows!.room.at(-1), rows!.x.at(-1), rows!.y.at(-1)], [0, 0, 2 * 4096]);
      },
    ),
    FIXED,
  );
  told("links there and back", { crossed });
  expect(crossed).toBeGreaterThan(20);
});
