import fc from "fast-check";
import { expect, it } from "vitest";
import { EMPTY_LOG } from "../../logs/input-log.ts";
import { run } from "../../replay/run.ts";
import { compile } from "../../simulation/compile.ts";
import { traceText } from "../../simulation/trace.ts";
import { anyHouse } from "../../test-support/any-house.ts";
import { FIXED } from "../../test-support/arbitraries.ts";
import { told } from "../../test-support/told.ts";
import { tinyWorld } from "../../test-support/tiny-world.ts";
import { Reach } from "./reach.ts";

it("what is found under rules that leave the grid is arrived at by replay, in as many frames as it says", () => {
  const seen = { fixtures: 0, cells: 0 };
  fc.assert(
    fc.property(anyHouse, fc.constantFrom("roam" as const, "drift" as const), fc.nat(), (house, gait, n) => {
      const world = { ...house, rules: house.rules.map((each) => ({ ...each, gait })) };
      const reach = new Reach(world, { limit: 400 });
      const answer = reach.answer();
      const c = compile(world);
      c.fixtures.all.forEach(({ id }, i) => {
        const way = reach.wayToFixture(i);
        if (way === null || way.moves === 0) return;
        expect(way.moves).toBe(answer.fixtures[i]);
        const { rows } = run(c, { ...EMPTY_LOG, lines: way.lines }, { rows: true });
        const last = [...traceText(c, rows!)]
          .join("")
          .split("\n")
          .find((row) => row.startsWith(`${way.moves},`));
        expect(last).toContain(`:${id}`);
        seen.fixtures++;
      });
      const room = n % c.rooms.length;
      const cell = n % answer.first[room]!.length;
      const way = reach.wayToCell(room, cell);
      if (way === null || way.moves === 0) return;
      const { rows } = run(c, { ...EMPTY_LOG, lines: way.lines }, { rows: true });
      const { width } = c.rooms[room]!;
      const [x, y] = [rows!.x[way.moves]!, rows!.y[way.moves]!].map((at) => Math.floor(at / c.tileUnits + 0.5)) as [
        number,
        number,
      ];
      expect([rows!.room[way.moves], y * width + x]).toEqual([room, cell]);
      seen.cells++;
    }),
    { ...FIXED, numRuns: 35 },
  );
  told("ways replayed", seen);
  expect(Math.min(seen.cells, seen.fixtures)).toBeGreaterThan(5);
});

it("a walker that stops at a wall between two cells is told to rest off the grid, with the log that shows it", () => {
  const { alignment } = new Reach(tinyWorld(["S  #"], { gait: "roam", roam: { speedX: 3, speedY: 3 } })).answer();
  expect(alignment.verdict).toBe("broken");
  expect(alignment.way!.lines.length).toBeGreaterThan(0);
});
