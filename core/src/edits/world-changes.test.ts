import { readFileSync } from "node:fs";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { applyAll } from "./apply.ts";
import { differences } from "./differences.ts";
import type { Project } from "./project.ts";
import { invert } from "./step.ts";
import { readWorld } from "../formats/read-world.ts";
import { worldFaults } from "../formats/world-faults.ts";
import { writeWorld } from "../formats/write-world.ts";
import type { WithLine } from "../simulation/run-start.ts";
import { EMPTY_LOG } from "../logs/input-log.ts";
import { readLog } from "../logs/read-log.ts";
import { compile } from "../simulation/compile.ts";
import { run } from "../replay/run.ts";
import { PLAIN_DRAFT } from "../formats/room-draft.ts";
import { logStartFault } from "../simulation/start-fault.ts";
import { anyHouse } from "../test-support/any-house.ts";
import { FIXED, anyLog, anyRows } from "../test-support/arbitraries.ts";
import { tinyLog, tinyWorld } from "../test-support/tiny-world.ts";
import { writeLog } from "../logs/write-log.ts";
import type { World } from "../world/world.ts";
import { roomById } from "../world/queries.ts";
import { flagUses, removeFlag, renameFlag, setFlag } from "./flags.ts";
import { removeFixtures } from "./fixtures.ts";
import { layRoomInto } from "./laid-room.ts";
import type { Followed } from "./references.ts";
import { addRoom, changeRoomId, copyRoom, removeRoom, renameRoom, resizeRoom } from "./rooms.ts";
import { logsThatCannotStart } from "./starting-logs.ts";
import { copyRuleSet, removeRuleSet, renameRuleSet, withRules } from "./rule-sets.ts";
import { FreeIds, copyTile, moveTile, removeTiles, tileUses } from "./tiles.ts";
import { same } from "../test-support/same.ts";

const everything = readWorld(readFileSync(new URL("../test-support/everything.world.json", import.meta.url), "utf8"));
const [hall, other] = everything.rooms as [(typeof everything.rooms)[0], (typeof everything.rooms)[0]];
const LOG = `keen-pebble-inputs 1
start ${hall.id} 1 1 down
check at 2 cell 1 1 in ${hall.id}
check ever room ${other.id}
check ever event enter ${hall.id}
check never cell 0 0 in ${other.id}
---
3 R until cell 2 1 in ${hall.id}
`;
const project: Project = { world: everything, logs: new Map([["walk", LOG]]) };

/** The edits that a change is made of lead there, and back, and to a world that is in order. */
function holdsAsEdits(before: Project, after: Project): void {
  const steps = differences(before, after);
  same(applyAll(before, steps), after);
  same(applyAll(after, [...steps].reverse().map(invert)), before);
  same(readWorld(writeWorld(after.world)), after.world);
  for (const text of after.logs.values()) readLog(text);
}

/** The tile id of every cell, room by room. */
const ground = (world: typeof everything): string[][] =>
  world.rooms.map((room) => [...room.cells].map((tile) => world.tiles[tile]!.id));

