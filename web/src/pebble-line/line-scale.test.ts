import fc from "fast-check";
import { expect, it } from "vitest";
import { frameAt, frameX, isOnLine, lineScale, lineWith, movedLine, zoomedLine } from "./line-scale.ts";

const anyLine = fc.record({
  width: fc.integer({ min: 200, max: 2000 }),
  frames: fc.integer({ min: 1, max: 10_000_000 }),
  at: fc.double({ min: 0, max: 1, noNaN: true }),
  steps: fc.array(fc.constantFrom(1.5, 2, 1 / 1.5, 1 / 2), { maxLength: 30 }),
});

it("however one comes nearer, the part lies within the run, the frame under the pointer stays there, and all of it is shown again far off", () => {
  fc.assert(
    fc.property(anyLine, ({ width, frames, at, steps }) => {
      let scale = lineScale(width, frames);
      for (const factor of steps) {
        const x = scale.left + at * scale.width;
        const under = frameAt(scale, x);
        const part = zoomedLine(scale, frames, factor, x);
        const next = lineScale(width, frames, part);
        expect(next.from).toBeGreaterThanOrEqual(0);
        expect(next.from + next.frames).toBeLessThanOrEqual(Math.max(frames, 1));
        // At the run's ends the part cannot go on; within it the frame stays within a frame's width of rounding.
        if (part !== null && part.from > 0 && part.from + part.frames < frames)
          expect(Math.abs(frameX(next, under) - x)).toBeLessThanOrEqual(
            2 * Math.max(1, next.width / next.frames, scale.width / scale.frames),
          );
        scale = next;
      }
      let far = scale;
      for (let i = 0; i < 30; i++) far = lineScale(width, frames, zoomedLine(far, frames, 1 / 2, far.left));
      expect(far).toEqual(lineScale(width, frames));
    }),
    { seed: 20_261_127, numRuns: 200 },
  );
});

it("a part follows a frame that leaves it, and is moved no further than the run", () => {
  const part = { from: 1000, frames: 100 };
  expect(lineWith(part, 5000, 1050)).toBe(part);
  expect(lineWith(part, 5000, 1101)).toEqual({ from: 1091, frames: 100 });
  expect(lineWith(part, 5000, 999)).toEqual({ from: 909, frames: 100 });
  expect(movedLine(part, 5000, -2000)).toEqual({ from: 0, frames: 100 });
  expect(movedLine(part, 5000, 9000)).toEqual({ from: 4900, frames: 100 });
  expect(movedLine(null, 5000, 10)).toBeNull();
  expect([999, 1000, 1100, 1101].map((frame) => isOnLine(lineScale(800, 5000, part), frame))).toEqual([
    false,
    true,
    true,
    false,
  ]);
});
