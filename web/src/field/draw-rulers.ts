import type { Room } from "@keen-pebble/core/world";
import { palette } from "../look/palette.ts";
import { TRAIL_STEPS, trailColour } from "./trail-colour.ts";
import type { View } from "./view.ts";

interface RulersOf {
  readonly view: View;
  readonly room: Room;
  /** A tile's side, in px. */
  readonly size: number;
  /** The walker's cell; null where it is elsewhere. */
  readonly occupied: { readonly x: number; readonly y: number } | null;
  readonly width: number;
  readonly height: number;
}

/** Column and row numbers along the room's top and left, the walker's own stressed: text, which is slow to draw, is drawn once. */
export class Rulers {
  private readonly canvas = new OffscreenCanvas(1, 1);
  private shown = "";

  draw(c: CanvasRenderingContext2D, of: RulersOf): void {
    const { view, room, size, occupied, width, height } = of;
    const colours = palette();
    const ratio = window.devicePixelRatio;
    const wanted = [
      ...[
        view.zoom,
        view.left,
        view.top,
        room.width,
        room.height,
        size,
        occupied?.x,
        occupied?.y,
        width,
        height,
        ratio,
      ],
      // Until its face is loaded, text stands in another one.
      ...[colours.ink, colours.quiet, colours.mono, document.fonts.status],
    ].join(" ");
    if (this.shown !== wanted) {
      this.shown = wanted;
      this.canvas.width = Math.round(width * ratio);
      this.canvas.height = Math.round(height * ratio);
      const on = this.canvas.getContext("2d")!;
      on.scale(ratio, ratio);
      drawNumbers(on, of);
    }
    c.drawImage(this.canvas, 0, 0, width, height);
  }
}

function drawNumbers(
  c: OffscreenCanvasRenderingContext2D,
  { view, room, size, occupied, width, height }: RulersOf,
): void {
  const colours = palette();
  const step = size * view.zoom;
  // Numbers stand as close as they can be read.
  const every = [1, 2, 5, 10, 20, 50, 100].find((n) => n * step >= 24) ?? 200;
  c.textAlign = "center";
  c.textBaseline = "middle";
  const y = Math.max(9, view.top - 13);
  const x = Math.max(14, view.left - 14);
  // A canvas takes long to change its font: all plain numbers first, then the walker's own.
  for (const stressed of [false, true]) {
    c.fillStyle = stressed ? colours.ink : colours.quiet;
    c.font = `${stressed ? "600 " : ""}11px ${colours.mono}`;
    for (let cx = 0; cx < room.width; cx++) {
      const at = view.left + (cx + 0.5) * step;
      if ((stressed ? cx === occupied?.x : cx % every === 0 && cx !== occupied?.x) && at > 24 && at < width - 8)
        c.fillText(String(cx), at, y);
    }
    for (let cy = 0; cy < room.height; cy++) {
      const at = view.top + (cy + 0.5) * step;
      if ((stressed ? cy === occupied?.y : cy % every === 0 && cy !== occupied?.y) && at > 20 && at < height - 8)
        c.fillText(String(cy), x, at);
    }
  }
}

/** What the trail's colours and the pale second trail mean, right-aligned at `right`. */
export function drawLegend(
  c: CanvasRenderingContext2D,
  right: number,
  y: number,
  frames: number,
  ghost: string | null,
): void {
  if (frames <= 0) return;
  const colours = palette();
  c.font = `12px ${colours.text}`;
  c.textBaseline = "middle";
  c.textAlign = "right";
  c.fillStyle = colours.quiet;
  let x = right;
  if (ghost !== null) {
    c.fillText(ghost, x, y);
    x -= c.measureText(ghost).width + 32;
    c.fillStyle = "#fffdf6";
    c.fillRect(x, y - 3, 24, 6);
    c.strokeStyle = colours.lineStrong;
    c.lineWidth = 1;
    c.strokeRect(x - 0.5, y - 3.5, 25, 7);
    x -= 20;
    c.fillStyle = colours.quiet;
  }
  const last = String(frames);
  c.fillText(last, x, y);
  x -= c.measureText(last).width + 6 + 80;
  for (let i = 0; i < 80; i++) {
    c.fillStyle = trailColour(Math.floor((i / 80) * TRAIL_STEPS));
    c.fillRect(x + i, y - 2, 1.5, 4);
  }
  c.fillStyle = colours.quiet;
  c.fillText("Trail, frame 0", x - 6, y);
}

/** The axes in the room's corner: x to the right, y down. Half of all first bugs is up. */
export function drawAxes(c: CanvasRenderingContext2D, view: View, width: number, height: number): void {
  const colours = palette();
  const x = Math.min(Math.max(4, view.left - 28), width - 40);
  const y = Math.min(Math.max(4, view.top - 26), height - 40);
  c.strokeStyle = colours.quiet;
  c.fillStyle = colours.quiet;
  c.lineWidth = 1.5;
  c.lineCap = "round";
  c.beginPath();
  c.moveTo(x, y);
  c.lineTo(x + 16, y);
  c.moveTo(x + 12, y - 3);
  c.lineTo(x + 16, y);
  c.lineTo(x + 12, y + 3);
  c.moveTo(x, y);
  c.lineTo(x, y + 16);
  c.moveTo(x - 3, y + 12);
  c.lineTo(x, y + 16);
  c.lineTo(x + 3, y + 12);
  c.stroke();
  c.font = `10px ${colours.mono}`;
  c.textAlign = "left";
  c.textBaseline = "middle";
  c.fillText("x", x + 19, y);
  c.textAlign = "center";
  c.fillText("y", x, y + 22);
}
