import type { World } from "@keen-pebble/core/world";
import { FACINGS } from "@keen-pebble/core/world";
import { palette } from "../look/palette.ts";

/**
 * The start as a disc with an arrow in its facing.
 * @param x middle of its cell on the canvas
 */
export function drawStart(
  c: CanvasRenderingContext2D,
  { start }: Pick<World, "start">,
  x: number,
  y: number,
  radius: number,
): void {
  const { paper, ochre, ink } = palette();
  c.save();
  c.translate(x, y);
  c.rotate((FACINGS.indexOf(start.facing) * Math.PI) / 4);
  c.beginPath();
  c.arc(0, 0, radius, 0, 7);
  c.fillStyle = paper;
  c.fill();
  c.strokeStyle = ochre;
  c.lineWidth = Math.max(2, radius / 5);
  c.stroke();
  c.beginPath();
  c.moveTo(0, -radius * 0.62);
  c.lineTo(radius * 0.5, radius * 0.42);
  c.lineTo(0, radius * 0.18);
  c.lineTo(-radius * 0.5, radius * 0.42);
  c.closePath();
  c.fillStyle = ink;
  c.fill();
  c.restore();
}
