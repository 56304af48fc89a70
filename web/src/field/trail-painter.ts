import type { TraceRows } from "@keen-pebble/core/simulate";
import type { BenchState } from "../session/bench/bench-store.ts";
import type { Trail } from "./trail.ts";
import { makeTrail } from "./trail.ts";
import { trailColour } from "./trail-colour.ts";
import type { CanvasSize, TrailStroke } from "./trail-layer.ts";
import { TrailLayer } from "./trail-layer.ts";
import type { View } from "./view.ts";

/** Thin where the run goes on, thick over it up to the shown frame. */
const THIN_EDGE: TrailStroke = { width: 4, colour: "rgba(28, 33, 36, 0.5)" };
const THIN: TrailStroke = { width: 2, colour: trailColour };
const EDGE: TrailStroke = { width: 7, colour: "#1c2124" };
const THICK: TrailStroke = { width: 4, colour: trailColour };

/** Paints the trail of the shown run or walk in a room of the field, and the ghost behind it. */
export class TrailPainter {
  private trail: Trail | null = null;
  private ghost: Trail | null = null;
  private readonly layers = {
    ghost: new TrailLayer(),
    thinEdge: new TrailLayer(),
    thin: new TrailLayer(),
    edge: new TrailLayer(),
    thick: new TrailLayer(),
  };

  /** The frames over which the trail's colours go; 0 without a run. */
  get scale(): number {
    return this.trail?.scale ?? 0;
  }

  /** What the pale second trail is; null where none is shown. */
  ghostName({ overlays, preview, beside, gameGhost }: BenchState): string | null {
    if (this.ghost === null || (!overlays.ghost && preview === null)) return null;
    if (preview !== null) return "Ghost: with the change";
    if (beside?.rows) return `Ghost: ${beside.name}`;
    if (gameGhost !== null) return `Ghost: ${gameGhost.game.name}`;
    return "Ghost: before the change";
  }

  /**
   * @param room its number
   * @param tileSize px of a cell's side
   */
  paint(
    c: CanvasRenderingContext2D,
    state: BenchState,
    room: number,
    tileSize: number,
    view: View,
    size: CanvasSize,
  ): void {
    const rows = state.walk?.rows ?? state.run?.rows ?? null;
    this.trail = trailOf(this.trail, rows, room, tileSize, state.walk?.phase === "walking");
    // What is looked at stands before another rule set, that before the run of a moment ago.
    const ghostRows = state.walk ? null : (state.preview ?? state.beside?.rows ?? state.gameGhost?.rows ?? state.ghost);
    this.ghost = trailOf(this.ghost, ghostRows, room, tileSize, false);
    c.lineJoin = "round";
    c.lineCap = "round";
    const { layers, trail } = this;
    if (this.ghost && (state.overlays.ghost || state.preview !== null)) {
      const pale: TrailStroke = { width: Math.max(3, 2.5 * view.zoom), colour: "rgba(255, 253, 246, 0.66)" };
      layers.ghost.draw(c, this.ghost, view, size, pale, 0, Infinity);
    }
    if (!trail || !state.overlays.trail) return;
    const last = trail.rows.count - 1;
    const shown = state.walk ? last : state.frame;
    if (shown < last) {
      layers.thinEdge.draw(c, trail, view, size, THIN_EDGE, shown, Infinity);
      layers.thin.draw(c, trail, view, size, THIN, shown, Infinity);
    }
    layers.edge.draw(c, trail, view, size, EDGE, 0, shown);
    layers.thick.draw(c, trail, view, size, THICK, 0, shown);
    drawStations(c, trail, view, shown);
  }
}

/** Where the run begins, and each cell at which it arrived up to the shown frame. */
function drawStations(
  c: CanvasRenderingContext2D,
  { stations, rows, room, half }: Trail,
  { zoom, left, top }: View,
  shown: number,
): void {
  c.fillStyle = "#fffdf6";
  c.beginPath();
  for (let i = 0; i < stations.length && stations[i]! <= shown; i += 3) {
    const x = left + stations[i + 1]! * zoom;
    const y = top + stations[i + 2]! * zoom;
    c.moveTo(x + 2, y);
    c.arc(x, y, 2, 0, 7);
  }
  c.fill();
  if (rows.room[0] !== room) return;
  const x = left + (rows.x[0]! / 256 + half) * zoom;
  const y = top + (rows.y[0]! / 256 + half) * zoom;
  disc(c, x, y, 6, "#1c2124");
  disc(c, x, y, 3.5, "#fffdf6");
}

function trailOf(
  old: Trail | null,
  rows: TraceRows | null,
  room: number,
  tileSize: number,
  growing: boolean,
): Trail | null {
  if (rows === null) return null;
  if (old && old.rows === rows && old.room === room && !growing && !old.growing) return old;
  return makeTrail(rows, room, tileSize / 2, growing);
}

function disc(c: CanvasRenderingContext2D, x: number, y: number, radius: number, colour: string): void {
  c.fillStyle = colour;
  c.beginPath();
  c.arc(x, y, radius, 0, 7);
  c.fill();
}
