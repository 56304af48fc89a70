import { isSolidFor } from "@keen-pebble/core/world";
import type { Project } from "@keen-pebble/core/edit";
import type { Fixture, Room } from "@keen-pebble/core/world";
import type { View } from "./view.ts";

/**
 * What stops the walker of a rule set, over its picture: the shapes of tiles, and closed doors, each a whole cell.
 * @param doors those that are closed in the shown frame
 */
export function drawSolid(
  c: CanvasRenderingContext2D,
  { world }: Project,
  room: Room,
  blockedBy: readonly string[],
  doors: readonly Fixture[],
  { zoom, left, top }: View,
  width: number,
  height: number,
): void {
  const solid = world.tiles.map((tile) => isSolidFor(blockedBy, tile));
  const step = world.tileSize * zoom;
  const fromX = Math.max(0, Math.floor(-left / step));
  const fromY = Math.max(0, Math.floor(-top / step));
  const toX = Math.min(room.width, Math.ceil((width - left) / step));
  const toY = Math.min(room.height, Math.ceil((height - top) / step));
  c.beginPath();
  for (let y = fromY; y < toY; y++) {
    for (let x = fromX; x < toX; x++) {
      const tile = room.cells[y * room.width + x]!;
      if (solid[tile]) addShape(c, world.tiles[tile]!.shape, left + x * step, top + y * step, zoom, step);
    }
  }
  for (const { cell } of doors) c.rect(left + cell[0] * step + 0.5, top + cell[1] * step + 0.5, step - 1, step - 1);
  c.fillStyle = "rgba(196, 73, 29, 0.28)";
  c.fill();
  c.strokeStyle = "rgba(150, 48, 14, 0.9)";
  c.lineWidth = 1;
  c.stroke();
}

/** Adds a tile's shape, its cell at `(x, y)` of the canvas, to the path. */
export function addShape(
  c: CanvasRenderingContext2D,
  shape: Project["world"]["tiles"][number]["shape"],
  x: number,
  y: number,
  zoom: number,
  step: number,
): void {
  if (shape.kind === "full") c.rect(x + 0.5, y + 0.5, step - 1, step - 1);
  else if (shape.kind === "boxes")
    for (const [bx, by, w, h] of shape.boxes)
      c.rect(x + bx * zoom + 0.5, y + by * zoom + 0.5, w * zoom - 1, h * zoom - 1);
  else {
    shape.points.forEach(([px, py], i) =>
      i === 0 ? c.moveTo(x + px * zoom, y + py * zoom) : c.lineTo(x + px * zoom, y + py * zoom),
    );
    c.closePath();
  }
}
