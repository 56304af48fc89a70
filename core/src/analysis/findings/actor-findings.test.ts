import { expect, it } from "vitest";
import { tinyWorld } from "../../test-support/tiny-world.ts";
import type { Actor } from "../../world/actors.ts";
import { newActor } from "../../world/actors.ts";
import type { Fixture } from "../../world/fixtures.ts";
import { beginTrying, tryChange } from "../fixes/try-change.ts";
import { singleChanges } from "../fixes/candidates.ts";
import { changeText } from "../fixes/single-change.ts";
import { parseCheck } from "../../checks/check.ts";
import { tinyLog } from "../../test-support/tiny-world.ts";
import type { World } from "../../world/world.ts";
import { actorFindings } from "./actor-findings.ts";

function worldWith(rows: readonly string[], actor: Partial<Actor>, fixtures: readonly Fixture[] = []): World {
  const base = tinyWorld(rows);
  return {
    ...base,
    rooms: [{ ...base.rooms[0]!, fixtures, actors: [{ ...newActor("crab-1", [0, 1], base), ...actor }] }],
  };
}

const path = (then: "round" | "back", ...cells: [number, number][]): Partial<Actor> => ({
  plan: [{ frames: null, do: "path", then, cells }],
});
const checkpoint: Fixture = { id: "lamp-1", kind: "checkpoint", cell: [0, 1], touch: "cell", keeps: "run" };

it.each<[string, World, string[]]>([
  ["a path that is open", worldWith(["S   ", "    "], path("back", [0, 1], [3, 1])), []],
  [
    "a path through a wall",
    worldWith(["S   ", "  # "], path("back", [0, 1], [3, 1])),
    ["the path of crab-1 in A leads into 2,1, which is shut to it: it stands still there"],
  ],
  [
    "a path whose way home alone is shut, which turns back",
    worldWith(["S   ", "    "], path("back", [0, 1], [1, 1])),
    [],
  ],
  [
    "a path round that comes home through a wall",
    worldWith(["S   ", "  # ", "    "], path("round", [3, 2], [3, 1], [0, 1])),
    ["the path of crab-1 in A leads into 2,1, which is shut to it: it stands still there"],
  ],
  [
    "one that is shut in",
    worldWith(["#S  ", " #  ", "#   "], { plan: [{ frames: null, do: "wander" }] }),
    ["crab-1 in A can never move: all cells beside it are shut to it"],
  ],
  [
    "one that is shut in at the right side",
    worldWith(["S #", " # ", "  #"], { cell: [2, 1], plan: [{ frames: null, do: "wander" }] }),
    ["crab-1 in A can never move: all cells beside it are shut to it"],
  ],
  [
    "one that is shut in at the lower side",
    worldWith(["S  ", " # ", "# #"], { cell: [1, 2], plan: [{ frames: null, do: "wander" }] }),
    ["crab-1 in A can never move: all cells beside it are shut to it"],
  ],
  [
    "one that is shut in at the upper side",
    worldWith(["# #", "S# ", "   "], { cell: [1, 0], plan: [{ frames: null, do: "wander" }] }),
    ["crab-1 in A can never move: all cells beside it are shut to it"],
  ],
  ["one that is shut in and only stands", worldWith(["#S  ", " #  ", "#   "], {}), []],
  [
    "one that hurts where the walker respawns",
    worldWith(["S   ", "    "], { touch: "hurt" }, [checkpoint]),
    ["crab-1 in A begins on lamp-1, where the walker respawns: whoever does is hurt at once"],
  ],
  ["one that hurts nobody there", worldWith(["S   ", "    "], {}, [checkpoint]), []],
])("%s", (_, world, messages) => {
  expect(actorFindings(world).map(({ message }) => message)).toEqual(messages);
});

it("a log that is broken by an actor is fixed by changes of it alone, each told in words", () => {
  const world = worldWith(["S      ", "       "], {
    speed: 2,
    touch: "hurt",
    cell: [6, 0],
    plan: [
      { frames: 20, do: "stand" },
      { frames: null, do: "toward" },
    ],
  });
  const check = parseCheck(["never", "event", "hurt"]);
  if (!("check" in check)) throw new Error("no check");
  const log = tinyLog("48 R", { checks: [check.check] });
  const rules = world.rules[0]!;
  const trying = beginTrying(world, new Map([["log", log]]), "log");
  const fixed = singleChanges(world, rules)
    .filter(({ path: changed }) => changed === "actor")
    .filter((change) => tryChange(trying, change)?.holds === true)
    .map((change) => changeText(world, rules, change));
  expect(fixed).toContain("crab-1 does not hurt");
  expect(fixed).toContain("crab-1 stands for 20 to 50 frames");
  expect(fixed).not.toContain("crab-1 speed 2 to 4 px");
});
