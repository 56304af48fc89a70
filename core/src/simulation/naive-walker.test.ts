import type { Gait } from "../world/gaits.ts";
import fc from "fast-check";
import { expect, it } from "vitest";
import { FIXED, anyBody, anyGait, anyLog, anyRows } from "../test-support/arbitraries.ts";
import { NaiveWalker } from "../test-support/naive-walker.ts";
import { told } from "../test-support/told.ts";
import { tinyWorld } from "../test-support/tiny-world.ts";
import { FACINGS } from "../world/facing.ts";
import { compile } from "./compile.ts";
import { run } from "../replay/run.ts";
import { ESCAPED, WRAPPED } from "../world/vocabulary.ts";
import { ROW_BUMPING } from "./trace.ts";
import { same } from "../test-support/same.ts";

const anyPose = fc.record({
  images: fc.integer({ min: 1, max: 5 }),
  advance: fc.constantFrom("distance" as const, "frames" as const, "off" as const),
  every: fc.integer({ min: 1, max: 12 }),
  idleImage: fc.integer({ min: 0, max: 5 }),
  idleAfter: fc.integer({ min: 0, max: 4 }),
});

/** Runs of each gait; the slow ones fewer, since the naive walker takes each unit by itself. */
it.each<[Gait, number]>([
  ["hop", 200],
  ["glide", 200],
  ["roam", 60],
  ["drift", 110],
])("%s walks, faces, steps its images and bumps as a walker that takes one unit at a time", (gait, numRuns) => {
  const seen = { frames: 0, moved: 0, bumped: 0, wrapped: 0, escaped: 0 };
  fc.assert(
    fc.property(anyRows, anyGait, fc.option(anyBody), anyPose, anyLog, (rows, options, body, pose, log) => {
      const c = compile(
        tinyWorld(rows, {
          ...options,
          gait,
          pose,
          ...(gait === "roam" || gait === "drift" ? (body ? { body } : {}) : {}),
        }),
      );
      const { rows: trace, status, frames } = run(c, log, { rows: true });
      const naive = new NaiveWalker(c);
      const keys = log.lines.flatMap((line) => (line.kind === "keys" ? Array<number>(line.count).fill(line.keys) : []));
      for (let i = 1; i <= frames; i++) {
        naive.step(keys[i - 1]!);
        const row = {
          frame: i,
          x: trace!.x[i]!,
          y: trace!.y[i]!,
          facing: FACINGS[trace!.facing[i]!],
          pose: trace!.pose[i],
          bumping: (trace!.flags[i]! & ROW_BUMPING) !== 0,
        };
        same(row, {
          frame: i,
          x: naive.x,
          y: naive.y,
          facing: naive.facing,
          pose: naive.pose,
          bumping: naive.bumping,
        });
        seen.frames++;
        if (trace!.x[i] !== trace!.x[i - 1] || trace!.y[i] !== trace!.y[i - 1]) seen.moved++;
        if (row.bumping) seen.bumped++;
      }
      same(naive.escaped, status === ESCAPED);
      if (status === ESCAPED) seen.escaped++;
      if (trace!.events.some((event, i) => i % 3 === 1 && event === WRAPPED)) seen.wrapped++;
    }),
    { ...FIXED, numRuns },
  );
  told(`${gait} against the naive walker`, seen);
  expect(Math.min(seen.moved / 10, seen.bumped / 10, seen.wrapped * 2)).toBeGreaterThan(10);
});
