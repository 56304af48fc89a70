import type { Trail, TrailPlace } from "./trail.ts";
import { lastFrameOf, strokeTrail } from "./trail.ts";

/** With fewer pieces a trail is stroked as quickly as a picture of it is laid on the canvas. */
const MANY_PIECES = 400;

/** How a trail is stroked: in one colour, or each step of the run in its own. */
export interface TrailStroke {
  readonly width: number;
  readonly colour: string | ((step: number) => string);
}

/** The canvas that is drawn on: its sides in CSS px, and device px for each of them. */
export interface CanvasSize {
  readonly width: number;
  readonly height: number;
  readonly ratio: number;
}

/**
 * One stroke of a trail, its outline or its colours. Of a long trail that lies where it lay before a picture is kept, up
 * to the step of colour that the shown frame is in: one frame more is some lines more, whatever the length of the run.
 */
export class TrailLayer {
  private picture: OffscreenCanvas | null = null;
  /** What the picture is of; it is begun once that is asked for again: while one drags the view it is another each time. */
  private of: readonly unknown[] = [];
  /** Stretches of the trail that the picture holds. */
  private held = 0;

  /** @param canvas makes an empty picture of a size in device px */
  constructor(private readonly canvas = (width: number, height: number) => new OffscreenCanvas(width, height)) {}

  /**
   * Strokes a trail from one frame to another.
   * @param from what goes before it may be stroked too: something else lies over it
   */
  draw(
    c: CanvasRenderingContext2D,
    trail: Trail,
    place: TrailPlace,
    size: CanvasSize,
    stroke: TrailStroke,
    from: number,
    to: number,
  ): void {
    const of = [
      trail.rows.x.buffer,
      trail.room,
      trail.scale,
      place.zoom,
      place.left,
      place.top,
      size.width,
      size.height,
      size.ratio,
      stroke.width,
    ];
    const again = of.every((each, i) => each === this.of[i]);
    if (!again) {
      this.of = of;
      this.picture = null;
    }
    let begun = from;
    if (again && trail.pieces.length >= MANY_PIECES * 6) {
      this.holdUpTo(trail, place, size, stroke, to);
      c.save();
      c.setTransform(1, 0, 0, 1, 0, 0);
      c.drawImage(this.picture!, 0, 0);
      c.restore();
      if (this.held > 0) begun = lastFrameOf(trail, trail.stretches[this.held - 1]!);
    }
    strokeIn(c, trail, place, stroke, begun, to);
  }

  /** Brings the picture to all stretches that are over by a frame. */
  private holdUpTo(trail: Trail, place: TrailPlace, size: CanvasSize, stroke: TrailStroke, to: number): void {
    const { stretches } = trail;
    // The last one of a walk may still become longer.
    const settled = trail.growing ? stretches.length - 1 : stretches.length;
    let over = 0;
    while (over < settled && lastFrameOf(trail, stretches[over]!) <= to) over++;
    if (this.picture === null || over < this.held) {
      this.picture = this.canvas(Math.round(size.width * size.ratio), Math.round(size.height * size.ratio));
      this.held = 0;
    }
    if (over === this.held) return;
    const c = this.picture.getContext("2d")!;
    c.setTransform(size.ratio, 0, 0, size.ratio, 0, 0);
    c.lineJoin = "round";
    c.lineCap = "round";
    const begun = this.held === 0 ? 0 : lastFrameOf(trail, stretches[this.held - 1]!);
    strokeIn(c, trail, place, stroke, begun, lastFrameOf(trail, stretches[over - 1]!));
    this.held = over;
  }
}

function strokeIn(
  c: CanvasRenderingContext2D | OffscreenCanvasRenderingContext2D,
  trail: Trail,
  place: TrailPlace,
  { width, colour }: TrailStroke,
  from: number,
  to: number,
): void {
  c.lineWidth = width;
  if (typeof colour === "string") c.strokeStyle = colour;
  strokeTrail(c, trail, place, from, to, typeof colour === "string" ? null : colour);
}
