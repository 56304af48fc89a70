import { expect, it } from "vitest";
import { newRules } from "../world/new-rules.ts";
import type { Rules } from "../world/world.ts";
import { measureFeel } from "./feel.ts";

const base = newRules("main", "Main", "glide", 16);
const missed = (rules: Rules): string =>
  measureFeel(rules, 16)
    .turns.filter(({ taken }) => !taken)
    .map(({ late }) => late)
    .join(" ");

it("gliding: 8 frames a cell at 2 px, no slower to move, at most a cell to stop", () => {
  const feel = measureFeel({ ...base, glide: { ...base.glide, speed: 2 } }, 16);
  expect(feel).toMatchObject({
    framesToMove: 1,
    framesPerCell: 800,
    straight: [512, 512, 512, 512],
    diagonal: 512,
    framesToStop: 0,
    unitsToStop: 0,
    gapAtWall: 0,
  });
  expect(feel.speeds.slice(28, 36)).toEqual([512, 512, 512, 512, 0, 0, 0, 0]);
});

it("a turn that is tapped too early is missed without a buffer, and taken with one", () => {
  const glide = { ...base.glide, speed: 2 };
  expect(missed({ ...base, glide })).not.toBe("");
  expect(missed({ ...base, glide: { ...glide, bufferFrames: 12 } }).split(" ").length).toBeLessThan(
    missed({ ...base, glide }).split(" ").length,
  );
});

it("roaming: full diagonals are faster, undoing leaves a gap, testing ahead sinks in", () => {
  const roam = { ...base.roam, speedX: 5, speedY: 3 };
  const rules = (more: Partial<Rules["roam"]>): Rules => ({
    ...base,
    gait: "roam",
    input: { ...base.input, ways: 8 },
    roam: { ...roam, ...more },
  });
  const feel = measureFeel(rules({}), 16);
  expect(feel).toMatchObject({ straight: [1280, 1280, 768, 768], framesToStop: 0, gapAtWall: 0 });
  expect(measureFeel(rules({ diagonal: "full" }), 16).diagonal).toBe(1493);
  expect(measureFeel(rules({ response: "undo-axis" }), 16).gapAtWall).toBe(4 * 256);
  expect(measureFeel(rules({ response: "ahead" }), 16).gapAtWall).toBe(-1 * 256);
});

it("drifting picks up speed, and takes its time to stop", () => {
  const feel = measureFeel(
    { ...base, gait: "drift", drift: { ...base.drift, accel: 0.25, drag: 16, maxSpeed: 3 } },
    16,
  );
  expect(feel.framesToStop).toBeGreaterThan(20);
  expect(feel.unitsToStop).toBeGreaterThan(16 * 256);
  expect(feel.speeds[0]).toBeLessThan(feel.speeds[29]!);
  expect(measureFeel({ ...base, gait: "drift", drift: { ...base.drift, drag: 0 } }, 16).framesToStop).toBeNull();
  expect(measureFeel({ ...base, walker: { ...base.walker, blockedBy: [] } }, 16).gapAtWall).toBeNull();
});

it("walls block by whatever flag the walker asks for, and by none where it asks for none", () => {
  const wall = (...blockedBy: string[]): number | null =>
    measureFeel({ ...base, walker: { ...base.walker, blockedBy } }, 16).gapAtWall;
  expect([wall("solid"), wall("wet"), wall("wet", "solid"), wall()]).toEqual([0, 0, 0, null]);
});

it("a tap of 4 frames takes a turn from 3 frames early, with a buffer of 6 from 6 early, and never late", () => {
  const taken = (bufferFrames: number): number[] =>
    measureFeel({ ...base, glide: { ...base.glide, speed: 2, bufferFrames } }, 16)
      .turns.filter((turn) => turn.taken)
      .map(({ late }) => late);
  expect([taken(0), taken(6)]).toEqual([
    [-3, -2, -1, 0],
    [-6, -5, -4, -3, -2, -1, 0],
  ]);
});

it("drifting comes to rest in its 69th frame; a diagonal is measured along its length", () => {
  const drift = measureFeel({ ...base, gait: "drift" }, 16);
  expect(drift).toMatchObject({
    framesPerCell: 533,
    diagonal: 768,
    framesToStop: 69,
    unitsToStop: 11043,
    gapAtWall: 0,
  });
  expect([0, 1, 24, 25, 29, 30, 59].map((frame) => drift.speeds[frame])).toEqual([60, 116, 762, 768, 768, 720, 105]);
  const roam = { ...base.roam, speedX: 1.3, speedY: 1.3 };
  expect(measureFeel({ ...base, gait: "roam", roam, input: { ...base.input, ways: 8 } }, 16).diagonal).toBe(332);
});
