import { readFileSync } from "node:fs";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { readWorld } from "../formats/read-world.ts";
import { STRICT } from "../formats/schema-parts.ts";
import { partSchema } from "../formats/world-schema.ts";
import { writeWorld } from "../formats/write-world.ts";
import { FIXED } from "../test-support/arbitraries.ts";
import { emptyWorld } from "../world/empty-world.ts";
import { tinyWorld } from "../test-support/tiny-world.ts";
import { apply, applyAll } from "./apply.ts";
import { differences } from "./differences.ts";
import { EMPTY_HISTORY, close, record, redo, undo } from "./history.ts";
import { merge } from "./merge.ts";
import type { Project } from "./project.ts";
import type { EditStep } from "./step.ts";
import { invert } from "./step.ts";
import { summary } from "./summary.ts";
import { same } from "../test-support/same.ts";

const LOG = "keen-pebble-inputs 1\n---\n1 .\n";
const empty: Project = { world: tinyWorld(["S...", "....", "..#."]), logs: new Map() };

/** A step that fits the project, by a few random numbers. */
function fittingStep(project: Project, [kind, a, b]: readonly [number, number, number]): EditStep {
  const room = project.world.rooms[0]!;
  const speed = project.world.rules[0]!.glide.speed;
  const log = `log-${a % 3}`;
  if (kind === 0) {
    const cells = [...new Set([a % 12, b % 12])];
    return {
      kind: "set-cells",
      room: "a",
      cells,
      before: cells.map((cell) => room.cells[cell]!),
      after: cells.map((_, i) => (a + i) % 4),
    };
  }
  if (kind === 1)
    return { kind: "change-rules", rules: "main", setting: "glide.speed", before: speed, after: 1 + (b % 16) };
  const text = project.logs.get(log);
  return text === undefined ? { kind: "add-log", log, text: LOG } : { kind: "remove-log", log, text };
}

const anyNumbers = fc.array(fc.tuple(fc.integer({ min: 0, max: 2 }), fc.nat(100), fc.nat(100)), {
  minLength: 1,
  maxLength: 12,
});

it("any row of edits is taken back by its inverses, and undo and redo walk the same way", () => {
  fc.assert(
    fc.property(anyNumbers, fc.array(fc.boolean(), { minLength: 12, maxLength: 12 }), (numbers, strokes) => {
      let project = empty;
      let history = EMPTY_HISTORY;
      const steps: EditStep[] = [];
      numbers.forEach((each, i) => {
        const step = fittingStep(project, each);
        steps.push(step);
        project = apply(project, step);
        if (!strokes[i]) history = close(history);
        history = record(history, step, strokes[i] ? "stroke" : null);
      });
      same(applyAll(project, [...steps].reverse().map(invert)), empty);
      let back = project;
      for (let moved = undo(history); moved; moved = undo(history)) {
        back = applyAll(back, moved.steps);
        history = moved.history;
      }
      same(back, empty);
      for (let moved = redo(history); moved; moved = redo(history)) {
        back = applyAll(back, moved.steps);
        history = moved.history;
      }
      same(back, project);
    }),
    FIXED,
  );
});

it("a stroke that comes to nothing leaves nothing to undo", () => {
  const step: EditStep = { kind: "set-cells", room: "a", cells: [3], before: [0], after: [1] };
  expect(record(record(EMPTY_HISTORY, step, "stroke"), invert(step), "stroke").done).toEqual([]);
});

it("two merged steps do what both do", () => {
  fc.assert(
    fc.property(anyNumbers, (numbers) => {
      let project = empty;
      for (const each of numbers) {
        const first = fittingStep(project, each);
        const between = apply(project, first);
        const second = fittingStep(between, [each[0], each[2], each[1]]);
        const merged = merge(first, second);
        project = apply(between, second);
        if (merged !== null) same(apply(applyAll(project, [invert(second), invert(first)]), merged), project);
      }
    }),
    FIXED,
  );
});

const EVERYTHING = readWorld(readFileSync(new URL("../test-support/everything.world.json", import.meta.url), "utf8"));

