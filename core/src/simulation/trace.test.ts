import fc from "fast-check";
import { expect, it } from "vitest";
import { run, stateAt } from "../replay/run.ts";
import { anyHouseWithActors } from "../test-support/any-actors.ts";
import { anyFullLogOf } from "../test-support/any-full-log.ts";
import { FIXED } from "../test-support/arbitraries.ts";
import { tinyLog, tinyWorld } from "../test-support/tiny-world.ts";
import { newActor } from "../world/actors.ts";
import { actorTraceText } from "./actor-rows.ts";
import { compile } from "./compile.ts";
import { step } from "./step.ts";
import type { TraceRows } from "./trace.ts";
import { TraceRecorder, traceText } from "./trace.ts";
import type { Compiled } from "../compiled/compiled.ts";

const texts = (c: Compiled, rows: TraceRows): string => [...traceText(c, rows), ...actorTraceText(c, rows)].join("");

it("rows that go on behind those of another run are those of one run, those of actors and events too", () => {
  const anyCut = anyHouseWithActors.chain((world) => fc.tuple(fc.constant(world), anyFullLogOf(world), fc.nat(60)));
  fc.assert(
    fc.property(anyCut, ([world, log, at]) => {
      const c = compile(world);
      const whole = run(c, log, { rows: true }).rows!;
      const last = Math.min(at, whole.count - 1);
      const before = run(c, log, { rows: true, last }).rows!;
      const recorder = TraceRecorder.behind(c, before);
      const s = stateAt(c, log, last);
      for (let frame = last + 1; frame < whole.count; frame++) {
        step(c, s, whole.keys[frame]!, null);
        recorder.row(s);
      }
      expect(texts(c, recorder.finish())).toBe(texts(c, whole));
    }),
    FIXED,
  );
});

it("rows that go on for longer than there was room for are kept, and so are their events", () => {
  const c = compile(tinyWorld(["S#", "##"], { gait: "hop" }));
  const log = tinyLog("4000 R,4000 D,4000 R");
  const before = run(c, log, { rows: true, last: 3000 }).rows!;
  const recorder = TraceRecorder.behind(c, before);
  const s = stateAt(c, log, 3000);
  const whole = run(c, log, { rows: true }).rows!;
  for (let frame = 3001; frame < whole.count; frame++) {
    step(c, s, whole.keys[frame]!, null);
    recorder.row(s);
  }
  expect(texts(c, recorder.finish())).toBe(texts(c, whole));
});

it("traces are written in pieces of 4,096 frames, so that none of them is held as a whole", () => {
  const bare = tinyWorld(["S."], { gait: "hop" });
  const [room] = bare.rooms;
  const world = { ...bare, rooms: [{ ...room!, actors: [newActor("crab", [1, 0], bare)] }] };
  const c = compile(world);
  const rows = run(c, tinyLog("9000 ."), { rows: true }).rows!;
  const lines = (pieces: Iterable<string>): number[] => [...pieces].map((piece) => piece.split("\r\n").length - 1);
  // The header stands in the first one.
  expect(lines(traceText(c, rows))).toEqual([4097, 4096, rows.count - 8192]);
  expect(lines(actorTraceText(c, rows))).toEqual([4097, 4096, rows.count - 8192]);
});