describe("tiles and flags", () => {
  it("copied, moved and removed leave every other cell with its tile, whatever the order", () => {
    fc.assert(
      fc.property(
        anyRows,
        fc.array(fc.tuple(fc.nat(2), fc.nat(9), fc.nat(9)), { minLength: 1, maxLength: 8 }),
        (rows, acts) => {
          const base = tinyWorld(rows);
          let world = base;
          for (const [kind, a, b] of acts) {
            const before = ground(world);
            const id = world.tiles[a % world.tiles.length]!.id;
            if (kind === 0) world = copyTile(world, id);
            if (kind === 1) world = moveTile(world, id, b);
            if (kind < 2) same(ground(world), before);
            else {
              const instead = world.tiles[b % world.tiles.length]!.id;
              const kept = id === "empty" ? world : removeTiles(world, [id], instead);
              same(
                ground(kept),
                before.map((cells) =>
                  cells.map((cell) => (cell === id && id !== "empty" ? (instead === id ? "empty" : instead) : cell)),
                ),
              );
              world = kept;
            }
            same(world.tiles[0]!.id, "empty");
            expect(tileUses(world).reduce((sum, n) => sum + n, 0)).toBe(world.rooms[0]!.cells.length);
          }
          holdsAsEdits({ world: base, logs: new Map() }, { world, logs: new Map() });
        },
      ),
      FIXED,
    );
  });

  it.each<[string, number, string]>([
    ["block", 3, "empty slope ledge block"],
    ["block", 2, "empty slope block ledge"],
    ["ledge", 1, "empty ledge block slope"],
    ["ledge", -5, "empty ledge block slope"],
    ["block", 99, "empty slope ledge block"],
    ["slope", 2, "empty block slope ledge"],
    ["empty", 2, "empty block slope ledge"],
  ])("%s moved to place %i makes it %s", (id, to, order) =>
    expect(
      moveTile(tinyWorld(["S"]), id, to)
        .tiles.map((tile) => tile.id)
        .join(" "),
    ).toBe(order),
  );

  it("a flag that is renamed or removed is so everywhere, and says what it touches", () => {
    const uses = flagUses(everything, tileUses(everything)).get("solid")!;
    expect(uses.tiles).toBe(everything.tiles.filter((tile) => tile.flags.includes("solid")).length);
    expect(uses.rules.length).toBeGreaterThan(0);
    const renamed = renameFlag(everything, "solid", "hard");
    expect(renameFlag(renamed, "hard", "solid")).toEqual(everything);
    expect(JSON.stringify(renamed)).not.toContain('"solid"');
    holdsAsEdits(project, { ...project, world: renamed });
    holdsAsEdits(project, { ...project, world: removeFlag(everything, "solid") });
    const ids = everything.tiles.map((tile) => tile.id);
    const all = setFlag(everything, ids, "solid", true);
    expect(all.tiles.map((tile) => tile.flags.includes("solid"))).toEqual(all.tiles.map((_, i) => i > 0));
    expect(setFlag(all, ids, "solid", false).tiles.some((tile) => tile.flags.includes("solid"))).toBe(false);
  });
});

