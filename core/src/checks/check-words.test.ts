import type { Fixture } from "../world/fixtures.ts";
import fc from "fast-check";
import { expect, it } from "vitest";
import { anyHouse } from "../test-support/any-house.ts";
import { FIXED, anyLog } from "../test-support/arbitraries.ts";
import { run, stateAt } from "../replay/run.ts";
import { compile } from "../simulation/compile.ts";
import { parseCheck } from "./check.ts";
import { checkFault, completeCheck } from "./check-words.ts";
import { tinyWorld } from "../test-support/tiny-world.ts";
import type { World } from "../world/world.ts";
import { checksTrueAt } from "../replay/true-at.ts";

/** A check typed by taking what is offered, with a number where none is. */
function typed(world: Parameters<typeof completeCheck>[0], picks: readonly number[]): string {
  let text = "";
  for (const pick of picks) {
    const { words, name } = completeCheck(world, text);
    if (words.length === 0 && !/frame|column|row|how many|px/.test(name)) break;
    text += `${words.length > 0 ? words[pick % words.length]! : 1 + (pick % 40)} `;
  }
  return text.trim();
}

it("whatever is typed by completion is in order or says what is missing at its end; the reader of logs agrees", () => {
  fc.assert(
    fc.property(anyHouse, fc.array(fc.nat(1000), { minLength: 1, maxLength: 8 }), (world, picks) => {
      const text = typed(world, picks);
      const fault = checkFault(world, text);
      const read = parseCheck(text.split(" "));
      expect({ text, whole: fault === null }).toEqual({ text, whole: "check" in read });
      if (fault !== null) expect({ text, from: fault.from }).toEqual({ text, from: text.length });
    }),
    FIXED,
  );
});

it("a word that is not in order is pointed at, with what was expected there", () => {
  const [world] = fc.sample(anyHouse, { seed: 7, numRuns: 1 });
  const room = world!.rooms[0]!.id;
  for (const [text, from, to, message] of [
    ["by x cell 1 2", 3, 4, /^expected a frame, found "x"$/],
    ["somewhen cell 1 2", 0, 8, /^expected when: at, by, ever, end, always, never, found "somewhen"$/],
    ["ever room cellar", 10, 16, new RegExp(`^expected a room: ${room}`)],
    ["always still today", 13, 18, /^nothing more is expected here, found "today"$/],
    ["end holds key 0", 14, 15, /^expected how many, found "0"$/],
    ["end cell 4", 10, 10, /^expected a row$/],
    ["", 0, 0, /^expected when/],
  ] as const) {
    expect({ text, ...checkFault(world!, text) }).toEqual({
      text,
      from,
      to,
      message: expect.stringMatching(message) as string,
    });
  }
  expect(completeCheck(world!, "always al")).toMatchObject({ from: 7, words: ["aligned"] });
  expect(completeCheck(world!, `ever room ${room.slice(0, 1)}`).words).toContain(room);
});

/** A room with one fixture of each kind, called by it. */
const oneOfEach: World = (() => {
  const world = tinyWorld(["S......", "......."]);
  const plain = { touch: "cell", keeps: "run" } as const;
  const fixtures: Fixture[] = [
    { id: "an-item", kind: "item", cell: [1, 0], give: "key", count: 1, ...plain },
    { id: "a-door", kind: "door", cell: [2, 0], lock: { kind: "none" }, opensOn: "push", closes: "never", ...plain },
    { id: "a-hazard", kind: "hazard", cell: [3, 0], ...plain },
    { id: "a-lamp", kind: "checkpoint", cell: [4, 0], ...plain },
    { id: "a-switch", kind: "switch", cell: [5, 0], circuit: "pump", ...plain },
    { id: "a-portal", kind: "portal", cell: [6, 0], to: { room: "a", cell: [0, 1] }, ...plain },
    { id: "a-place", kind: "marker", cell: [1, 1], name: "Place", ...plain },
  ];
  return {
    ...world,
    items: [{ id: "key", name: "Key", role: "key", colour: "#c89b3c" }],
    circuits: ["pump"],
    rooms: [{ ...world.rooms[0]!, fixtures }],
  };
})();
const all = ["an-item", "a-door", "a-hazard", "a-lamp", "a-switch", "a-portal", "a-place"];

