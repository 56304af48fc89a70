import { describe, expect, it } from "vitest";
import { readWorld } from "../formats/read-world.ts";
import { writeWorld } from "../formats/write-world.ts";
import { tinyWorld } from "../test-support/tiny-world.ts";
import type { Fixture } from "../world/fixtures.ts";
import type { World } from "../world/world.ts";
import { addCircuit, addItem, changeItem, isCircuitUsed, isItemUsed } from "./fixtures.ts";

const plain = { touch: "cell", keeps: "run", cell: [1, 0] } as const;
const base: World = { ...tinyWorld(["S.."]), circuits: ["pump", "valve"] };
const items = (world: World): World => addItem(addItem(addItem(world, "key").world, "key").world, "treasure").world;
const withFixture = (fixture: object): World => ({
  ...items(base),
  rooms: [{ ...base.rooms[0]!, fixtures: [{ ...plain, id: "f-1", ...fixture } as Fixture] }],
});
const door = (lock: object) => withFixture({ kind: "door", opensOn: "push", closes: "never", lock });
const logs = (text: string) => new Map([["a", `keen-pebble-inputs 1\n${text}\n---\n1 .\n`]]);

describe("items and circuits", () => {
  it("come with ids and names of their own, and can be called otherwise", () => {
    const world = items(base);
    expect(world.items.map(({ id, name, role }) => [id, name, role])).toEqual([
      ["key", "Key", "key"],
      ["key-2", "Key 2", "key"],
      ["treasure", "Treasure", "treasure"],
    ]);
    expect(new Set(world.items.map(({ colour }) => colour)).size).toBe(3);
    const called = changeItem(world, "key-2", (item) => ({ ...item, name: "Crank" }));
    expect(called.items.map(({ name }) => name)).toEqual(["Key", "Crank", "Treasure"]);
    expect(addCircuit(addCircuit(base).world).world.circuits).toEqual(["pump", "valve", "circuit-1", "circuit-2"]);
  });

  it.each<[string, World, string]>([
    ["an item that gives it", withFixture({ kind: "item", give: "key-2", count: 1 }), ""],
    ["a lock", door({ kind: "item", item: "key-2", count: 1, spends: false }), ""],
    ["a lock that wants all", door({ kind: "collected", item: "key-2" }), ""],
    ["the goal", { ...items(base), goal: { kind: "collect", item: "key-2" } }, ""],
    ["a law", { ...items(base), laws: ["never holds key-2"] }, ""],
    ["a check about all play", { ...items(base), reachChecks: ["never lost key-2"] }, ""],
    ["a log's check", items(base), "check ever holds key-2 2"],
    ["what a log begins with", items(base), "with holds key-2"],
    ["a line that lasts until it is held", items(base), "check always still\n---\n9 R until holds key-2"],
  ])("an item is used by %s, and another one is not", (_what, world, text) => {
    const project = { world, logs: text === "" ? new Map<string, string>() : logs(text) };
    expect(["key-2", "treasure", "key"].map((id) => isItemUsed(project, id))).toEqual([true, false, false]);
    // What is not used can be taken away, and the world is still one.
    const without = { ...world, items: world.items.filter(({ id }) => id !== "treasure") };
    expect(writeWorld(readWorld(writeWorld(without)))).toBe(writeWorld(without));
  });

  it.each<[string, World, string]>([
    ["a switch", withFixture({ kind: "switch", circuit: "valve" }), ""],
    ["a lock", door({ kind: "circuit", circuit: "valve", open: "on" }), ""],
    ["a law", { ...base, laws: ["never circuit valve on"] }, ""],
    ["a log's check", base, "check ever circuit valve on"],
  ])("a circuit is used by %s, and another one is not", (_what, world, text) => {
    const project = { world, logs: text === "" ? new Map<string, string>() : logs(text) };
    expect(["valve", "pump"].map((id) => isCircuitUsed(project, id))).toEqual([true, false]);
  });
});