describe("rooms", () => {
  it("are added and copied with ids of their own", () => {
    const more = copyRoom(addRoom(everything, "attic", "Attic", 5, 4), hall.id);
    holdsAsEdits(project, { ...project, world: more });
    expect(more.rooms.slice(2).map((room) => [room.id, room.width])).toEqual([
      ["attic", 5],
      [`${hall.id}-2`, hall.width],
    ]);
  });

  it("under another id are so in sides, portals, the start, laws and logs", () => {
    const { project: after, fellAway } = changeRoomId(project, hall.id, "cellar");
    expect(fellAway).toEqual([]);
    expect(JSON.stringify([writeWorld(after.world), [...after.logs]])).not.toContain(hall.id);
    holdsAsEdits(project, after);
    expect(changeRoomId(after, "cellar", hall.id).project).toEqual(project);
  });

  it("called otherwise keep their id, and nothing else changes", () => {
    const renamed = { ...project, world: renameRoom(everything, hall.id, "Cellar") };
    expect(differences(project, renamed)).toEqual([
      { kind: "change-parts", parts: [{ part: `rooms/${hall.id}/name`, before: hall.name, after: "Cellar" }] },
    ]);
  });

  it("that are removed take along what was about them, and say what", () => {
    const { project: after, fellAway } = removeRoom(project, other.id);
    expect(after.world.rooms.map((room) => room.id)).toEqual([hall.id]);
    expect(JSON.stringify([writeWorld(after.world), [...after.logs]])).not.toContain(`"${other.id}"`);
    expect(fellAway).toEqual(
      expect.arrayContaining([`walk: check ever room ${other.id}`, `walk: check never cell 0 0 in ${other.id}`]),
    );
    holdsAsEdits(project, after);
    expect(removeRoom(after, hall.id).project).toBe(after);
    // The start goes to the first cell of the first room that is left.
    const without = removeRoom(
      { world: { ...everything, start: { room: other.id, cell: [1, 1], facing: "left" } }, logs: new Map() },
      other.id,
    );
    expect([without.project.world.start, without.fellAway.includes("the start")]).toEqual([
      { room: hall.id, cell: [0, 0], facing: "left" },
      true,
    ]);
  });

  it("that are removed take along the start, the ends of lines and what was set up of logs, each said once", () => {
    const text = `keen-pebble-inputs 1\nstart ${other.id} 1 1 down\nwith holds brass-crank\ncheck end still\n---\n3 R until room ${other.id}\n2 L until room ${hall.id}\n1 D until cell 1 1 in ${other.id}\n`;
    const { project: after, fellAway } = removeRoom(
      { world: everything, logs: new Map([["walk", text.replace("with holds brass-crank\n", "")]]) },
      other.id,
    );
    expect(fellAway.filter((each) => each.startsWith("walk:"))).toEqual([
      "walk: the end of an until line",
      "walk: the end of an until line",
      "walk: its start, now the world's",
    ]);
    expect(after.logs.get("walk")).toBe(
      `keen-pebble-inputs 1\ncheck end still\n---\n3 R\n2 L until room ${hall.id}\n1 D\n`,
    );
  });

  it("that grow at any side keep every place, and shrink back to what they were", () => {
    const cells = fc.integer({ min: 0, max: 3 });
    fc.assert(
      fc.property(
        fc.record({ north: cells, east: cells, south: cells, west: cells }),
        fc.constantFrom(hall.id, other.id),
        (growth, id) => {
          const { project: after, fellAway } = resizeRoom(project, id, growth)!;
          same(fellAway, []);
          holdsAsEdits(project, after);
          const [small, large] = [roomById(everything, id)!, roomById(after.world, id)!];
          same(
            [large.width, large.height],
            [small.width + growth.west + growth.east, small.height + growth.north + growth.south],
          );
          for (const fixture of small.fixtures)
            same(large.fixtures.find((f) => f.id === fixture.id)!.cell, [
              fixture.cell[0] + growth.west,
              fixture.cell[1] + growth.north,
            ]);
          const back = resizeRoom(after, id, {
            north: -growth.north,
            east: -growth.east,
            south: -growth.south,
            west: -growth.west,
          })!;
          same(back.project, project);
        },
      ),
      FIXED,
    );
    expect(resizeRoom(project, hall.id, { north: 0, east: -hall.width, south: 0, west: 0 })).toBeNull();
    const cut = resizeRoom(project, hall.id, { north: 0, east: -1, south: 0, west: 1 - hall.width + 1 })!;
    expect(cut.fellAway.length).toBeGreaterThan(0);
    holdsAsEdits(project, cut.project);
  });

  it("a walk goes the same way in a room that has grown round it", () => {
    fc.assert(
      fc.property(
        anyRows,
        anyLog,
        fc.integer({ min: 1, max: 3 }),
        fc.integer({ min: 1, max: 3 }),
        (rows, log, west, north) => {
          const world = tinyWorld(rows, { glide: { speed: 3 } });
          const text = writeLog({ ...log, start: world.start, checks: tinyLog("1 .").checks });
          const before = run(compile(world), readLog(text), { rows: true }).rows!;
          const { project: after } = resizeRoom(
            { world, logs: new Map([["walk", text]]) },
            "a",
            { west, north, east: 1, south: 1 },
            1,
          )!;
          const rows2 = run(compile(after.world), readLog(after.logs.get("walk")!), { rows: true }).rows!;
          same(
            [...rows2.x].map((x) => x - west * 4096),
            [...before.x],
          );
          same(
            [...rows2.y].map((y) => y - north * 4096),
            [...before.y],
          );
        },
      ),
      FIXED,
    );
  });
});

