import fc from "fast-check";
import { expect, it } from "vitest";
import { EMPTY_LOG } from "../../logs/input-log.ts";
import { run } from "../../replay/run.ts";
import { compile } from "../../simulation/compile.ts";
import { anyHouse } from "../../test-support/any-house.ts";
import { FIXED } from "../../test-support/arbitraries.ts";
import { told } from "../../test-support/told.ts";
import { tinyWorld } from "../../test-support/tiny-world.ts";
import { Reach } from "./reach.ts";
import { sturdyLines } from "./sturdy-way.ts";
import { playWay } from "./way-steps.ts";

it("a way round corners is held from cell to cell, and survives another speed", () => {
  const world = tinyWorld(["S   ", "### ", "    "], { gait: "glide", glide: { speed: 2 } });
  const asked = new Reach(world);
  asked.answer();
  const found = asked.wayToCell(0, 8)!;
  const lines = sturdyLines(world, "main", null, found, playWay(world, "main", null, found));
  expect(lines.flatMap((line) => (line.kind === "keys" && line.until !== null ? [line.until] : []))).toEqual([
    { kind: "cell", x: 3, y: 0, room: "a" },
    { kind: "cell", x: 3, y: 2, room: "a" },
    { kind: "cell", x: 0, y: 2, room: "a" },
  ]);
  const slow = tinyWorld(["S   ", "### ", "    "], { gait: "glide", glide: { speed: 1.25 } });
  const { rows } = run(compile(slow), { ...EMPTY_LOG, lines }, { rows: true });
  const last = rows!.count - 1;
  expect([rows!.x[last], rows!.y[last]]).toEqual([0, 2 * 16 * 256]);
});

it("what is given does the same things in the same order and ends in the same place", () => {
  const seen = { held: 0 };
  fc.assert(
    fc.property(anyHouse, fc.nat(), (house, n) => {
      const world = { ...house, rules: house.rules.map((each) => ({ ...each, gait: "hop" as const })) };
      const reach = new Reach(world, { limit: 2000 });
      reach.answer();
      const way = reach.wayToFixture(n % Math.max(1, compile(world).fixtures.all.length));
      if (way === null || way.moves === 0) return;
      const played = playWay(world, "main", null, way);
      const lines = sturdyLines(world, "main", null, way, played);
      if (lines.some((line) => line.kind === "keys" && line.until !== null)) seen.held++;
      const again = playWay(world, "main", null, { ...way, lines });
      expect(again.steps.map(({ event, subject }) => [event, subject])).toEqual(
        played.steps.map(({ event, subject }) => [event, subject]),
      );
    }),
    { ...FIXED, numRuns: 60 },
  );
  told("ways", seen);
  expect(seen.held).toBeGreaterThan(5);
});
