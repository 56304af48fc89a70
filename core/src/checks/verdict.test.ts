import { describe, expect, it } from "vitest";
import { compile } from "../simulation/compile.ts";
import { run } from "../replay/run.ts";
import type { TinyOptions } from "../test-support/tiny-world.ts";
import { tinyLog, tinyWorld } from "../test-support/tiny-world.ts";
import { checkText, parseCheck } from "./check.ts";
import { parseCondition } from "./condition.ts";

/** `verdict frame`, and what was seen, of a check over a log in a room. */
function verdict(check: string, keys: string, rows = ["S..."], options: TinyOptions = { glide: { speed: 8 } }): string {
  const parsed = parseCheck(check.split(" "));
  if ("fault" in parsed) throw new Error(parsed.fault);
  expect(checkText(parsed.check)).toBe(check);
  const { verdicts } = run(compile(tinyWorld(rows, options)), tinyLog(keys, { checks: [parsed.check] }), {
    checks: true,
  });
  return `${verdicts[0]!.verdict} ${verdicts[0]!.frame}${verdicts[0]!.seen === null ? "" : ` (${verdicts[0]!.seen})`}`;
}

describe("deciding frames", () => {
  it.each([
    ["at 4 cell 2 0", "pass 4"],
    ["at 3 cell 1 0", "fail 3 (cell 2 0)"],
    ["at 9 cell 2 0", "unreached 6 (the run ended at frame 6)"],
    ["by 5 cell 2 0", "pass 3"],
    ["by 2 cell 2 0", "fail 2 (cell 1 0)"],
    ["by 90 cell 3 0", "fail 6 (cell 2 0)"],
    ["ever cell 0 0", "pass 0"],
    ["ever facing up", "fail 6 (facing right)"],
    ["end cell 2 0 in a", "pass 6"],
    ["end cell 1 0", "fail 6 (cell 2 0)"],
    ["always room a", "pass 6"],
    ["always still", "fail 1 (moved 8 0 px)"],
    ["never event arrive", "fail 2 (arrive)"],
    ["never event bump", "pass 6"],
    ["never facing right", "fail 1 (facing right)"],
  ])("%s: %s", (check, expected) => expect(verdict(check, "4 R,2 .")).toBe(expected));
});

describe("what is asked", () => {
  it("aligned takes the way between two cells, strictly does not", () => {
    expect(verdict("always aligned", "4 R")).toBe("pass 4");
    expect(verdict("always aligned strictly", "4 R")).toBe("fail 1 (8 px off the grid at 8 0)");
  });
  it.each([
    ["equal", "fail 6 (2 px off the grid at 42 0, the leg runs on at 42 px)"],
    ["past", "fail 6 (2 px off the grid at 42 0)"],
    ["land", "pass 12"],
  ] as const)("tile 40, speed 7, arrive %s: %s", (arrive, expected) => {
    expect(verdict("always aligned", "12 R", ["S....."], { tileSize: 40, glide: { speed: 7, arrive } })).toBe(expected);
  });
  it("overlap and outside are read from the place alone", () => {
    expect(verdict("never overlap", "9 R", ["S#"], { tileSize: 40, glide: { speed: 7, arrive: "equal" } })).toBe(
      "pass 9",
    );
    expect(verdict("never overlap", "9 R", ["S.#"], { tileSize: 40, glide: { speed: 7, arrive: "equal" } })).toBe(
      "fail 6 (overlaps at 42 0)",
    );
    expect(verdict("never outside", "9 R", ["S."], { tileSize: 40, glide: { speed: 7, arrive: "equal" } })).toBe(
      "fail 6 (outside at 42 0)",
    );
    expect(verdict("ever pixel 8.5 0", "3 R", ["S."], { glide: { speed: 8.5 } })).toBe("pass 1");
    expect(verdict("end status escaped", "30 R", ["S."], { tileSize: 40, glide: { speed: 7, arrive: "equal" } })).toBe(
      "pass 12",
    );
  });
  it("a name that the world does not have is a failed check", () => {
    expect(verdict("never taken crank-1", "2 R")).toBe("fail 0 (no fixture crank-1 in this world)");
    expect(verdict("ever room loft", "2 R")).toBe("fail 0 (no room loft in this world)");
  });
  it("what was expected is said in place of what was written", () => {
    expect(parseCondition(["cell", "3"])).toEqual({ fault: 'expected `cell X Y [in ROOM]`, found "cell 3"' });
    expect(parseCheck(["by", "aligned"])).toEqual({ fault: 'expected a frame number after `by`, found "aligned"' });
    expect(parseCheck(["end", "sits"])).toMatchObject({
      fault: expect.stringContaining('"sits" is no check') as string,
    });
  });
});

it("an until ends its line in the first frame in which it holds; run out, it ends the log and is a failed check", () => {
  const until = { kind: "cell", x: 2, y: 0, room: null } as const;
  const log = tinyLog("50 R,3 .");
  const lines = log.lines.map((line, i) => (i === 0 && line.kind === "keys" ? { ...line, until } : line));
  const c = compile(tinyWorld(["S..."], { glide: { speed: 8 } }));
  expect(run(c, { ...log, lines }, { checks: true })).toMatchObject({ frames: 6, verdicts: [] });
  const short = lines.map((line, i) => (i === 0 && line.kind === "keys" ? { ...line, count: 2 } : line));
  expect(run(c, { ...log, lines: short }, { checks: true })).toMatchObject({
    frames: 2,
    verdicts: [{ check: "until cell 2 0", verdict: "fail", frame: 2, seen: "cell 1 0" }],
  });
});