describe("logs after a change of a world", () => {
  const anyStart = fc.record({
    room: fc.constantFrom("a", "b", "c"),
    cell: fc.tuple(fc.nat(5), fc.nat(4)),
    facing: fc.constantFrom("up" as const, "left" as const),
  });
  const linesOf = (world: World): WithLine[] =>
    [
      ...world.items.map(({ id }): WithLine => ({ kind: "holds", item: id, count: 1 })),
      ...world.circuits.map((circuit): WithLine => ({ kind: "circuit", circuit })),
      ...(world.lives === null ? [] : [{ kind: "lives" as const, lives: 1 }]),
      ...world.rooms.flatMap((room) =>
        room.fixtures.flatMap((fixture): WithLine[] => {
          if (fixture.kind === "item") return [{ kind: "taken", fixture: fixture.id }];
          if (fixture.kind === "checkpoint") return [{ kind: "respawn", fixture: fixture.id }];
          return fixture.kind === "door" && (fixture.lock.kind === "none" || fixture.lock.kind === "item")
            ? [{ kind: "open", fixture: fixture.id }]
            : [];
        }),
      ),
    ].filter((line, i, all) => line.kind !== "respawn" || all.findIndex((each) => each.kind === "respawn") === i);
  const growth = fc.record({
    north: fc.integer({ min: -3, max: 1 }),
    east: fc.integer({ min: -3, max: 1 }),
    south: fc.integer({ min: -3, max: 1 }),
    west: fc.integer({ min: -3, max: 1 }),
  });
  const anyChange = fc.oneof(
    fc.constantFrom("a", "b", "c").map(
      (room) =>
        (project: Project): Followed =>
          removeRoom(project, room),
    ),
    fc.tuple(fc.constantFrom("a", "b", "c"), growth).map(
      ([room, by]) =>
        (project: Project): Followed =>
          resizeRoom(project, room, by) ?? { project, fellAway: [] },
    ),
    fc.array(fc.tuple(fc.constantFrom("a", "b", "c"), fc.nat(6)), { minLength: 1, maxLength: 4 }).map(
      (ids) =>
        (project: Project): Followed =>
          removeFixtures(
            project,
            ids.map(([room, n]) => `${room}-${n}`),
          ),
    ),
    fc.constantFrom("a", "b", "c").map(
      (room) =>
        (project: Project): Followed =>
          changeRoomId(project, room, "attic"),
    ),
    fc.tuple(fc.constantFrom("a", "b", "c"), fc.integer({ min: 2, max: 6 })).map(
      ([room, side]) =>
        (project: Project): Followed =>
          layRoomInto(project, room, {
            ...PLAIN_DRAFT,
            width: side,
            height: side,
            cells: Array.from({ length: side * side }, () => project.world.tiles[0]!.id),
          }),
    ),
  );

  it("start as before, or at the world's start where theirs is gone, and the change says all that went", () => {
    const seen = { start: 0, line: 0, goal: 0 };
    fc.assert(
      fc.property(anyHouse, anyStart, anyChange, fc.nat(100), (house, start, change, pick) => {
        const markers = house.rooms.flatMap((room) => room.fixtures.filter(({ kind }) => kind === "marker"));
        const world: World = {
          ...house,
          goal: markers.length === 0 ? null : { kind: "marker", fixture: markers[pick % markers.length]!.id },
        };
        const before: Project = {
          world,
          logs: new Map([
            [
              "walk",
              writeLog({
                ...EMPTY_LOG,
                start,
                with: linesOf(world),
                lines: [{ kind: "keys", count: 5, keys: 0, pointer: null, until: null }],
              }),
            ],
          ]),
        };
        fc.pre(logStartFault(world, readLog(before.logs.get("walk")!)) === null);
        const { project: after, fellAway } = change(before);
        same(worldFaults(after.world), []);
        same(logsThatCannotStart(before, after), []);
        const [was, is] = [readLog(before.logs.get("walk")!), readLog(after.logs.get("walk")!)];
        run(compile(after.world), is);
        const said = fellAway.join("\n");
        if (was.start !== null && is.start === null) expect((seen.start++, said)).toContain("walk: its start");
        const lines = was.with.length - is.with.length;
        expect(fellAway.filter((each) => each.startsWith("walk: with ")).length).toBe(lines);
        seen.line += lines;
        if (before.world.goal !== null && after.world.goal === null) expect((seen.goal++, said)).toContain("the goal");
        // Every fixture that went is named, but for those that were taken away on purpose or with their room.
        if (after.world.rooms.length === world.rooms.length && !change.toString().includes("removeFixtures")) {
          const ids = new Set(after.world.rooms.flatMap((room) => room.fixtures.map(({ id }) => id)));
          for (const room of world.rooms)
            for (const { id } of room.fixtures) if (!ids.has(id)) expect(said).toContain(id);
        }
      }),
      { ...FIXED, numRuns: 400 },
    );
    // All of it happens.
    expect(Math.min(seen.start, seen.line, seen.goal)).toBeGreaterThan(5);
  });

  it("that cannot start any more, because a lock or the lives are otherwise, are named with the reason", () => {
    const door = {
      id: "gate",
      cell: [1, 0] as const,
      touch: "cell" as const,
      keeps: "run" as const,
      kind: "door" as const,
      opensOn: "push" as const,
      closes: "never" as const,
    };
    const base = tinyWorld(["S..."]);
    const world: World = {
      ...base,
      lives: 3,
      circuits: ["pump"],
      rooms: base.rooms.map((room) => ({ ...room, fixtures: [{ ...door, lock: { kind: "none" as const } }] })),
    };
    const logs = new Map([
      ["gate-open", "keen-pebble-inputs 1\nwith open gate\n---\n1 .\n"],
      ["two-lives", "keen-pebble-inputs 1\nwith lives 2\n---\n1 .\n"],
      ["plain", "keen-pebble-inputs 1\n---\n1 .\n"],
    ]);
    const locked = {
      ...world,
      lives: null,
      rooms: world.rooms.map((room) => ({
        ...room,
        fixtures: [{ ...door, lock: { kind: "circuit" as const, circuit: "pump", open: "on" as const } }],
      })),
    };
    expect(logsThatCannotStart({ world, logs }, { world: locked, logs })).toEqual([
      "gate-open cannot start any more: `with open` in a log names gate, which is not a door that is not locked by a circuit or by what is collected",
      "two-lives cannot start any more: `with lives` in a log, but this world counts no lives",
    ]);
    expect(logsThatCannotStart({ world: locked, logs }, { world: locked, logs })).toEqual([]);
  });
});

