import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { Compiled } from "../../compiled/compiled.ts";
import { EMPTY_LOG } from "../../logs/input-log.ts";
import { run } from "../../replay/run.ts";
import { compile } from "../../simulation/compile.ts";
import { startState } from "../../simulation/start-state.ts";
import { traceText } from "../../simulation/trace.ts";
import { step } from "../../simulation/step.ts";
import { anyCornersWithThings } from "../../test-support/any-corners.ts";
import { anyHouse } from "../../test-support/any-house.ts";
import { FIXED, anyBody } from "../../test-support/arbitraries.ts";
import { EFFORT } from "../../test-support/effort.ts";
import { told } from "../../test-support/told.ts";
import { PORTAL_TAKEN, RESPAWN } from "../../world/vocabulary.ts";
import type { World } from "../../world/world.ts";
import type { ReachAnswer } from "./answer.ts";
import { NEVER, UNDECIDED } from "./answer.ts";
import type { Origin } from "./grid-search.ts";
import { isDoing } from "./doings.ts";
import { GridSearch } from "./grid-search.ts";
import { LookBack } from "./lost-for-good.ts";
import { NearestStates } from "./nearest-states.ts";
import { Reach } from "./reach.ts";
import { columnOf, positionWord, roomOf, rowOf } from "./state-layout.ts";

/** Houses under rules that keep to the grid. */
const anyGridHouse = fc
  .record({
    house: anyHouse,
    body: anyBody,
    gait: fc.constantFrom("hop" as const, "glide" as const),
    goes: fc.boolean(),
    carry: fc.boolean(),
    speed: fc.constantFrom(8, 5),
  })
  .map(({ house, body, gait, goes, carry, speed }): World => {
    const rules = house.rules.map((each) => ({
      ...each,
      gait,
      walker: { ...each.walker, body },
      glide: { ...each.glide, speed, arrive: "land" as const, carry, keepGoing: goes && gait === "glide" },
    }));
    return { ...house, rules, lives: house.lives === null ? null : 2 };
  });

/** That the way to each cell which is called reached ends on it. */
function arrivesAtCells(world: World, reach: Reach, answer: ReachAnswer): void {
  const c = compile(world);
  answer.first.forEach((cells, room) => {
    const { width } = c.rooms[room]!;
    cells.forEach((n, cell) => {
      if (n < 0) return;
      const { ends, lines, moves } = reach.wayToCell(room, cell)!;
      const { rows } = run(c, { ...EMPTY_LOG, lines }, { rows: true });
      const last = rows!.count - 1;
      // Its last move ends with the way.
      expect([ends!.length, ends!.at(-1) ?? 0]).toEqual([moves, last]);
      const at = [rows!.room[last], rows!.x[last]! / c.tileUnits, rows!.y[last]! / c.tileUnits];
      expect(at).toEqual([room, cell % width, Math.floor(cell / width)]);
    });
  });
}

function searched(c: Compiled, limit: number, asks: boolean): GridSearch {
  const search = new GridSearch(c, startState(c), limit, asks);
  while (search.run(1000));
  return search;
}

/** A state as text. */
function stateAt(search: GridSearch, memory: number, place: number): string {
  const words = new Int32Array(search.layout.words);
  search.unpack(memory, place, words);
  return words.join(" ");
}

/** The states that were looked at one by one, with their moves. */
function pointsOf(search: GridSearch): [string, number][] {
  const { points, nodes } = search;
  return Array.from({ length: points.count }, (_, point) => {
    const memory = nodes.memoryOf[points.nodeOf[point]!]!;
    return [stateAt(search, memory, points.placeOf[point]!), points.moves[point]!];
  });
}

/** All states that were met. */
function statesOf(search: GridSearch): string[] {
  const { nodes, points, places, walks } = search;
  const states = new Set<string>();
  for (let node = 0; node < nodes.count; node++) {
    const place = nodes.nearestPlace[node]!;
    const region = points.nodeOf[0] === node || place >= places.cells ? 0 : (walks?.numberOf(place) ?? 0);
    // Who stands in a plain cell with something still touched is a node alone.
    const whole = region > 0 && nodes.sizeOf[node]! >= walks!.of(region).cells.length - 1;
    for (const cell of whole ? walks!.of(region).cells : [place])
      states.add(stateAt(search, nodes.memoryOf[node]!, cell));
  }
  expect(states.size).toBe(search.states);
  return [...states].sort();
}

