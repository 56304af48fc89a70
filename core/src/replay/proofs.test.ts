import { createHash } from "node:crypto";
import fc from "fast-check";
import { expect, it } from "vitest";
import { acceptWalk } from "../logs/accept-log.ts";
import { readLog } from "../logs/read-log.ts";
import { writeLog } from "../logs/write-log.ts";
import { compile } from "../simulation/compile.ts";
import { run } from "./run.ts";
import { anyHouse } from "../test-support/any-house.ts";
import { FIXED, anyLog } from "../test-support/arbitraries.ts";
import { tinyLog, tinyWorld } from "../test-support/tiny-world.ts";
import { summary } from "../edits/summary.ts";
import { firstFailing } from "./first-failing.ts";
import { pathDifference } from "./path-difference.ts";
import { Prover } from "./prover.ts";

const sha256 = () => {
  const hash = createHash("sha256");
  return { update: (text: string) => void hash.update(text, "latin1"), hex: () => hash.digest("hex") };
};

it("two paths part in the first frame in which room or place is another one, and nowhere where they are the same", () => {
  fc.assert(
    fc.property(anyHouse, anyLog, anyLog, (world, log, other) => {
      const c = compile(world);
      const [one, two] = [run(c, log, { rows: true }).rows!, run(c, other, { rows: true }).rows!];
      const at = pathDifference(c, log, c, other);
      const same = (frame: number): boolean =>
        frame < one.count &&
        frame < two.count &&
        one.room[frame] === two.room[frame] &&
        one.x[frame] === two.x[frame] &&
        one.y[frame] === two.y[frame];
      const last = Math.max(one.count, two.count);
      const first = Array.from({ length: last }, (_, frame) => frame).find((frame) => !same(frame));
      expect(at?.frame).toBe(first);
      expect(pathDifference(c, log, c, log)).toBeNull();
      // Rooms in another order are the same rooms.
      const turned = compile({ ...world, rooms: [...world.rooms].reverse() });
      if (world.rooms.every((room) => room.fixtures.length === 0))
        expect(pathDifference(c, log, turned, log)).toBeNull();
    }),
    FIXED,
  );
});

it("the first that fails is found by halves, with about log2 of them asked", async () => {
  await fc.assert(
    fc.asyncProperty(fc.integer({ min: 1, max: 400 }), fc.integer({ min: 1, max: 400 }), async (good, length) => {
      const bad = good + length;
      const broken = good + 1 + Math.floor((length - 1) / 3);
      let asked = 0;
      const found = await firstFailing(good, bad, (number) => {
        asked++;
        return Promise.resolve(number < broken);
      });
      expect(found).toBe(broken);
      expect(asked).toBeLessThanOrEqual(Math.ceil(Math.log2(length)) + 1);
    }),
    FIXED,
  );
});

it("an accepted walk is told from another one, keeps its reason, and says so in words", () => {
  const world = tinyWorld(["S....", "....."], { glide: { speed: 4 } });
  const log = tinyLog("12 R", { title: "Right", notes: ["Kept"] });
  const before = new Prover(world, sha256).prove(log, true);
  expect(before).toMatchObject({ holds: true, refused: null, frames: 12, accepted: null });
  const accepted = acceptWalk(log, before.fingerprint, " it  feels right ");
  expect(accepted.notes).toEqual(["Kept", "Accepted: it feels right"]);
  expect(acceptWalk(accepted, before.fingerprint, "another day").notes).toEqual(["Kept", "Accepted: another day"]);
  expect(acceptWalk(accepted, null, "")).toEqual({ ...log, accept: null });
  expect(readLog(writeLog(accepted)).accept).toBe(before.fingerprint);
  expect(new Prover(world, sha256).prove(accepted)).toMatchObject({ holds: true, accepted: true });
  const faster = tinyWorld(["S....", "....."], { glide: { speed: 8 } });
  expect(new Prover(faster, sha256).prove(accepted)).toMatchObject({ holds: true, accepted: false });
  // Without a hash nobody can say.
  expect(new Prover(faster).prove(accepted)).toMatchObject({ holds: true, accepted: null, fingerprint: null });
  expect(new Prover(world).prove({ ...log, rules: "roof" })).toMatchObject({
    holds: false,
    refused: expect.stringContaining("roof") as string,
    checks: [],
  });
  expect(new Prover(world).prove("nonsense")).toMatchObject({
    holds: false,
    refused: expect.stringContaining("line 1") as string,
  });

  const said = (after: typeof log): string =>
    summary(world, [{ kind: "change-log", log: "right", before: writeLog(log), after: writeLog(after) }]);
  expect(said(accepted)).toBe("log right: accepted as it walks, it feels right");
  expect(said({ ...log, title: "To the right", checks: [{ when: { kind: "ever" }, what: { kind: "still" } }] })).toBe(
    "log right: titled To the right; check ever still",
  );
  expect(said({ ...log, lines: tinyLog("12 R, 4 .").lines, rules: "main" })).toBe(
    "log right: rules main; keys, 12 to 16 frames",
  );
});
