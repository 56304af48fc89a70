import type { Room } from "@keen-pebble/core/world";
import { palette } from "../look/palette.ts";
import type { BenchState } from "../session/bench/bench-store.ts";
import type { CameraFrame } from "./camera.ts";
import type { View } from "./view.ts";

/** The edges of the cells, as far as they can be told apart. */
export function drawGrid(c: CanvasRenderingContext2D, room: Room, size: number, view: View): void {
  const { zoom, left, top } = view;
  const step = size * zoom;
  if (step < 4) return;
  c.fillStyle = "rgba(28, 33, 36, 0.28)";
  for (let x = 1; x < room.width; x++) c.fillRect(left + x * step, top, 1, room.height * step);
  for (let y = 1; y < room.height; y++) c.fillRect(left, top + y * step, room.width * step, 1);
}

/** Cells that are free but too narrow for the body, tinted. */
export function drawClearance(
  c: CanvasRenderingContext2D,
  state: BenchState,
  room: Room,
  size: number,
  view: View,
): void {
  if (!state.overlays.clearance || state.clearance?.room !== room.id) return;
  const { zoom, left, top } = view;
  const step = size * zoom;
  c.fillStyle = "rgba(196, 73, 29, 0.4)";
  state.clearance.cells.forEach((narrow, i) => {
    if (narrow) c.fillRect(left + (i % room.width) * step, top + Math.floor(i / room.width) * step, step, step);
  });
}

/** What the player would see; in Walk the rest of the room is as dark as it would be. */
export function drawCamera(
  c: CanvasRenderingContext2D,
  frame: CameraFrame,
  { walk }: BenchState,
  right: number,
  bottom: number,
  view: View,
): void {
  const { zoom, left, top } = view;
  const [x, y, width, height] = [left + frame.x * zoom, top + frame.y * zoom, frame.width * zoom, frame.height * zoom];
  c.fillStyle = walk?.phase === "walking" ? "rgba(20, 25, 28, 0.92)" : "rgba(20, 25, 28, 0.35)";
  c.beginPath();
  c.rect(left, top, right - left, bottom - top);
  c.rect(x, y, width, height);
  c.fill("evenodd");
  for (const [colour, wide] of [
    ["#fffdf6", 4],
    [palette().data, 2],
  ] as const) {
    c.strokeStyle = colour;
    c.lineWidth = wide;
    c.strokeRect(x, y, width, height);
  }
}
