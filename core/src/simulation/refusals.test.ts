import { expect, it } from "vitest";
import { NotSimulatedError } from "../errors/not-simulated-error.ts";
import { tinyLog, tinyWorld } from "../test-support/tiny-world.ts";
import type { World } from "../world/world.ts";
import { compile } from "./compile.ts";
import { run } from "./run.ts";

const world = tinyWorld(["S."]);
const room = world.rooms[0]!;
const refused = (changed: World): readonly string[] => {
  try {
    compile(changed);
    return [];
  } catch (error) {
    if (error instanceof NotSimulatedError) return error.things;
    throw error;
  }
};

it("what is not simulated yet is refused by name, never half-run", () => {
  const link = { kind: "link", room: "a", offset: 0 } as const;
  expect(refused({ ...world, rooms: [{ ...room, edges: { ...room.edges, east: link, south: [{ ...link, from: 0, to: 1 }] } }] })).toEqual([
    "link to another room (room a, east side)",
    "link to another room (room a, south side)",
  ]);
  const vent = { id: "vent", kind: "hazard", cell: [1, 0], touch: "cell", keeps: "run" } as const;
  expect(refused({ ...world, rooms: [{ ...room, fixtures: [vent] }], goal: { kind: "collect", item: "bead" } })).toEqual([
    "fixture kind hazard (vent in room a)",
    "goal collect",
  ]);
  expect(() => run(compile(world), tinyLog("1 R", { with: [{ kind: "holds", item: "crank", count: 1 }] }))).toThrow("not simulated yet: `with holds` in a log");
});

it("a start or a rule set that is not there is named", () => {
  expect(() => run(compile(world), tinyLog("1 R", { start: { room: "b", cell: [0, 0], facing: "up" } }))).toThrow("room b");
  expect(() => run(compile(world), tinyLog("1 R", { start: { room: "a", cell: [2, 0], facing: "up" } }))).toThrow("cell 2 0, which lies outside room a (2x1)");
  expect(() => compile(world, "quick")).toThrow("no rule set quick; it has main");
});