/** What a search comes to. */
function whatIsKnown(search: GridSearch) {
  const { complete, states, origins, goal, points, nodes, places, c } = search;
  const back = new LookBack(search);
  const movesOf = (origin: Origin | null): number => (origin === null ? -1 : points.moves[origin.point]! + 1);
  const movesTo = (node: number): number => search.actionsBy(nodes.parents[node]!, nodes.actions[node]!).length;
  const stuck = back.stuck();
  const nearest = new NearestStates(search);
  for (let place = 0; place < places.cells; place++)
    if (nearest.moves[place]! >= 0) expect(nearest.actionsTo(place).length).toBe(nearest.moves[place]);
  return {
    complete,
    states,
    nearest: nearest.moves.slice(0, places.cells),
    origins: origins.map(movesOf),
    goal: movesOf(goal),
    stuck: stuck.states,
    // Of classes equally near either may come first.
    classes: new Set(stuck.classes.map(({ node, ...named }) => ({ ...named, moves: movesTo(node) }))),
    losable: back
      .losable()
      .map(({ fixture, node }) => ({ fixture: c.fixtures.all[fixture]!.id, moves: movesTo(node) })),
  };
}

describe("the search of all play on the grid", () => {
  it("finds the same where the simulation is asked for every step", () => {
    const seen = { plain: 0, states: 0 };
    fc.assert(
      fc.property(anyGridHouse, (world) => {
        const c = compile(world);
        const [quick, slow] = [false, true].map((asks) => searched(c, 3000, asks)) as [GridSearch, GridSearch];
        if (!slow.complete) return;
        expect(whatIsKnown(quick)).toEqual(whatIsKnown(slow));
        const moves = new Map(pointsOf(slow));
        // Row 0 is looked at by itself, and once more as a cell of its region.
        const start = pointsOf(slow)[0]![0];
        for (const [state, n] of pointsOf(quick))
          if (state !== start) expect([state, n]).toEqual([state, moves.get(state)]);
        expect(statesOf(quick)).toEqual([...moves.keys()].sort());
        seen.states += slow.states;
        if (slow.states > 200) seen.plain++;
      }),
      { ...FIXED, numRuns: 60 * EFFORT },
    );
    told("searches of more than 200 states", seen);
    expect(seen.plain).toBeGreaterThan(10);
  });

  it("finds the same over corners where sides lead anywhere", () => {
    const seen = { states: 0, lost: 0 };
    fc.assert(
      fc.property(anyCornersWithThings, (world) => {
        const c = compile(world);
        const [quick, slow] = [false, true].map((asks) => searched(c, 1000, asks)) as [GridSearch, GridSearch];
        if (!slow.complete) return;
        // Which of many classes are told is left to their order.
        const [found, asked] = [quick, slow].map((search) => ({ ...whatIsKnown(search), classes: null }));
        expect(found).toEqual(asked);
        expect(statesOf(quick)).toEqual(statesOf(slow));
        seen.states += slow.states;
        if (asked!.losable.length > 0) seen.lost++;
      }),
      { ...FIXED, numRuns: 60 * EFFORT },
    );
    told("searches over corners", seen);
    expect(seen.states).toBeGreaterThan(2000);
    expect(seen.lost).toBeGreaterThan(3);
  });

  it("arrives by replay at all that it says can be reached, and random play comes to nothing that it calls never", () => {
    const seen = { arrived: 0, carried: 0, rested: 0 };
    fc.assert(
      fc.property(anyGridHouse, fc.array(fc.nat(63), { minLength: 40, maxLength: 40 }), (world, keys) => {
        const reach = new Reach(world, { limit: 4_000 });
        const answer = reach.answer();
        const c = compile(world);
        const carries = c.rules.gait === "glide" && c.rules.glide.keepGoing && c.rules.glide.carry;
        c.fixtures.all.forEach(({ id, blocks }, i) => {
          const way = reach.wayToFixture(i);
          expect([id, way === null]).toEqual([id, answer.fixtures[i]! < 0]);
          if (way === null) return;
          const { rows } = run(c, { ...EMPTY_LOG, lines: way.lines }, { rows: true });
          const did = [...traceText(c, rows!)].join("").includes(`:${id}`) || blocks;
          expect({ id, did }).toEqual({ id, did: true });
          seen[carries ? "carried" : "arrived"]++;
        });
        arrivesAtCells(world, reach, answer);
        if (!answer.exhaustive) return;
        // Who is put beside a portal or a hazard and steps onto it with the very next frame still counts as touching it: moves,
        // of which the search is made, let go in between.
        let moved = false;
        const s = startState(c);
        for (let i = 0; i < 2000 * EFFORT && s.status === 0; i++) {
          step(c, s, moved ? 0 : keys[(i >> 2) % keys.length]!, null);
          moved = false;
          for (let e = 0; e < s.eventCount; e++)
            moved ||= s.eventKinds[e] === PORTAL_TAKEN || s.eventKinds[e] === RESPAWN;
          for (let e = 0; e < s.eventCount; e++)
            if (isDoing(s.eventKinds[e]!) && answer.fixtures[s.eventSubjects[e]!] === NEVER)
              expect.fail(`frame ${i} comes to ${c.fixtures.all[s.eventSubjects[e]!]!.id}, which is called never`);
          if (s.legX !== 0 || s.legY !== 0) continue;
          const [cx, cy] = [s.x / c.tileUnits, s.y / c.tileUnits];
          const { width, height } = c.rooms[s.room]!;
          if (cx < 0 || cy < 0 || cx >= width || cy >= height || s.status !== 0) continue;
          // Who is put where a portal or a hazard waits is moved on with the next frame: nobody stays there.
          const passes = world.rooms[s.room]!.fixtures.some(
            ({ kind, cell, touch }) =>
              (kind === "hazard" || kind === "portal") && (touch === "body" || (cell[0] === cx && cell[1] === cy)),
          );
          if (!passes) {
            if (answer.first[s.room]![cy * width + cx] === NEVER)
              expect.fail(`frame ${i} rests on ${cx},${cy}, which is called never`);
            seen.rested++;
          }
        }
      }),
      { ...FIXED, numRuns: 35 * EFFORT },
    );
    told("claims replayed", seen);
    expect(seen.arrived).toBeGreaterThan(100);
    expect(seen.carried).toBeGreaterThan(5);
  });
});

