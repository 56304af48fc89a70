import { readFileSync } from "node:fs";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { applyAll } from "../edits/apply.ts";
import { differences } from "../edits/differences.ts";
import type { Project } from "../edits/project.ts";
import { invert } from "../edits/step.ts";
import { readWorld } from "../formats/read-world.ts";
import { writeWorld } from "../formats/write-world.ts";
import { readLog } from "../logs/read-log.ts";
import { compile } from "../simulation/compile.ts";
import { run } from "../simulation/run.ts";
import { FIXED, anyLog, anyRows } from "../test-support/arbitraries.ts";
import { tinyLog, tinyWorld } from "../test-support/tiny-world.ts";
import { writeLog } from "../logs/write-log.ts";
import { roomById } from "../world/world.ts";
import { flagUses, removeFlag, renameFlag, setFlag } from "./flags.ts";
import { addRoom, copyRoom, removeRoom, renameRoom, resizeRoom } from "./rooms.ts";
import { copyRuleSet, removeRuleSet, renameRuleSet, withRules } from "./rule-sets.ts";
import { copyTile, moveTile, removeTiles, tileUses } from "./tiles.ts";

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
const project: Project = { world: everything, logs: { walk: LOG } };

/** The edits that a change is made of lead there, and back, and to a world that is in order. */
function holdsAsEdits(before: Project, after: Project): void {
  const steps = differences(before, after);
  expect(applyAll(before, steps)).toEqual(after);
  expect(applyAll(after, [...steps].reverse().map(invert))).toEqual(before);
  expect(readWorld(writeWorld(after.world))).toEqual(after.world);
  for (const text of Object.values(after.logs)) readLog(text);
}

/** The tile id of every cell, room by room. */
const ground = (world: typeof everything): string[][] => world.rooms.map((room) => [...room.cells].map((tile) => world.tiles[tile]!.id));

