import type { TraceRows } from "@keen-pebble/core/simulate";
import type { Camera, Room } from "@keen-pebble/core/world";

/** What the player would see of a room, in px of the world. */
export interface CameraFrame {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/**
 * What the camera shows in a frame of a run. It never changes the run: it follows from the rows since the walker came
 * into the room.
 * @param tileSize px of a cell's side
 */
export function cameraAt(camera: Camera, room: Room, rows: TraceRows, frame: number, tileSize: number): CameraFrame {
  const across = room.width * tileSize;
  const down = room.height * tileSize;
  if (camera.mode === "whole") return { x: 0, y: 0, width: across, height: down };
  const width = Math.min(camera.width * tileSize, across);
  const height = Math.min(camera.height * tileSize, down);
  const centre = (at: number): readonly [number, number] => [
    rows.x[at]! / 256 + tileSize / 2,
    rows.y[at]! / 256 + tileSize / 2,
  ];
  if (camera.mode === "screen") {
    const [x, y] = centre(frame);
    return { x: screen(x, width, across), y: screen(y, height, down), width, height };
  }
  let first = frame;
  while (first > 0 && rows.room[first - 1] === rows.room[frame]) first--;
  const [startX, startY] = centre(first);
  let x = held(startX - width / 2, across - width);
  let y = held(startY - height / 2, down - height);
  const marginX = Math.min(camera.margin[0] * tileSize, width / 2);
  const marginY = Math.min(camera.margin[1] * tileSize, height / 2);
  const keep = camera.ease / 256;
  for (let at = first + 1; at <= frame; at++) {
    const [cx, cy] = centre(at);
    x = toward(x, held(wanted(x, cx, width, marginX), across - width), keep);
    y = toward(y, held(wanted(y, cy, height, marginY), down - height), keep);
  }
  return { x: Math.round(x), y: Math.round(y), width, height };
}

/** Where the screen that holds a place begins: screens lie side by side, the last one is pushed back into the room. */
function screen(at: number, size: number, room: number): number {
  return held(Math.floor(at / size) * size, room - size);
}

/** The nearest beginning at which a place is at least a margin away from both ends. */
function wanted(begin: number, at: number, size: number, margin: number): number {
  return Math.min(Math.max(begin, at + margin - size), at - margin);
}

const held = (at: number, max: number): number => Math.min(Math.max(at, 0), Math.max(0, max));
const toward = (from: number, to: number, keep: number): number => to + (from - to) * keep;
