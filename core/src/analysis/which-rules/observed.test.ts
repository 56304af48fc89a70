import { expect, it } from "vitest";
import type { GameTrace } from "../../formats/game-trace.ts";
import { tinyLog } from "../../test-support/tiny-world.ts";
import { DOWN, RIGHT } from "../../world/keys.ts";
import { observed } from "./observed.ts";

/** A game's places in some frames: room 1, x 10 times the frame, y 100 times. */
const trace = (...frames: number[]): GameTrace => ({
  count: frames.length,
  frames: Int32Array.from(frames),
  rooms: Uint8Array.from(frames, () => 1),
  x: Int32Array.from(frames, (frame) => 10 * frame),
  y: Int32Array.from(frames, (frame) => 100 * frame),
});

it("what was pressed, and where the game's walker was from the first frame that it tells of, each place until the next", () => {
  const log = tinyLog("2 R,3 D");
  const seen = observed(log, trace(0, 1, 3, 4));
  expect(seen.frames).toBe(4);
  expect([...seen.keys]).toEqual([0, RIGHT, RIGHT, DOWN, DOWN]);
  expect([...seen.known]).toEqual([1, 1, 1, 1, 1]);
  expect([...seen.room]).toEqual([1, 1, 1, 1, 1]);
  expect([...seen.x]).toEqual([0, 10, 10, 30, 40]);
  expect([...seen.y]).toEqual([0, 100, 100, 300, 400]);
  // A game that goes on for longer than its keys are known is looked at as far as they are.
  const longer = observed(log, trace(5, 6, 9));
  expect([longer.frames, [...longer.keys], [...longer.known]]).toEqual([
    5,
    [0, RIGHT, RIGHT, DOWN, DOWN, DOWN],
    [0, 0, 0, 0, 0, 1],
  ]);
  expect(observed(log, trace()).frames).toBe(0);
});