it("a world that is too large to be looked at whole is played: what is reached and what is never is what a whole look says", () => {
  const seen = { reached: 0, never: 0, open: 0 };
  fc.assert(
    fc.property(anyGridHouse, (world) => {
      const whole = new Reach(world, { limit: 8_000 }).answer();
      if (!whole.exhaustive || whole.states < 40) return;
      const reach = new Reach(world, { limit: 20 });
      const part = reach.answer();
      const agrees = (a: number, b: number): void => {
        if (a >= 0) seen.reached++;
        else if (a === NEVER) seen.never++;
        else seen.open++;
        if (a !== UNDECIDED) expect([a >= 0, a]).toEqual([b >= 0, a >= 0 ? Math.max(a, b) : b]);
      };
      part.fixtures.forEach((n, i) => agrees(n, whole.fixtures[i]!));
      part.first.forEach((cells, room) => cells.forEach((n, cell) => agrees(n, whole.first[room]![cell]!)));
      if (part.losable !== null) expect([part.losable, part.stuck?.states ?? 0]).toEqual([whole.losable, 0]);
      const c = compile(world);
      if (c.rules.glide.keepGoing && c.rules.glide.carry) return;
      const room = 0;
      const cell = part.first[room]!.reduce((last, n, at) => (n >= 0 ? at : last), 0);
      const way = reach.wayToCell(room, cell)!;
      const { rows } = run(c, { ...EMPTY_LOG, lines: way.lines }, { rows: true });
      const { width } = c.rooms[room]!;
      const last = rows!.count - 1;
      expect([way.moves, rows!.room[last], rows!.x[last], rows!.y[last]]).toEqual([
        part.first[room]![cell],
        room,
        (cell % width) * c.tileUnits,
        Math.floor(cell / width) * c.tileUnits,
      ]);
    }),
    { ...FIXED, numRuns: 60 },
  );
  told("cells and fixtures", seen);
  expect(Math.min(seen.reached, seen.never)).toBeGreaterThan(200);
});

it("a place is packed into one word and read again, also beyond the sides", () => {
  fc.assert(
    fc.property(
      fc.nat(255),
      fc.integer({ min: -600, max: 1100 }),
      fc.integer({ min: -600, max: 1100 }),
      (room, x, y) => {
        const word = new Int32Array([0]);
        word[0] = positionWord(room, x, y);
        expect([roomOf(word[0]), columnOf(word[0]), rowOf(word[0])]).toEqual([room, x, y]);
      },
    ),
    FIXED,
  );
});
