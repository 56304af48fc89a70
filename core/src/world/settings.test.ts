import type { SettingValue } from "./setting.ts";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { compile } from "../simulation/compile.ts";
import { run } from "../replay/run.ts";
import { anyFullLogOf } from "../test-support/any-full-log.ts";
import { FIXED, anyBody, anyGait, anyRows } from "../test-support/arbitraries.ts";
import { tinyWorld } from "../test-support/tiny-world.ts";
import type { Setting } from "./settings.ts";
import {
  SETTINGS,
  settingApplies,
  settingByPath,
  settingFault,
  settingRange,
  settingValue,
  withSetting,
} from "./settings.ts";
import type { Rules, World } from "./world.ts";
import { same } from "../test-support/same.ts";

const TILE = 16;

/** Any value that a setting may have. */
function anyValue(setting: Setting): fc.Arbitrary<SettingValue> {
  if (setting.kind === "switch") return fc.boolean();
  if (setting.kind === "choice") return fc.constantFrom(...setting.choices);
  const { min, max, whole } = settingRange(setting, TILE);
  return whole
    ? fc.integer({ min: min, max: max })
    : fc.integer({ min: 1, max: max * 256 }).map((units) => units / 256);
}

const withRules = (world: World, rules: Rules): World => ({ ...world, rules: [rules] });

/** A world under any rules, a log for it, and a setting with another value. */
const anyChange = fc
  .record({
    rows: anyRows,
    options: anyGait,
    body: anyBody,
    setting: fc.constantFrom(...SETTINGS),
    facing: fc.constantFrom("intent" as const, "pointer" as const),
    advance: fc.constantFrom("distance" as const, "off" as const),
  })
  .chain(({ rows, options, body, setting, facing, advance }) => {
    const world = tinyWorld(rows, {
      ...options,
      body,
      facing: { ...options.facing, source: facing },
      pose: { images: 3, advance, every: 4, idleAfter: 2 },
    });
    return fc.record({
      world: fc.constant(world),
      setting: fc.constant(setting),
      value: anyValue(setting),
      log: anyFullLogOf(world),
    });
  });

it("a setting that does not apply changes no row and no check of any log; the others do", () => {
  const idle = new Set<string>();
  const acted = new Set<string>();
  fc.assert(
    fc.property(anyChange, ({ world, setting, value, log }) => {
      const [rules] = world.rules as [Rules];
      const changed = withRules(world, withSetting(rules, setting.path, value));
      const [before, after] = [world, changed].map((each) => run(compile(each), log, { rows: true, checks: true }));
      if (!settingApplies(rules, setting.path)) {
        same(
          { path: setting.path, rows: after!.rows, verdicts: after!.verdicts },
          {
            path: setting.path,
            rows: before!.rows,
            verdicts: before!.verdicts,
          },
        );
        idle.add(setting.path);
      } else if (
        before!.pathHash !== after!.pathHash ||
        JSON.stringify([...before!.rows!.facing, ...before!.rows!.pose]) !==
          JSON.stringify([...after!.rows!.facing, ...after!.rows!.pose])
      )
        acted.add(setting.path);
    }),
    { ...FIXED, numRuns: 2500 },
  );
  // Always looked at: what must have been seen to act.
  const always = new Set([
    "input.opposites",
    "input.ways",
    "facing.source",
    "pose.advance",
    "pose.idleImage",
    "walker.crossesAt",
  ]);
  expect(SETTINGS.filter(({ path }) => !always.has(path) && !idle.has(path)).map(({ path }) => path)).toEqual([]);
  expect(acted.size).toBeGreaterThan(SETTINGS.length * 0.7);
});

describe("what a setting may be", () => {
  it.each<[string, unknown, string | null]>([
    ["glide.speed", 16, null],
    ["glide.speed", 1 / 256, null],
    ["glide.speed", 16.001, "must be px, at least 1/256 and at most 16"],
    ["glide.speed", 0.001, "must be px, at least 1/256 and at most 16"],
    ["glide.speed", "2", "must be px, at least 1/256 and at most 16"],
    ["roam.speedX", 64, null],
    ["roam.speedX", 64.1, "must be px, at least 1/256 and at most 64"],
    ["drift.drag", 256, null],
    ["drift.drag", 257, "must be a whole number from 0 to 256"],
    ["roam.nudge", 16, null],
    ["roam.nudge", 17, "must be a whole number from 0 to 16"],
    ["roam.nudge", 1.5, "must be a whole number from 0 to 16"],
    ["hop.repeatAfter", 600, null],
    ["hop.repeatAfter", -1, "must be a whole number from 0 to 600"],
    ["glide.carry", false, null],
    ["glide.carry", 0, "must be true or false"],
    ["input.ways", 8, null],
    ["input.ways", "8", "must be one of 4, 8"],
    ["facing.rest", "down-left", null],
    ["facing.rest", "north", "must be one of up, up-right, right, down-right, down, down-left, left, up-left"],
  ])("%s may be %j: %s", (path, value, fault) => expect(settingFault(settingByPath(path)!, value, TILE)).toBe(fault));

  it("every default may stand, is what a new rule set has, and is found by its path", () => {
    const [rules] = tinyWorld(["S"]).rules as [Rules];
    for (const setting of SETTINGS) {
      expect([setting.path, settingFault(setting, setting.default, TILE), settingValue(rules, setting.path)]).toEqual([
        setting.path,
        null,
        setting.default,
      ]);
      expect(settingByPath(setting.path)).toBe(setting);
    }
    expect(settingByPath("glide.wings")).toBeUndefined();
  });

  it("both ends of a range may stand, and nothing beyond them", () => {
    for (const setting of SETTINGS) {
      if (setting.kind !== "px" && setting.kind !== "whole") continue;
      const { min, max, whole } = settingRange(setting, TILE);
      const beyond = whole ? [min - 1, max + 1, min + 0.5] : [min / 4, max + 1 / 256];
      expect([setting.path, [min, max].map((value) => settingFault(setting, value, TILE))]).toEqual([
        setting.path,
        [null, null],
      ]);
      for (const value of beyond) expect([setting.path, value, settingFault(setting, value, TILE)]).not.toContain(null);
    }
  });

  it("changing one setting leaves all others as they are", () => {
    const [rules] = tinyWorld(["S"]).rules as [Rules];
    fc.assert(
      fc.property(
        fc.constantFrom(...SETTINGS).chain((setting) => fc.tuple(fc.constant(setting), anyValue(setting))),
        ([setting, value]) => {
          const changed = withSetting(rules, setting.path, value);
          for (const { path } of SETTINGS)
            same(
              [path, settingValue(changed, path)],
              [path, path === setting.path ? value : settingValue(rules, path)],
            );
        },
      ),
      FIXED,
    );
  });
});