it.each<[string, string, string[]]>([
  ["", "when", ["at", "by", "ever", "end", "always", "never"]],
  ["at ", "a frame", []],
  [
    "at 4 ",
    "what",
    [
      "room",
      "cell",
      "on",
      "taken",
      "open",
      "holds",
      "circuit",
      "lives",
      "meets",
      "facing",
      "still",
      "status",
      "event",
      "aligned",
      "overlap",
      "outside",
      "pixel",
    ],
  ],
  ["ever room ", "a room", ["a"]],
  ["ever cell ", "a column", []],
  ["ever cell 1 ", "a row", []],
  ["ever cell 1 2 ", "`in`", ["in"]],
  ["ever cell 1 2 in ", "a room", ["a"]],
  ["ever on ", "a fixture", all],
  ["ever taken ", "an item on the floor", ["an-item"]],
  ["ever open ", "a door", ["a-door"]],
  ["ever aligned ", "`strictly`", ["strictly"]],
  ["ever facing ", "a direction", ["up", "up-right", "right", "down-right", "down", "down-left", "left", "up-left"]],
  ["ever holds ", "an item", ["key"]],
  ["ever holds key ", "how many", []],
  ["ever circuit ", "a circuit", ["pump"]],
  ["ever circuit pump ", "on or off", ["on", "off"]],
  ["ever lives ", "how many", []],
  ["ever status ", "a status", ["playing", "won", "lost", "escaped"]],
  ["ever event leave ", "what it is of", ["a"]],
  ["ever event enter ", "what it is of", ["a"]],
  ["ever event take ", "what it is of", ["an-item"]],
  ["ever event hurt ", "what it is of", ["a-hazard"]],
  ["ever event checkpoint ", "what it is of", ["a-lamp"]],
  ["ever event switch ", "what it is of", ["a-switch"]],
  ["ever event portal ", "what it is of", ["a-portal"]],
  ["ever event marker ", "what it is of", ["a-place"]],
  ["ever event open ", "what it is of", ["a-door"]],
  ["ever event close ", "what it is of", ["a-door"]],
  ["ever event refused ", "what it is of", ["a-door"]],
  ["ever event bump ", "what it is of", []],
  ["ever pixel ", "px", []],
  ["ever pixel 1.5 ", "px", []],
])("behind %j it offers %s", (text, name, words) => {
  expect(completeCheck(oneOfEach, text)).toEqual({ from: text.length, name, words });
  // Each of the words is one that may stand there, and one that is no such word may not.
  for (const word of words)
    expect(checkFault(oneOfEach, `${text}${word}`)?.from ?? Infinity).toBeGreaterThanOrEqual(text.length + word.length);
  if (words.length > 0)
    expect(checkFault(oneOfEach, `${text}zzz`)).toMatchObject({ from: text.length, to: text.length + 3 });
});

it("words that begin with what is typed come before those that hold it", () => {
  expect(completeCheck(oneOfEach, "ever on a-p").words).toEqual(["a-portal", "a-place"]);
  expect(completeCheck(oneOfEach, "ever on p").words).toEqual(["a-lamp", "a-portal", "a-place"]);
  expect(completeCheck(oneOfEach, "ever st").words).toEqual(["still", "status"]);
  expect(completeCheck(oneOfEach, "ever on zzz").words).toEqual([]);
});

it("every check that is offered for a frame passes in that run", () => {
  fc.assert(
    fc.property(anyHouse, anyLog, fc.nat(300), (world, log, n) => {
      const c = compile(world);
      const frame = Math.min(n, run(c, log).frames);
      const checks = checksTrueAt(c, log, stateAt(c, log, frame));
      expect(checks.length).toBeGreaterThan(0);
      expect(
        run(c, { ...log, checks }, { checks: true }).verdicts.filter(
          (verdict) => verdict.verdict !== "pass" && !verdict.law,
        ),
      ).toEqual([]);
    }),
    FIXED,
  );
});

it("what was expected is listed whole up to eight words, and begun where there are more", () => {
  const [world] = fc.sample(anyHouse, { seed: 7, numRuns: 1 });
  const withItems = (count: number): World => ({
    ...world!,
    items: Array.from({ length: count }, (_, i) => ({ id: `i${i}`, name: "Item", role: "key", colour: "#c89b3c" })),
  });
  const said = (count: number): string => checkFault(withItems(count), "ever holds nothing")!.message;
  expect(said(8)).toBe('expected an item: i0, i1, i2, i3, i4, i5, i6, i7, found "nothing"');
  expect(said(9)).toBe('expected an item: i0, i1, i2, i3, i4, i5, i6, i7 ..., found "nothing"');
});
