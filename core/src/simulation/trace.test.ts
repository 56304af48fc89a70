import fc from "fast-check";
import { expect, it } from "vitest";
import { run, stateAt } from "../replay/run.ts";
import { anyHouseWithActors } from "../test-support/any-actors.ts";
import { anyFullLogOf } from "../test-support/any-full-log.ts";
import { FIXED } from "../test-support/arbitraries.ts";
import { tinyLog, tinyWorld } from "../test-support/tiny-world.ts";
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
