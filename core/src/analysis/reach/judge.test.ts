import { expect, it } from "vitest";
import { door, item, plain } from "../../test-support/row-fixtures.ts";
import { tinyWorld } from "../../test-support/tiny-world.ts";
import type { Fixture } from "../../world/fixtures.ts";
import type { World } from "../../world/world.ts";
import { judgeChecks, judgeReach } from "./judge.ts";
import { Reach } from "./reach.ts";

/** One row: one key for two doors, what lies behind the right one, and a bead behind a wall. */
const world: World = (() => {
  const base = tinyWorld(["  S     # "], { gait: "hop" });
  const fixtures: readonly Fixture[] = [
    door("side", 1),
    item("key-1", 3, "key"),
    item("bead-1", 4, "bead"),
    door("gate", 5),
    item("ruby-1", 6, "ruby"),
    { ...plain, id: "lamp", kind: "marker", cell: [7, 0], name: "Lamp" },
    item("bead-2", 9, "bead"),
  ];
  return {
    ...base,
    items: ["key", "bead", "ruby", "crank"].map((id) => ({ id, name: id, role: "key", colour: "#c89b3c" })),
    goal: { kind: "marker", fixture: "lamp" },
    rooms: [{ ...base.rooms[0]!, fixtures }],
  };
})();
const judged = (check: string, of: World = world, limit?: number): string => {
  const { verdict, seen } = judgeReach({ ...of, reachChecks: [check] }, limit)[0]!;
  return seen === null ? verdict : `${verdict}: ${seen}`;
};

it.each([
  ["reachable lamp", "pass"],
  ["unreachable lamp", "fail: lamp is reached after 6 moves"],
  ["reachable bead-2", "fail: bead-2 is never reached"],
  ["unreachable bead-2", "pass"],
  ["reachable bead-3", "fail: there is no fixture bead-3"],
  ["reachable side", "pass"],
  ["reachable cell 3 0 in a", "pass"],
  ["unreachable cell 3 0 in a", "fail: cell 3 0 in a is reached after 1 move"],
  ["reachable cell 8 0 in a", "fail: cell 8 0 in a is never reached"],
  ["unreachable cell 9 0 in a", "pass"],
  ["reachable cell 10 0 in a", "fail: a has no cell 10 0"],
  ["reachable cell 0 1 in a", "fail: a has no cell 0 1"],
  ["reachable cell 0 0 in b", "fail: there is no room b"],
  ["reachable all key", "pass"],
  ["reachable all bead", "fail: never reached: bead-2"],
  ["reachable all ruby", "pass"],
  ["reachable all crank", "fail: no fixture gives crank"],
  ["never lost key", "pass"],
  ["never lost ruby", "pass"],
  ["never lost crank", "fail: no fixture gives crank"],
  ["winnable", "pass"],
  ["never stuck", "fail: stuck after 3 moves"],
  ["aligned", "pass"],
  ["winnable  now", "fail: this is no reach check"],
])("%s: %s", (check, said) => {
  expect(judged(check)).toBe(said);
});

it("what is not known is open, and what needs a goal says that there is none", () => {
  const wide = tinyWorld([`S${".".repeat(60)}`, ".".repeat(61)], { gait: "roam", roam: { speedX: 0.75, speedY: 0.5 } });
  const far = { ...wide, rooms: [{ ...wide.rooms[0]!, fixtures: [item("far", 60, "key")] }] };
  const seen = judgeChecks(far, new Reach(far, { limit: 10 }), [
    "reachable far",
    "unreachable far",
    "reachable cell 60 1 in a",
    "reachable all key",
    "never lost key",
    "never stuck",
    "winnable",
  ]).map((each) => `${each.verdict}: ${each.seen}`);
  expect(seen).toEqual([
    "open: no way to far is known, and none is ruled out",
    "open: no way to far is known, and none is ruled out",
    "open: no way to cell 60 1 in a is known, and none is ruled out",
    "open: not known of far",
    "open: not all play was looked at",
    "fail: this world has no goal",
    "fail: this world has no goal",
  ]);
});
