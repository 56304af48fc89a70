import { newActor } from "../world/actors.ts";
import type { Fixture } from "../world/fixtures.ts";
import { describe, expect, it } from "vitest";
import { compile } from "../simulation/compile.ts";
import { run } from "../replay/run.ts";
import { tinyLog, tinyWorld } from "../test-support/tiny-world.ts";
import type { World } from "../world/world.ts";
import { parseCheck } from "./check.ts";
import { CONDITION_FORMS } from "./condition.ts";

const plain = { touch: "cell", keeps: "run" } as const;
const fixtures: readonly Fixture[] = [
  { id: "key-1", kind: "item", cell: [1, 0], give: "key", count: 2, ...plain },
  { id: "wheel-1", kind: "switch", cell: [2, 0], circuit: "pump", ...plain },
  { id: "mark-1", kind: "marker", cell: [3, 0], name: "Mark", ...plain },
  {
    id: "door-1",
    kind: "door",
    cell: [5, 0],
    lock: { kind: "item", item: "key", count: 2, spends: true },
    opensOn: "push",
    closes: "never",
    ...plain,
  },
  { id: "vent-1", kind: "hazard", cell: [6, 0], ...plain },
];

/** A corridor with one of each: a key, a wheel, a mark, a door that wants the key, and a vent behind it. */
const corridor: World = (() => {
  const world = tinyWorld(["S.......", "########"], { glide: { speed: 8 } });
  return {
    ...world,
    items: [{ id: "key", name: "Key", role: "key", colour: "#c89b3c" }],
    circuits: ["pump"],
    lives: 3,
    rooms: [{ ...world.rooms[0]!, fixtures, actors: [{ ...newActor("crab-1", [4, 0], world), body: [4, 4, 8, 8] }] }],
  };
})();

/** What a check says of walking right for 20 frames: two frames a cell, the door is pushed in frame 9, the vent is met in 14. */
function says(check: string): string {
  const parsed = parseCheck(check.split(" "));
  if ("fault" in parsed) throw new Error(parsed.fault);
  const [verdict] = run(compile(corridor), tinyLog("20 R", { checks: [parsed.check] }), { checks: true }).verdicts;
  return `${verdict!.verdict} ${verdict!.frame}${verdict!.seen === null ? "" : `: ${verdict!.seen}`}`;
}

/** Of each WHAT: when it is true first, where it is not, and a name that the world does not have. */
const TABLE: readonly (readonly [what: string, firstTrue: number, falseAt: string, absent: string | null])[] = [
  ["room a", 0, "", "room loft"],
  ["cell 2 0 in a", 3, "at 2: cell 1 0 in a", "cell 2 0 in loft"],
  ["on mark-1", 5, "at 4: cell 2 0 in a", "on mark-9"],
  ["aligned", 0, "", null],
  ["aligned strictly", 0, "at 1: 8 px off the grid at 8 0", null],
  ["still", 0, "at 1: moved 8 0 px", null],
  ["facing right", 1, "at 0: facing down", null],
  ["holds key", 1, "at 0: holds 0", "holds crank"],
  ["holds key 2", 1, "at 0: holds 0", "holds crank 2"],
  ["taken key-1", 1, "at 0: there", "taken key-9"],
  ["open door-1", 9, "at 8: closed", "open door-9"],
  ["circuit pump on", 3, "at 2: circuit pump off", "circuit valve on"],
  ["meets crab-1", 7, "at 6: meets nobody at 48 0 in a", "meets crab-9"],
  ["lives 2", 12, "at 11: lives 3", null],
  ["status playing", 0, "", null],
  ["event take key-1", 1, "at 2: arrive", "event take key-9"],
  ["event hurt", 12, "at 11: arrive", null],
  ["overlap", -1, "at 3: overlaps nothing", null],
  ["outside", -1, "at 3: inside", null],
  ["pixel 16 0", 2, "at 1: 8 0", null],
];

describe("each thing that a check can ask", () => {
  it("stands in the table", () => {
    expect([...new Set(TABLE.map(([what]) => what.split(" ")[0]))].sort()).toEqual(
      CONDITION_FORMS.map((form) => form.split(" ")[0]).sort(),
    );
  });

  it.each(TABLE)(
    "%s is true first in frame %i, and says what is seen where it is not",
    (what, firstTrue, falseAt, absent) => {
      if (firstTrue < 0) expect(says(`never ${what}`)).toBe("pass 20");
      else {
        expect(says(`ever ${what}`)).toBe(`pass ${firstTrue}`);
        expect(says(`by ${firstTrue} ${what}`)).toBe(`pass ${firstTrue}`);
        expect(says(`never ${what}`)).toMatch(new RegExp(`^fail ${firstTrue}`));
        if (firstTrue > 0) expect(says(`by ${firstTrue - 1} ${what}`)).toMatch(new RegExp(`^fail ${firstTrue - 1}: `));
      }
      const [, at, seen] = /^at (\d+): (.*)$/.exec(falseAt) ?? [];
      if (at !== undefined && firstTrue >= 0) expect(says(`at ${at} ${what}`)).toBe(`fail ${at}: ${seen}`);
      if (absent !== null)
        for (const when of ["ever", "never", "always", "end", "by 9"])
          expect(says(`${when} ${absent}`)).toMatch(/^fail 0: no .* in this world$/);
    },
  );

  it.each(TABLE.map(([what]) => what))("%s is not understood with words too many, nor with what is no name", (what) => {
    const words = what.split(" ");
    for (const more of [["In"], ["in", "a", "b"], ["x", "y", "z"]])
      expect(parseCheck(["ever", ...words, ...more])).toHaveProperty("fault");
    if (words.length > 1) expect(parseCheck(["ever", ...words.slice(0, -1), "no name"])).toHaveProperty("fault");
  });

  it.each([
    "cell a 0",
    "cell 2 b",
    "cell 2",
    "cell 2 0 at a",
    "cell 2 0 in",
    "holds key 0",
    "holds key x",
    "pixel 1",
    "lives x",
  ])("%s is not understood", (what) => expect(parseCheck(["ever", ...what.split(" ")])).toHaveProperty("fault"));
});
