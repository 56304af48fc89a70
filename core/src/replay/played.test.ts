import { createHash } from "node:crypto";
import fc from "fast-check";
import { expect, it } from "vitest";
import { RefusedError } from "../base/refused-error.ts";
import type { InputLog, LogLine } from "../logs/input-log.ts";
import { writeLog } from "../logs/write-log.ts";
import { compile } from "../simulation/compile.ts";
import { fingerprint } from "../simulation/trace.ts";
import { FIXED, anyWorld } from "../test-support/arbitraries.ts";
import { tinyWorld } from "../test-support/tiny-world.ts";
import { RIGHT } from "../world/keys.ts";
import type { World } from "../world/world.ts";
import { MOST_PLAYED, playedLog, readPlayed } from "./played.ts";
import { run } from "./run.ts";

const sha256 = () => {
  const hash = createHash("sha256");
  return { update: (text: string) => void hash.update(text), hex: () => hash.digest("hex") };
};
const keys = (count: number, held: number): LogLine => ({
  kind: "keys",
  count,
  keys: held,
  pointer: null,
  until: null,
});

function walked(world: World, log: InputLog): string {
  const c = compile(world, world.activeRules);
  return fingerprint(c, run(c, log, { rows: true }).rows!, sha256());
}

it("what is played in a world is read as it was walked, and no other run goes with its fingerprint", () => {
  fc.assert(
    fc.property(
      anyWorld,
      fc.array(fc.tuple(fc.integer({ min: 1, max: 40 }), fc.integer({ min: 0, max: 63 })), {
        minLength: 1,
        maxLength: 12,
      }),
      (world, lines) => {
        const log = { ...playedLog(world), lines: lines.map(([count, held]) => keys(count, held)) };
        const { frames } = run(compile(world, world.activeRules), log);
        fc.pre(frames === lines.reduce((sum, [count]) => sum + count, 0));
        const mark = walked(world, log);
        const read = readPlayed(writeLog(log), mark, world, sha256());
        expect(read).toMatchObject({ frames, fingerprint: mark });
        expect(walked(world, read.log)).toBe(mark);
        const longer = { ...log, lines: [...log.lines, keys(1, 0)] };
        expect(() => readPlayed(writeLog(longer), mark, world, sha256())).toThrow(RefusedError);
      },
    ),
    FIXED,
  );
});

const world = tinyWorld(["....", ".S..", "...."]);
const good: InputLog = { ...playedLog(world), lines: [keys(20, RIGHT), keys(10, 0)] };

it.each<readonly [string, Partial<InputLog>, RegExp]>([
  ["another world", { world: "other" }, /must be the one/],
  ["other rules", { rules: "slow" }, /must be the one/],
  ["another start", { start: { ...world.start, cell: [3, 2] } }, /must be the one/],
  ["no start", { start: null }, /must be the one/],
  ["something set up", { with: [{ kind: "holds", item: "key", count: 9 }] }, /must be the one/],
  ["a title", { title: "<b>mine</b>" }, /must be the one/],
  ["a tag", { tags: ["locks"] }, /must be the one/],
  ["a note", { notes: ["Accepted: mine"] }, /must be the one/],
  ["a walk that is to be accepted", { accept: "0".repeat(64) }, /must be the one/],
  ["a check", { checks: [{ when: { kind: "end" }, what: { kind: "still" } } as never] }, /must be the one/],
  ["a comment", { lines: [...good.lines, { kind: "comment", text: " look here" }] }, /no comment/],
  [
    "an until",
    { lines: [{ ...keys(20, RIGHT), until: { kind: "still" } } as never, keys(10, 0)] },
    /no comment, no `until`/,
  ],
  ["more frames than one may play", { lines: [keys(MOST_PLAYED + 1, 0)] }, /at most 36000 frames, found 36001/],
  ["no frames at all", { lines: [] }, /one at least/],
  ["another run", { lines: [keys(19, RIGHT), keys(11, 0)] }, /not the one that its fingerprint says/],
])("a playtest with %s is refused", (_what, over, message) => {
  const mark = walked(world, good);
  expect(readPlayed(writeLog(good), mark, world, sha256()).frames).toBe(30);
  expect(() => readPlayed(writeLog({ ...good, ...over }), mark, world, sha256())).toThrow(message);
});
