import fc from "fast-check";
import { expect, it } from "vitest";
import { anyHouse } from "../test-support/any-house.ts";
import { FIXED, anyLog } from "../test-support/arbitraries.ts";
import { run, stateAt } from "../simulation/run.ts";
import { compile } from "../simulation/compile.ts";
import { parseCheck } from "./check.ts";
import { checkFault, completeCheck } from "./check-words.ts";
import { checksTrueAt } from "./true-at.ts";

/** A check typed by taking what is offered, with a number where none is. */
function typed(world: Parameters<typeof completeCheck>[0], picks: readonly number[]): string {
  let text = "";
  for (const pick of picks) {
    const { words, name } = completeCheck(world, text);
    if (words.length === 0 && !/frame|column|row|how many|px/.test(name)) break;
    text += `${words.length > 0 ? words[pick % words.length]! : pick % 40} `;
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
      if (fault !== null) expect(fault.from).toBe(text.length);
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
    ["end cell 4", 10, 10, /^expected a row$/],
    ["", 0, 0, /^expected when/],
  ] as const) {
    expect({ text, ...checkFault(world!, text) }).toEqual({ text, from, to, message: expect.stringMatching(message) as string });
  }
  expect(completeCheck(world!, "always al")).toMatchObject({ from: 7, words: ["aligned"] });
  expect(completeCheck(world!, `ever room ${room.slice(0, 1)}`).words).toContain(room);
});

it("every check that is offered for a frame passes in that run", () => {
  fc.assert(
    fc.property(anyHouse, anyLog, fc.nat(300), (world, log, n) => {
      const c = compile(world);
      const frame = Math.min(n, run(c, log).frames);
      const checks = checksTrueAt(c, log, stateAt(c, log, frame));
      expect(checks.length).toBeGreaterThan(0);
      expect(run(c, { ...log, checks }, { checks: true }).verdicts.filter((verdict) => verdict.verdict !== "pass" && !verdict.law)).toEqual([]);
    }),
    FIXED,
  );
});
