import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { RULER, ZOOMS, fitView, zoomView } from "./view.ts";

const side = fc.integer({ min: 1, max: 512 });

describe("how the field looks at a room", () => {
  it("shows all of it, in the middle, at a whole zoom or with cells of whole screen px", () => {
    fc.assert(
      fc.property(
        side,
        side,
        fc.constantFrom(8, 16, 24, 32),
        fc.integer({ min: 200, max: 2560 }),
        (across, down, size, canvas) => {
          const height = Math.round(canvas * 0.7);
          const { zoom, left, top } = fitView(across * size, down * size, canvas, height, size);
          if (zoom > ZOOMS[0]!) {
            expect(across * size * zoom).toBeLessThanOrEqual(canvas - 2 * RULER);
            expect(down * size * zoom).toBeLessThanOrEqual(height - 2 * RULER);
          }
          expect(ZOOMS.includes(zoom) || Number.isInteger(Math.round(zoom * size * 1e6) / 1e6)).toBe(true);
          expect(Math.abs(left - (canvas - across * size * zoom) / 2)).toBeLessThanOrEqual(0.5);
          expect(Math.abs(top - (height - down * size * zoom) / 2)).toBeLessThanOrEqual(0.5);
        },
      ),
      { seed: 20_260_811, numRuns: 300 },
    );
  });

  it("leaves little of the room unused that there is", () => {
    // 20 x 16 cells of 16 px: twice as large fits just so, a little less makes cells of 30 px.
    expect(fitView(320, 256, 696, 572, 16).zoom).toBe(2);
    expect(fitView(320, 256, 656, 572, 16).zoom).toBe(30 / 16);
    // Nearly three times: pixels stay squares.
    expect(fitView(192, 160, 696, 572, 16).zoom).toBe(3);
  });

  it("goes from any zoom to the next whole one, with the place under the pointer where it is", () => {
    const fitted = { zoom: 30 / 16, left: 40, top: 50 };
    expect(zoomView(fitted, 1, 40, 50)).toEqual({ zoom: 2, left: 40, top: 50 });
    expect(zoomView(fitted, -1, 40, 50)).toEqual({ zoom: 1, left: 40, top: 50 });
    const moved = zoomView({ zoom: 2, left: 0, top: 0 }, 1, 100, 60);
    expect(moved).toEqual({ zoom: 3, left: -50, top: -30 });
    expect(zoomView({ zoom: 16, left: 0, top: 0 }, 1, 0, 0).zoom).toBe(16);
    expect(zoomView({ zoom: 1 / 8, left: 0, top: 0 }, -1, 0, 0).zoom).toBe(1 / 8);
  });
});
