import { expect, it } from "vitest";
import { compile } from "../../simulation/compile.ts";
import { startState } from "../../simulation/start-state.ts";
import { door, item, plain } from "../../test-support/row-fixtures.ts";
import { tinyWorld } from "../../test-support/tiny-world.ts";
import type { Fixture } from "../../world/fixtures.ts";
import type { World } from "../../world/world.ts";
import { GridSearch } from "./grid-search.ts";
import { LookBack } from "./lost-for-good.ts";

/** A hall to be hopped along: a closet, the start, a lamp that nothing asks for, the one key, a door, and the goal behind it. */
function hall(): World {
  const base = tinyWorld([" S    "], { gait: "hop" });
  const things = [
    door("closet", 0),
    item("lamp", 2, "lamp"),
    { ...plain, id: "lever", kind: "switch", cell: [2, 0], circuit: "pump" } as Fixture,
    item("the-key", 3, "key"),
    door("gate", 4),
    item("bead", 5, "bead"),
  ];
  return {
    ...base,
    items: ["key", "lamp", "bead"].map((id) => ({ id, name: id, role: "key" as const, colour: "#c89b3c" })),
    circuits: ["pump"],
    goal: { kind: "collect", item: "bead" },
    rooms: [{ ...base.rooms[0]!, fixtures: things }],
  };
}

it("those who have spent the one key elsewhere are told by what they took that is asked for, opened and switched", () => {
  const c = compile(hall());
  const search = new GridSearch(c, startState(c), 10_000, true);
  while (search.run(1000));
  const { states, classes } = new LookBack(search).stuck();
  expect(states).toBeGreaterThan(0);
  const told = classes.map(({ node: _node, ...what }) => what);
  // By the shut gate and back to the closet: the switch was passed, and is on or off again.
  expect(told).toContainEqual({ taken: ["the-key"], open: ["closet"], on: ["pump"] });
  for (const { taken, open } of told) expect([taken, open]).toEqual([["the-key"], ["closet"]]);
  expect(new Set(told.map(({ on }) => on.join())).size).toBe(told.length);
});
