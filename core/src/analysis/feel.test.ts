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
