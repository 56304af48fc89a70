import fc from "fast-check";
import { expect, it } from "vitest";
import { run } from "../replay/run.ts";
import { compile } from "../simulation/compile.ts";
import { anyFullLogOf } from "../test-support/any-full-log.ts";
import { anyHouse } from "../test-support/any-house.ts";
import { FIXED } from "../test-support/arbitraries.ts";
import { told } from "../test-support/told.ts";
import { flatLog } from "./flat-log.ts";
import type { InputLog } from "./input-log.ts";
import { readLog } from "./read-log.ts";
import { writeLog } from "./write-log.ts";
import { same } from "../test-support/same.ts";

const anyHouseAndLog = anyHouse.chain((world) => fc.tuple(fc.constant(world), anyFullLogOf(world)));

/** The lines as one presses them: neighbours that press the same are one. */
function pressed(log: InputLog): unknown[] {
  const lines: { count: number; rest: string }[] = [];
  for (const line of log.lines) {
    const { count, ...rest } = line.kind === "keys" ? line : { ...line, count: 1 };
    const text = JSON.stringify(rest);
    const before = lines.at(-1);
    if (before && before.rest === text && line.kind === "keys" && line.until === null) before.count += count;
    else lines.push({ count, rest: text });
  }
  return lines;
}

it("a log of whatever kind is written, read and written again without a byte or a frame that is another", () => {
  const seen = { with: 0, pointer: 0, until: 0, use: 0, comment: 0, checks: 0 };
  fc.assert(
    fc.property(anyHouseAndLog, ([world, log]) => {
      const text = writeLog(log);
      const again = readLog(text);
      expect(writeLog(again)).toBe(text);
      same({ ...again, lines: pressed(again) }, { ...log, lines: pressed(log) });
      if (log.with.length > 0) seen.with++;
      if (log.checks.length > 0) seen.checks++;
      for (const line of log.lines) {
        if (line.kind === "comment") seen.comment++;
        else {
          if (line.pointer !== null) seen.pointer++;
          if (line.until !== null) seen.until++;
          if (line.keys & 16) seen.use++;
        }
      }
      const c = compile(world);
      const [one, other] = [run(c, log, { rows: true, checks: true }), run(c, again, { rows: true, checks: true })];
      same(other.rows, one.rows);
      same(other.verdicts, one.verdicts);
    }),
    FIXED,
  );
  told("logs written and read", seen);
  expect(Math.min(...Object.values(seen))).toBeGreaterThan(50);
});

it("its flat form presses the frames that were pressed: the same rows, and no `until` left", () => {
  let early = 0;
  fc.assert(
    fc.property(anyHouseAndLog, ([world, log]) => {
      const c = compile(world);
      const one = run(c, log, { rows: true });
      const flat = flatLog(log, one.lineEnds);
      same(
        flat.lines.some((line) => line.kind === "keys" && line.until !== null),
        false,
      );
      same(run(c, flat, { rows: true }).rows, one.rows);
      same(run(c, readLog(writeLog(flat)), { rows: true }).rows, one.rows);
      if (log.lines.some((line, i) => line.kind === "keys" && line.until !== null && (one.lineEnds[i] ?? 0) > 0))
        early++;
    }),
    FIXED,
  );
  expect(early).toBeGreaterThan(30);
});
