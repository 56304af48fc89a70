import type { Room, World } from "@keen-pebble/core/world";
import { palette } from "../look/palette.ts";
import type { WallPreview } from "../session/bench/walls.ts";
import { addShape } from "./draw-solid.ts";
import type { View } from "./view.ts";

/** A wall under way: its outline in px, and the shapes that the cells would get. */
export function drawWall(
  c: CanvasRenderingContext2D,
  world: World,
  room: Room,
  { outline, fault, cells }: WallPreview,
  { zoom, left, top }: View,
): void {
  const step = world.tileSize * zoom;
  const { accent, attention } = palette();
  const corner = (cell: number): readonly [number, number] => [
    left + (cell % room.width) * step,
    top + Math.floor(cell / room.width) * step,
  ];
  c.lineJoin = "round";
  c.beginPath();
  for (const { cell, shape } of cells) addShape(c, shape, ...corner(cell), zoom, step);
  c.fillStyle = "rgba(15, 111, 107, 0.35)";
  c.fill();
  c.strokeStyle = "rgba(255, 253, 246, 0.8)";
  c.lineWidth = 1;
  c.stroke();
  // Cells that no shape says exactly.
  c.strokeStyle = attention;
  c.lineWidth = 2;
  for (const { cell, off } of cells) if (off > 0) c.strokeRect(...corner(cell), step, step);
  c.beginPath();
  outline.forEach(([x, y], i) =>
    i === 0 ? c.moveTo(left + x * zoom, top + y * zoom) : c.lineTo(left + x * zoom, top + y * zoom),
  );
  c.closePath();
  for (const [colour, width] of [
    ["#fffdf6", 4],
    [fault === null ? accent : attention, 2],
  ] as const) {
    c.strokeStyle = colour;
    c.lineWidth = width;
    c.stroke();
  }
  c.fillStyle = fault === null ? accent : attention;
  for (const [x, y] of outline) {
    c.beginPath();
    c.arc(left + x * zoom, top + y * zoom, 3.5, 0, 7);
    c.fill();
  }
}
