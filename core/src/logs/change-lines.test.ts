import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { compile } from "../simulation/compile.ts";
import { KeyFrames } from "../replay/key-frames.ts";
import { explainFrame, run, runWithKeyFrames } from "../replay/run.ts";
import type { World } from "../world/world.ts";
import { anyHouse } from "../test-support/any-house.ts";
import { FIXED, anyLog } from "../test-support/arbitraries.ts";
import { tinyLog, tinyWorld } from "../test-support/tiny-world.ts";
import { logHolds } from "../checks/verdict.ts";
import { asFrames, cutLog, keyRuns, withLine, withLineAfter } from "./change-lines.ts";
import type { InputLog } from "./input-log.ts";
import { logFrames } from "./input-log.ts";
import { untilChoices } from "../replay/until-choices.ts";

const until = (log: InputLog, at: number): InputLog => {
  const line = log.lines[at];
  return line?.kind === "keys"
    ? withLine(log, at, { ...line, until: { kind: "event", event: "bump", subject: null } })
    : log;
};

it("a log cut at a frame walks the same up to it and ends there, until lines and all", () => {
  fc.assert(
    fc.property(anyHouse, anyLog, fc.nat(300), fc.nat(8), (world, plain, n, at) => {
      const c = compile(world);
      const log = until(plain, at % plain.lines.length);
      const whole = run(c, log, { rows: true });
      const frame = Math.min(n, whole.frames);
      const cut = cutLog(log, whole.lineEnds, frame);
      const again = run(c, cut, { rows: true });
      expect(again.frames).toBe(frame);
      expect(Array.from(again.rows!.x)).toEqual(Array.from(whole.rows!.x.subarray(0, frame + 1)));
      expect(Array.from(again.rows!.keys)).toEqual(Array.from(whole.rows!.keys.subarray(0, frame + 1)));
    }),
    FIXED,
  );
});

it("a log cut behind the end of its run is what was pressed in it", () => {
  const log = tinyLog("3 R, 9 D, 4 L");
  // It was won in the second line.
  expect(cutLog(log, [3, 7], 9).lines).toEqual(tinyLog("3 R, 4 D").lines);
  expect(cutLog(log, [3], 9).lines).toEqual(tinyLog("3 R").lines);
});

it("a line is put in another's place, behind one or first, or taken away", () => {
  const log = tinyLog("1 R,2 L,3 U");
  const [line] = tinyLog("9 D").lines;
  const counts = ({ lines }: InputLog): number[] => lines.map((each) => (each.kind === "keys" ? each.count : 0));
  expect([0, 1, 2].map((at) => counts(withLine(log, at, line!)))).toEqual([
    [9, 2, 3],
    [1, 9, 3],
    [1, 2, 9],
  ]);
  expect([0, 1, 2].map((at) => counts(withLine(log, at, null)))).toEqual([
    [2, 3],
    [1, 3],
    [1, 2],
  ]);
  expect([-1, 0, 1, 2].map((at) => counts(withLineAfter(log, at, line!)))).toEqual([
    [9, 1, 2, 3],
    [1, 9, 2, 3],
    [1, 2, 9, 3],
    [1, 2, 3, 9],
  ]);
});

it("lines are told with the frames that they lasted; one that was not reached, or not for a frame, keeps its count", () => {
  const log = { ...tinyLog("3 R, 9 D, 4 L, 5 U"), lines: [...tinyLog("3 R, 9 D, 4 L, 5 U").lines] };
  log.lines.splice(1, 0, { kind: "comment", text: "down" });
  const rows = keyRuns(log, [3, 3, 5]);
  expect(rows.map(({ at, from, to }) => [at, from, to])).toEqual([
    [0, 0, 3],
    [2, 3, 3],
    [3, 3, 5],
    [4, null, null],
  ]);
  expect(rows.map((row) => asFrames(row).count)).toEqual([3, 9, 2, 5]);
});

it("a frame explained from a key frame is the same as from the start", () => {
  fc.assert(
    fc.property(anyHouse, anyLog, fc.nat(300), fc.nat(8), (world, plain, n, at) => {
      const c = compile(world);
      const log = until(plain, at % plain.lines.length);
      const { result, keyFrames } = runWithKeyFrames(c, log, {}, new KeyFrames(c, log, 7));
      const frame = Math.min(n, result.frames);
      expect(explainFrame(c, log, frame, keyFrames)).toEqual(explainFrame(c, log, frame));
    }),
    FIXED,
  );
});

describe("a log that holds keys until a place is reached", () => {
  const walk = tinyWorld(["S.......", ".......#", "........"]);
  const faster = (world: World, speed: number): World => ({
    ...world,
    rules: world.rules.map((rules) => ({ ...rules, glide: { ...rules.glide, speed } })),
  });
  // Right to the wall's column, down beside the wall, left along the lower row.
  const slow = faster(walk, 2);
  const inFrames = tinyLog("48 R, 16 D, 32 L, 8 .", {
    checks: [{ when: { kind: "end" }, what: { kind: "cell", x: 2, y: 2, room: null } }],
  });

  it("still holds when speed 2 becomes 4; the same one in frames does not", () => {
    let log = inFrames;
    for (const at of [0, 1, 2]) {
      const choice = untilChoices(compile(slow), log, at).find(({ same }) => same)!;
      expect(choice).toMatchObject({ holds: true, sooner: 0 });
      log = choice.log;
    }
    const holds = (world: World, each: InputLog): boolean =>
      logHolds(run(compile(world), each, { checks: true }).verdicts);
    expect([2, 4, 8, 1].map((speed) => holds(faster(walk, speed), log))).toEqual([true, true, true, true]);
    expect([2, 4].map((speed) => holds(faster(walk, speed), inFrames))).toEqual([true, false]);
  });

  it("goes back to the frames that it lasted", () => {
    const c = compile(slow);
    const choice = untilChoices(c, inFrames, 0)[0]!;
    const { lineEnds } = run(c, choice.log);
    const [row] = keyRuns(choice.log, lineEnds);
    expect(row).toMatchObject({ at: 0, from: 0, to: 48, line: { count: 288 } });
    expect(withLine(choice.log, 0, asFrames(row!))).toEqual(inFrames);
    expect(logFrames(inFrames)).toBe(104);
  });
});

it("what a stretch may be held until comes about in it and not before it; where the walk is said to be the same it is, and back in frames it is again", () => {
  let same = 0;
  fc.assert(
    fc.property(anyHouse, anyLog, fc.nat(8), (world, log, n) => {
      const c = compile(world);
      const at = n % log.lines.length;
      const before = run(c, log, { rows: true });
      const found = keyRuns(log, before.lineEnds).find((each) => each.at === at)!;
      for (const choice of untilChoices(c, log, at)) {
        const after = run(c, choice.log, { rows: true, checks: true });
        const row = keyRuns(choice.log, after.lineEnds).find((each) => each.at === at)!;
        expect(found.to! - row.to!).toBe(choice.sooner);
        expect(row.to).toBeGreaterThan(row.from!);
        expect(logHolds(after.verdicts)).toBe(choice.holds);
        if (!choice.same) continue;
        same++;
        expect([Array.from(after.rows!.x), Array.from(after.rows!.y), Array.from(after.rows!.room)]).toEqual([
          Array.from(before.rows!.x),
          Array.from(before.rows!.y),
          Array.from(before.rows!.room),
        ]);
        expect(run(c, withLine(choice.log, at, asFrames(row))).pathHash).toBe(before.pathHash);
      }
    }),
    FIXED,
  );
  expect(same).toBeGreaterThan(20);
});
