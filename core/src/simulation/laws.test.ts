import fc from "fast-check";
import { expect, it } from "vitest";
import { flatLog } from "../logs/flat-log.ts";
import type { InputLog, LogLine } from "../logs/input-log.ts";
import { logFrames } from "../logs/input-log.ts";
import { FIXED, anyLog, anyOptions, anyRows, anyWorld } from "../test-support/arbitraries.ts";
import { meets, shapesNear } from "../test-support/naive-movement.ts";
import { told } from "../test-support/told.ts";
import { tinyLog, tinyWorld } from "../test-support/tiny-world.ts";
import { compile } from "./compile.ts";
import { explainFrame, run, stateAt } from "../replay/run.ts";
import { same } from "../test-support/same.ts";

/** The same log with its lines cut into single frames. */
function cut(log: InputLog): InputLog {
  return {
    ...log,
    lines: log.lines.flatMap((line): LogLine[] =>
      line.kind === "keys" ? Array.from({ length: line.count }, () => ({ ...line, count: 1 })) : [line],
    ),
  };
}

it("a run is the same every time, however the log's lines are cut", () => {
  fc.assert(
    fc.property(anyWorld, anyLog, (world, log) => {
      const first = run(compile(world), log, { rows: true });
      same(run(compile(world), log, { rows: true }).rows, first.rows);
      const again = run(compile(world), cut(log), { rows: true });
      same(again.rows, first.rows);
      expect(again.pathHash).toBe(first.pathHash);
    }),
    FIXED,
  );
});

it("a log with `until` and its flat form have the same trace", () => {
  let early = 0;
  const anyWhat = fc.oneof(
    fc.constant({ kind: "aligned", strictly: true } as const),
    fc.constant({ kind: "still" } as const),
    fc.record({
      kind: fc.constant("event" as const),
      event: fc.constantFrom("bump" as const, "arrive" as const),
      subject: fc.constant(null),
    }),
    fc.record({
      kind: fc.constant("cell" as const),
      x: fc.integer({ min: 0, max: 5 }),
      y: fc.integer({ min: 0, max: 5 }),
      room: fc.constant(null),
    }),
  );
  fc.assert(
    fc.property(
      anyWorld,
      anyLog,
      fc.array(fc.option(anyWhat), { minLength: 24, maxLength: 24 }),
      (world, log, whats) => {
        const until = {
          ...log,
          lines: log.lines.map((line, i) => (line.kind === "keys" ? { ...line, until: whats[i] ?? null } : line)),
        };
        const c = compile(world);
        const first = run(c, until, { rows: true, checks: true });
        const flat = flatLog(until, first.lineEnds);
        same(
          flat.lines.every((line) => line.kind === "comment" || line.until === null),
          true,
        );
        const again = run(c, flat, { rows: true, checks: true });
        same(again.rows, first.rows);
        same(again.verdicts, []);
        if (first.lineEnds.length === log.lines.length && first.frames < logFrames(log)) early++;
      },
    ),
    FIXED,
  );
  expect(early).toBeGreaterThan(20);
});

it("the world's laws are watched in every log, behind the log's own checks", () => {
  const world = { ...tinyWorld(["S.#"], { glide: { speed: 4 } }), laws: ["never event bump", "always aligned"] };
  const log = {
    ...tinyLog("9 R"),
    checks: [{ when: { kind: "end" }, what: { kind: "cell", x: 1, y: 0, room: null } }],
  } as const;
  expect(run(compile(world), log, { checks: true }).verdicts).toEqual([
    { check: "end cell 1 0", verdict: "pass", frame: 9, seen: null },
    { check: "never event bump", verdict: "fail", frame: 5, seen: "bump", law: true },
    { check: "always aligned", verdict: "pass", frame: 9, seen: null, law: true },
  ]);
});

it("land rests on the grid only, and never overlaps what blocks: not on its way either, unless corners may be cut", () => {
  const seen = { arrived: 0, cut: 0 };
  fc.assert(
    fc.property(anyRows, anyOptions, anyLog, (rows, options, log) => {
      const world = tinyWorld(rows, { ...options, glide: { ...options.glide, arrive: "land" } });
      const c = compile(world);
      const { rows: trace } = run(c, log, { rows: true });
      const overlaps = (i: number): boolean =>
        shapesNear(c.ground, 0, trace!.x[i]!, trace!.y[i]!, 2).some((shape) =>
          meets(c.ground, shape, trace!.x[i]!, trace!.y[i]!),
        );
      same(overlaps(0), false);
      for (let i = 1; i < trace!.count; i++) {
        const rests = trace!.x[i] === trace!.x[i - 1] && trace!.y[i] === trace!.y[i - 1];
        if (rests) same([trace!.x[i]! % 4096, trace!.y[i]! % 4096], [0, 0]);
        if (!overlaps(i)) continue;
        // A corner is cut on a diagonal leg, and left behind with it.
        same(
          { frame: i, rests, cutsCorners: options.input!.ways === 8 && options.glide!.cutCorners },
          {
            frame: i,
            rests: false,
            cutsCorners: true,
          },
        );
        seen.cut++;
      }
      seen.arrived += trace!.events.length > 0 ? 1 : 0;
    }),
    FIXED,
  );
  told("land", seen);
  expect(seen.arrived).toBeGreaterThan(FIXED.numRuns / 2);
  expect(seen.cut).toBeGreaterThan(10);
});

it("the state in the middle of a run, and that frame's explanation, are those of the run", () => {
  const c = compile(tinyWorld(["S.#"], { glide: { speed: 4 } }));
  const log = tinyLog("4 R,3 R,2 .");
  const { rows } = run(c, log, { rows: true });
  for (let frame = 0; frame < rows!.count; frame++) {
    expect(stateAt(c, log, frame).x).toBe(rows!.x[frame]);
    expect(explainFrame(c, log, frame)).toMatchObject({ frame, to: [rows!.x[frame], 0] });
  }
  const stopped = explainFrame(c, log, 5);
  expect(stopped).toMatchObject({
    stoppedBy: { cx: 2, cy: 0, tile: 1, blocks: true },
    events: ["bump"],
    bumping: true,
  });
  expect(explainFrame(c, log, 99).frame).toBe(9);
});
