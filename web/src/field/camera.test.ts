import type { TraceRows } from "@keen-pebble/core/simulate";
import type { Camera, Room } from "@keen-pebble/core/world";
import { expect, it } from "vitest";
import { cameraAt } from "./camera.ts";

const room = { width: 40, height: 10 } as Room;
const follow: Camera = { mode: "follow", width: 20, height: 10, margin: [6, 4], ease: 0 };
/** A walker that goes right by so many px a frame along row 5. */
const rows = (step: number, count: number): TraceRows =>
  ({
    count,
    x: Int32Array.from({ length: count }, (_, i) => i * step * 256),
    y: new Int32Array(count).fill(5 * 16 * 256),
    room: new Uint8Array(count),
  }) as unknown as TraceRows;

it("shows the whole room, or the screen that the walker is on", () => {
  expect(cameraAt({ ...follow, mode: "whole" }, room, rows(16, 40), 30, 16)).toEqual({
    x: 0,
    y: 0,
    width: 640,
    height: 160,
  });
  const screens = [0, 19, 20, 39].map(
    (frame) => cameraAt({ ...follow, mode: "screen" }, room, rows(16, 40), frame, 16).x,
  );
  expect(screens).toEqual([0, 0, 320, 320]);
});

it("follows only once the walker is within the margin, stops at the room's sides, and comes later with ease", () => {
  const at = (camera: Camera, frame: number) => cameraAt(camera, room, rows(16, 40), frame, 16).x;
  expect([0, 13, 14, 15, 39].map((frame) => at(follow, frame))).toEqual([0, 0, 8, 24, 320]);
  const eased = [14, 20, 39].map((frame) => at({ ...follow, ease: 192 }, frame));
  expect(eased[0]!).toBeLessThan(8);
  expect(eased[1]!).toBeLessThan(at(follow, 20));
  expect(eased[2]!).toBeGreaterThan(200);
});
