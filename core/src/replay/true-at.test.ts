import type { Fixture } from "../world/fixtures.ts";
import { expect, it } from "vitest";
import { compile } from "../simulation/compile.ts";
import { stateAt } from "./run.ts";
import { tinyLog, tinyWorld } from "../test-support/tiny-world.ts";
import type { World } from "../world/world.ts";
import { checkText } from "../checks/check.ts";
import { checksTrueAt } from "./true-at.ts";

const plain = { touch: "cell", keeps: "run" } as const;
const fixtures: readonly Fixture[] = [
  { id: "key-1", kind: "item", cell: [1, 0], give: "key", count: 2, ...plain },
  { id: "wheel-1", kind: "switch", cell: [2, 0], circuit: "pump", ...plain },
  { id: "lamp-1", kind: "checkpoint", cell: [3, 0], ...plain },
  { id: "mark-1", kind: "marker", cell: [4, 0], name: "Mark", ...plain },
  {
    id: "door-1",
    kind: "door",
    cell: [5, 0],
    lock: { kind: "item", item: "key", count: 3, spends: false },
    opensOn: "push",
    closes: "never",
    ...plain,
  },
  { id: "door-2", kind: "door", cell: [3, 1], lock: { kind: "none" }, opensOn: "push", closes: "behind", ...plain },
  { id: "pipe-1", kind: "portal", cell: [3, 3], to: { room: "b", cell: [1, 1] }, ...plain },
  { id: "vent-1", kind: "hazard", cell: [0, 3], ...plain },
];

/** A room with one of each kind, and another one that a pipe leads to. A cell takes two frames. */
const world: World = (() => {
  const base = tinyWorld(["S.......", "........", "........", "........"], { glide: { speed: 8 } });
  const [room] = base.rooms;
  return {
    ...base,
    items: [{ id: "key", name: "Key", role: "key", colour: "#c89b3c" }],
    circuits: ["pump"],
    lives: 3,
    rooms: [
      { ...room!, fixtures },
      { ...room!, id: "b" },
    ],
  };
})();
const c = compile(world);

/** What is offered for a frame of walking so. */
function offered(keys: string, frame: number): string[] {
  const log = tinyLog(keys);
  return checksTrueAt(c, log, stateAt(c, log, frame)).map(checkText);
}

it.each<[string, string, number, string[]]>([
  ["an item taken", "2 R", 1, ["by 1 taken key-1", "at 1 holds key 2"]],
  ["a switch turned", "4 R", 3, ["by 3 event switch wheel-1", "at 3 circuit pump on"]],
  ["a checkpoint reached", "6 R", 5, ["by 5 event checkpoint lamp-1", "by 5 on lamp-1"]],
  ["a marker reached", "8 R", 7, ["by 7 on mark-1"]],
  ["a door that refused", "9 R", 9, ["by 9 event refused door-1", "by 9 event bump"]],
  ["a door opened", "6 R,1 D", 7, ["by 7 open door-2", "at 7 facing down"]],
  ["a door closed behind", "6 R,5 D", 11, ["by 11 event close door-2"]],
  ["another room entered", "6 R,8 D", 13, ["by 13 event portal pipe-1", "by 13 room b", "at 13 cell 1 1 in b"]],
  ["a hazard met", "6 D", 5, ["by 5 event hurt vent-1", "at 5 cell 0 0 in a"]],
  [
    "nothing at all",
    "4 .",
    2,
    ["at 2 cell 0 0 in a", "at 2 still", "at 2 facing down", "always aligned", "never overlap", "never outside"],
  ],
])("of %s it says so", (_what, keys, frame, says) => {
  const checks = offered(keys, frame);
  expect(checks).toEqual(expect.arrayContaining(says));
  expect(new Set(checks).size).toBe(checks.length);
  // What happened comes before where it was, and that before what always holds.
  expect(checks.map((check) => check.split(" ")[0]).join(" ")).toMatch(/^(by )*(at )*(end )?(always )?(never ?)*$/);
});

it("says nothing of arriving and leaving, and leaves out what the log has", () => {
  expect(offered("6 R,8 D", 13).some((check) => /arrive|leave/.test(check))).toBe(false);
  const log = {
    ...tinyLog("2 R"),
    checks: [{ when: { kind: "by", frame: 1 }, what: { kind: "taken", fixture: "key-1" } }],
  } as const;
  expect(checksTrueAt(c, log, stateAt(c, log, 1)).map(checkText)).not.toContain("by 1 taken key-1");
});
