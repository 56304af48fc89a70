import { expect, it } from "vitest";
import { tinyLog, tinyWorld } from "../test-support/tiny-world.ts";
import type { WithLine } from "./run-start.ts";
import { compile } from "./compile.ts";
import { run } from "../replay/run.ts";

const world = tinyWorld(["S."]);

it("a start or a rule set that is not there is named", () => {
  expect(() => run(compile(world), tinyLog("1 R", { start: { room: "b", cell: [0, 0], facing: "up" } }))).toThrow(
    "room b",
  );
  expect(() => run(compile(world), tinyLog("1 R", { start: { room: "a", cell: [2, 0], facing: "up" } }))).toThrow(
    "cell 2 0, which lies outside room a (2x1)",
  );
  expect(() => compile(world, "quick")).toThrow("no rule set quick; it has main");
});

it("what a log sets up must be in the world, and be able to be so", () => {
  const vent = { id: "vent", kind: "hazard", cell: [1, 0], touch: "cell", keeps: "run" } as const;
  const c = compile({ ...world, rooms: [{ ...world.rooms[0]!, fixtures: [vent] }] });
  const withLine = (line: WithLine) => () => run(c, tinyLog("1 R", { with: [line] }));
  expect(withLine({ kind: "holds", item: "crank", count: 1 })).toThrow(
    "`with holds` in a log names item crank, which this world does not have",
  );
  expect(withLine({ kind: "taken", fixture: "vent" })).toThrow(
    "`with taken` in a log names vent, which is not an item",
  );
  expect(withLine({ kind: "open", fixture: "vent" })).toThrow(
    "vent, which is not a door that is not locked by a circuit",
  );
  expect(withLine({ kind: "respawn", fixture: "lamp" })).toThrow("fixture lamp, which this world does not have");
  expect(withLine({ kind: "lives", lives: 2 })).toThrow("this world counts no lives");
});