/** The world with some of its parts changed, as somebody may have done in a text editor. */
const anyChanged = fc
  .tuple(fc.array(fc.tuple(fc.nat(13), fc.nat(60)), { minLength: 1, maxLength: 8 }))
  .map(([changes]) => {
    const world = JSON.parse(writeWorld(EVERYTHING)) as {
      name: string;
      tileSize: number;
      laws: string[];
      start: { cell: number[] };
      tiles: { id: string }[];
      items: { id: string; colour: string }[];
      rules: { id: string; name: string; glide: { speed: number } }[];
      rooms: { id: string; name: string; width: number; height: number; plan: number[]; cells: number[] }[];
    };
    const hall = world.rooms[0]!;
    for (const [kind, n] of changes) {
      if (kind === 0) world.name = `World ${n}`;
      if (kind === 1) world.laws = ["never outside", "always aligned"].slice(n % 3);
      if (kind === 2) world.tiles.push({ ...world.tiles[1]!, id: `tile-${world.tiles.length}` });
      if (kind === 3) [world.tiles[1], world.tiles[2]] = [world.tiles[2]!, world.tiles[1]!];
      if (kind === 4) world.items[0]!.colour = `#0000${10 + (n % 80)}`;
      if (kind === 5) world.rules[0]!.glide.speed = 1 + (n % 16);
      if (kind === 6) world.rules.push({ ...world.rules[0]!, id: `rules-${world.rules.length}`, name: `Rules ${n}` });
      if (kind === 7) hall.cells[n % hall.cells.length] = n % world.tiles.length;
      if (kind === 8) hall.name = `Hall ${n}`;
      if (kind === 9) hall.plan = [n, -n];
      if (kind === 10)
        world.rooms.push({
          ...hall,
          id: `room-${world.rooms.length}`,
          cells: [...hall.cells],
          ...{ edges: {}, fixtures: [], actors: [] },
        });
      if (kind === 11) world.rooms.reverse();
      if (kind === 12 && hall.cells.length === hall.width * hall.height)
        Object.assign(hall, { height: hall.height + 1, cells: [...hall.cells, ...hall.cells.slice(0, hall.width)] });
      if (kind === 13) world.rules[0]!.name = `Main ${n}`;
    }
    return readWorld(JSON.stringify(world));
  });

it("the differences of two worlds turn one into the other, over JSON too, and back again", () => {
  const kinds = new Set<string>();
  fc.assert(
    fc.property(
      anyChanged,
      anyChanged,
      fc.array(fc.constantFrom("a", "b", "c")),
      fc.array(fc.constantFrom("b", "c", "d")),
      (one, other, logs, otherLogs) => {
        const before = { world: one, logs: new Map(logs.map((log) => [log, LOG])) };
        const after = {
          world: other,
          logs: new Map(otherLogs.map((log) => [log, log === "b" ? LOG.replace("1 .", "2 R") : LOG])),
        };
        const steps = JSON.parse(JSON.stringify(differences(before, after))) as EditStep[];
        for (const step of steps) kinds.add(step.kind);
        same(applyAll(before, steps), after);
        same(applyAll(after, [...steps].reverse().map(invert)), before);
        same(differences(before, before), []);
        for (const step of steps)
          if (step.kind === "change-parts")
            for (const { part, after: value } of step.parts) same(partSchema(part)!.validate(value, STRICT), { value });
      },
    ),
    FIXED,
  );
  expect([...kinds].sort()).toEqual([
    "add-log",
    "change-log",
    "change-parts",
    "change-rules",
    "remove-log",
    "set-cells",
  ]);
});

describe("an edit that does not fit is refused whole", () => {
  const cells = (over: Partial<Extract<EditStep, { kind: "set-cells" }>>): EditStep => ({
    kind: "set-cells",
    room: "a",
    cells: [10],
    before: [1],
    after: [0],
    ...over,
  });
  it.each([
    [cells({ before: [2] }), "cell 2 2 of room a holds tile 1, not 2"],
    [cells({ cells: [0, 10], before: [0, 0], after: [1, 1] }), "cell 2 2 of room a holds tile 1, not 0"],
    [cells({ cells: [12] }), "room a has no cell number 12"],
    [cells({ after: [4] }), "there is no tile number 4"],
    [cells({ room: "b" }), "there is no room b"],
    [
      { kind: "change-rules", rules: "main", setting: "glide.speed", before: 2, after: 3 },
      "glide.speed of rules main is 1, not 2",
    ],
    [
      { kind: "change-rules", rules: "main", setting: "glide.speed", before: 1, after: 17 },
      "glide.speed of rules main must be px, at least 1/256 and at most 16",
    ],
    [
      { kind: "change-rules", rules: "main", setting: "glide.haste", before: 1, after: 2 },
      "there is no setting glide.haste",
    ],
    [{ kind: "add-log", log: "a", text: "hello" }, "log a is refused: line 1: header"],
    [{ kind: "add-log", log: "A", text: LOG }, "a log's id is 1 to 40"],
    [{ kind: "remove-log", log: "a", text: LOG }, "there is no log a"],
    [{ kind: "change-log", log: "a", before: LOG, after: LOG }, "there is no log a"],
    [
      { kind: "change-parts", parts: [{ part: "name", before: "Other", after: "B" }] },
      "name is not what it was when this was changed",
    ],
    [{ kind: "change-parts", parts: [{ part: "colour", before: null, after: "red" }] }, "there is no part colour"],
    [{ kind: "change-parts", parts: [{ part: "rooms/b/name", before: null, after: "B" }] }, "there is no room b"],
    [
      { kind: "change-parts", parts: [{ part: "activeRules", before: "main", after: "quick" }] },
      "activeRules: names rule set quick, which this world does not have",
    ],
    [
      { kind: "change-parts", parts: [{ part: "rooms", before: ["a"], after: ["a", "a"] }] },
      "the order of rooms does not name each of them once",
    ],
  ] as const)("%j", (step, message) => {
    expect(() => apply(empty, step)).toThrow(message);
    expect(empty.world.rooms[0]!.cells[10]).toBe(1);
  });
});