describe("rule sets", () => {
  it("are copied, renamed and taken away; logs that named one go by the world's own", () => {
    const { world, copy } = copyRuleSet(everything, "main");
    expect([copy, world.rules.map(({ id, name }) => `${id} ${name}`)]).toEqual([
      "main-2",
      expect.arrayContaining([expect.stringMatching(/^main-2 .* copy$/)]),
    ]);
    const named = {
      world: renameRuleSet(world, copy, "Brisk"),
      logs: new Map([
        ["walk", withRules(project.logs.get("walk")!, copy)],
        ["plain", withRules(project.logs.get("walk")!, null)],
      ]),
    };
    holdsAsEdits(project, { world: named.world, logs: project.logs });
    const { project: after, fellAway } = removeRuleSet(named, copy)!;
    expect(fellAway).toEqual([`walk: its rule set, now ${everything.activeRules}`]);
    expect(after.logs.get("walk")).toBe(named.logs.get("plain"));
    expect(after.world.rules).toEqual(everything.rules);
    const last = {
      world: { ...everything, rules: everything.rules.slice(0, 1), activeRules: "main" },
      logs: new Map<string, string>(),
    };
    expect(removeRuleSet(last, "main")).toBeNull();
  });
});

it("free ids are those that one would find by trying, one after the other", () => {
  const anyId = fc
    .tuple(fc.constantFrom("key", "door", "a-2"), fc.constantFrom("", "-1", "-2", "-7"))
    .map((parts) => parts.join(""));
  fc.assert(
    fc.property(fc.array(anyId, { maxLength: 12 }), fc.array(anyId, { maxLength: 12 }), (taken, wished) => {
      const free = new FreeIds(taken);
      const there = new Set(taken);
      for (const wish of wished) {
        const stem = wish.replace(/-\d+$/, "");
        let expected = wish;
        for (let n = 2; there.has(expected); n++) expected = `${stem}-${n}`;
        expect(free.take(wish)).toBe(expected);
        there.add(expected);
      }
    }),
    FIXED,
  );
});

it("a room with very many fixtures is copied, each under an id of its own", () => {
  const tiny = tinyWorld(["S..."]);
  const room = tiny.rooms[0]!;
  const fixtures = Array.from(
    { length: 2000 },
    (_, i) => ({ id: `mark-${i}`, kind: "marker", cell: [0, 0], name: "Mark", touch: "cell", keeps: "run" }) as const,
  );
  const copied = copyRoom({ ...tiny, rooms: [{ ...room, fixtures }] }, room.id);
  expect(new Set(copied.rooms.flatMap((each) => each.fixtures.map(({ id }) => id))).size).toBe(4000);
});