describe("tiles and flags", () => {
  it("copied, moved and removed leave every other cell with its tile, whatever the order", () => {
    fc.assert(
      fc.property(anyRows, fc.array(fc.tuple(fc.nat(2), fc.nat(9), fc.nat(9)), { minLength: 1, maxLength: 8 }), (rows, acts) => {
        const base = tinyWorld(rows);
        let world = base;
        for (const [kind, a, b] of acts) {
          const before = ground(world);
          const id = world.tiles[a % world.tiles.length]!.id;
          if (kind === 0) world = copyTile(world, id);
          if (kind === 1) world = moveTile(world, id, b);
          if (kind < 2) expect(ground(world)).toEqual(before);
          else {
            const instead = world.tiles[b % world.tiles.length]!.id;
            const kept = id === "empty" ? world : removeTiles(world, [id], instead);
            expect(ground(kept)).toEqual(before.map((cells) => cells.map((cell) => (cell === id && id !== "empty" ? (instead === id ? "empty" : instead) : cell))));
            world = kept;
          }
          expect(world.tiles[0]!.id).toBe("empty");
          expect(tileUses(world).reduce((sum, n) => sum + n, 0)).toBe(world.rooms[0]!.cells.length);
        }
        holdsAsEdits({ world: base, logs: {} }, { world, logs: {} });
      }),
      FIXED,
    );
  });

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
    expect(more.rooms.slice(2).map((room) => [room.id, room.width])).toEqual([["attic", 5], [`${hall.id}-2`, hall.width]]);
  });

  it("under another name are so in sides, portals, the start, laws and logs", () => {
    const { project: after, fellAway } = renameRoom(project, hall.id, "cellar", "Cellar");
    expect(fellAway).toEqual([]);
    expect(JSON.stringify([writeWorld(after.world), after.logs])).not.toContain(hall.id);
    holdsAsEdits(project, after);
    expect(renameRoom(after, "cellar", hall.id, hall.name).project).toEqual(project);
  });

  it("that are removed take along what was about them, and say what", () => {
    const { project: after, fellAway } = removeRoom(project, other.id);
    expect(after.world.rooms.map((room) => room.id)).toEqual([hall.id]);
    expect(JSON.stringify([writeWorld(after.world), after.logs])).not.toContain(`"${other.id}"`);
    expect(fellAway).toEqual(expect.arrayContaining([`walk: check ever room ${other.id}`, `walk: check never cell 0 0 in ${other.id}`]));
    holdsAsEdits(project, after);
    expect(removeRoom(after, hall.id).project).toBe(after);
  });

  it("that grow at any side keep every place, and shrink back to what they were", () => {
    const cells = fc.integer({ min: 0, max: 3 });
    fc.assert(
      fc.property(fc.record({ north: cells, east: cells, south: cells, west: cells }), fc.constantFrom(hall.id, other.id), (growth, id) => {
        const { project: after, fellAway } = resizeRoom(project, id, growth)!;
        expect(fellAway).toEqual([]);
        holdsAsEdits(project, after);
        const [small, large] = [roomById(everything, id)!, roomById(after.world, id)!];
        expect([large.width, large.height]).toEqual([small.width + growth.west + growth.east, small.height + growth.north + growth.south]);
        for (const fixture of small.fixtures) expect(large.fixtures.find((f) => f.id === fixture.id)!.cell).toEqual([fixture.cell[0] + growth.west, fixture.cell[1] + growth.north]);
        const back = resizeRoom(after, id, { north: -growth.north, east: -growth.east, south: -growth.south, west: -growth.west })!;
        expect(back.project).toEqual(project);
      }),
      FIXED,
    );
    expect(resizeRoom(project, hall.id, { north: 0, east: -hall.width, south: 0, west: 0 })).toBeNull();
    const cut = resizeRoom(project, hall.id, { north: 0, east: -1, south: 0, west: 1 - hall.width + 1 })!;
    expect(cut.fellAway.length).toBeGreaterThan(0);
    holdsAsEdits(project, cut.project);
  });

  it("a walk goes the same way in a room that has grown round it", () => {
    fc.assert(
      fc.property(anyRows, anyLog, fc.integer({ min: 1, max: 3 }), fc.integer({ min: 1, max: 3 }), (rows, log, west, north) => {
        const world = tinyWorld(rows, { glide: { speed: 3 } });
        const text = writeLog({ ...log, start: world.start, checks: tinyLog("1 .").checks });
        const before = run(compile(world), readLog(text), { rows: true }).rows!;
        const { project: after } = resizeRoom({ world, logs: { walk: text } }, "a", { west, north, east: 1, south: 1 }, 1)!;
        const rows2 = run(compile(after.world), readLog(after.logs["walk"]!), { rows: true }).rows!;
        expect([...rows2.x].map((x) => x - west * 4096)).toEqual([...before.x]);
        expect([...rows2.y].map((y) => y - north * 4096)).toEqual([...before.y]);
      }),
      FIXED,
    );
  });
});

describe("rule sets", () => {
  it("are copied, renamed and taken away; logs that named one go by the world's own", () => {
    const { world, copy } = copyRuleSet(everything, "main");
    expect([copy, world.rules.map(({ id, name }) => `${id} ${name}`)]).toEqual(["main-2", expect.arrayContaining([expect.stringMatching(/^main-2 .* copy$/)])]);
    const named = { world: renameRuleSet(world, copy, "Brisk"), logs: { walk: withRules(project.logs["walk"]!, copy), plain: withRules(project.logs["walk"]!, null) } };
    holdsAsEdits(project, { world: named.world, logs: project.logs });
    const { project: after, fellAway } = removeRuleSet(named, copy)!;
    expect(fellAway).toEqual([`walk: its rule set, now ${everything.activeRules}`]);
    expect(after.logs["walk"]).toBe(named.logs.plain);
    expect(after.world.rules).toEqual(everything.rules);
    const last = { world: { ...everything, rules: everything.rules.slice(0, 1), activeRules: "main" }, logs: {} };
    expect(removeRuleSet(last, "main")).toBeNull();
  });
});