it("a tile that cells still have cannot be taken out by its part", () => {
  const world = tinyWorld(["S=.."]);
  const ledge = world.tiles.at(-1)!;
  const step = { kind: "change-parts", parts: [{ part: `tiles/${ledge.id}`, before: ledge, after: null }] } as const;
  expect(() => apply({ world, logs: new Map() }, step as unknown as EditStep)).toThrow(
    "must be a tile number from 0 to 2, found 3",
  );
});

it("two changes of one log are one; of two logs they stay two", () => {
  const change = (log: string, before: string, after: string) => ({ kind: "change-log", log, before, after }) as const;
  expect(merge(change("a", "1", "2"), change("a", "2", "3"))).toEqual(change("a", "1", "3"));
  expect(merge(change("a", "1", "2"), change("b", "2", "3"))).toBeNull();
});

it("a revision is told in the words of the job", () => {
  expect(
    summary(empty.world, [
      { kind: "change-rules", rules: "main", setting: "glide.speed", before: 2, after: 3 },
      { kind: "set-cells", room: "a", cells: [1], before: [0], after: [1] },
      { kind: "add-log", log: "round", text: LOG },
    ]),
  ).toBe("Main: speed 2 to 3; A: 1 cell; log round kept");
  const renamed = {
    ...empty.world,
    name: "Deeper",
    rooms: empty.world.rooms.map((room) => ({ ...room, plan: [3, 0] as const })),
  };
  const world = { ...renamed, tiles: [...renamed.tiles, { ...renamed.tiles[1]!, id: "slate", name: "Slate" }] };
  expect(summary(world, differences(empty, { ...empty, world }))).toBe(
    "name Tiny to Deeper; tile Slate added; A: plan",
  );
});

it("strokes over very many cells become one as those over few do", () => {
  const world = emptyWorld("wide", "Wide", 16, [120, 120]);
  const cells = 120 * 120;
  const anyStroke = fc.array(fc.nat(cells - 1), { minLength: 2200, maxLength: 2600 }).map((list) => [...new Set(list)]);
  fc.assert(
    fc.property(anyStroke, anyStroke, fc.constantFrom(0, 1, 2), (first, second, back) => {
      const start = { world, logs: new Map<string, string>() };
      const paint = (project: typeof start, at: readonly number[], tile: number): EditStep => ({
        kind: "set-cells",
        room: world.rooms[0]!.id,
        cells: at,
        before: at.map((cell) => project.world.rooms[0]!.cells[cell]!),
        after: at.map(() => tile),
      });
      const one = paint(start, first, 2);
      const middle = apply(start, one) as typeof start;
      const two = paint(middle, second, back);
      const merged = merge(one, two)!;
      same(apply(start, merged).world.rooms[0]!.cells, apply(middle, two).world.rooms[0]!.cells);
      // What comes out as it was is not in it.
      same(
        (merged as Extract<EditStep, { kind: "set-cells" }>).cells.every(
          (cell, i, all) => i === 0 || all[i - 1]! < cell,
        ),
        true,
      );
      same(applyAll(start, [merged, invert(merged)]).world.rooms[0]!.cells, world.rooms[0]!.cells);
    }),
    { ...FIXED, numRuns: 20 },
  );
});
