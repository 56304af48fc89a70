import fc from "fast-check";
import { expect, it } from "vitest";
import { EdgeCanvas, HALF, PLACE, walked } from "../test-support/stroked-edges.ts";
import { TrailLayer } from "./trail-layer.ts";
import type { Trail } from "./trail.ts";
import { makeTrail, strokeTrail } from "./trail.ts";

const SIZE = { width: 100, height: 80, ratio: 2 };
const STROKE = { width: 4, colour: String };

/** A layer, and how many lines each of its pictures took. */
function layered(): {
  draw: (trail: Trail, from: number, to: number, place?: typeof PLACE) => EdgeCanvas;
  pictures: EdgeCanvas[];
} {
  const pictures: EdgeCanvas[] = [];
  const layer = new TrailLayer(() => {
    pictures.push(new EdgeCanvas());
    return pictures.at(-1) as unknown as OffscreenCanvas;
  });
  const draw = (trail: Trail, from: number, to: number, place = PLACE): EdgeCanvas => {
    const canvas = new EdgeCanvas();
    layer.draw(canvas as unknown as CanvasRenderingContext2D, trail, place, SIZE, STROKE, from, to);
    return canvas;
  };
  return { draw, pictures };
}

function direct(trail: Trail, from: number, to: number): EdgeCanvas["edges"] {
  const canvas = new EdgeCanvas();
  strokeTrail(canvas as unknown as CanvasRenderingContext2D, trail, PLACE, from, to, String);
  return canvas.edges;
}

/** A walk of so many frames that turns with each of them, or nearly: each turn is a piece. */
const turning = fc.infiniteStream(fc.nat(4)).map((keys) => (frames: number) => [...keys.take(frames)]);

it("strokes what a trail is without a picture, whatever frames are shown one after the other", () => {
  fc.assert(
    fc.property(turning, fc.nat(2000), fc.array(fc.nat(2400), { maxLength: 12 }), (keys, frames, shown) => {
      const trail = makeTrail(walked(keys(frames)), 0, HALF);
      const { draw } = layered();
      for (const frame of shown) expect(draw(trail, 0, frame).edges).toEqual(direct(trail, 0, frame));
    }),
    { seed: 20261130, numRuns: 60 },
  );
});

it("may stroke what goes before, where the rest of the run is asked for, and then as it goes", () => {
  const trail = makeTrail(walked(Array.from({ length: 2000 }, (_, i) => 1 + ((i * 7) % 4))), 0, HALF);
  const { draw } = layered();
  draw(trail, 1000, Infinity);
  expect(draw(trail, 1000, Infinity).edges).toEqual(direct(trail, 0, Infinity));
});

it("goes on with the same picture while a walk grows, with new colours only now and then", () => {
  const round = [1, 3, 2, 4];
  const keys = Array.from({ length: 3000 }, (_, i) => round[i % 4]!);
  const whole = walked(keys);
  const { draw, pictures } = layered();
  const scales = new Set<number>();
  for (let count = 2; count <= whole.count; count += 7) {
    const trail = makeTrail({ ...whole, count }, 0, HALF, true);
    if (count > 600) scales.add(trail.scale);
    expect(draw(trail, 0, count - 1).edges).toEqual(direct(trail, 0, count - 1));
  }
  expect([...scales]).toEqual([1200, 2400, 4800]);
  expect(pictures).toHaveLength(scales.size);
  // Each piece once, not once a frame.
  expect(Math.max(...pictures.map(({ lines }) => lines))).toBeLessThanOrEqual(3000);
});

it("keeps no picture of a short trail, nor where the view is another one each time", () => {
  const long = makeTrail(walked(Array.from({ length: 2000 }, (_, i) => 1 + ((i * 7) % 4))), 0, HALF);
  const short = makeTrail(walked([1, 3, 2, 4]), 0, HALF);
  const { draw, pictures } = layered();
  for (let i = 0; i < 4; i++) draw(short, 0, 4);
  for (let i = 0; i < 4; i++) draw(long, 0, 2000, { ...PLACE, left: PLACE.left + i });
  expect(pictures).toEqual([]);
  draw(long, 0, 2000, { ...PLACE, left: PLACE.left + 3 });
  expect(pictures).toHaveLength(1);
});
