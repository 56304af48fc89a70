import type { TraceRows } from "@keen-pebble/core/simulate";
import type { Palette } from "../look/palette.ts";
import type { LineScale } from "./line-scale.ts";
import { frameX } from "./line-scale.ts";

/** An actor whose phases are shown: its number among all, and what it does in each phase. */
export interface PhasesOf {
  readonly actor: number;
  readonly phases: readonly string[];
}

const TOP = 98;
const HEIGHT = 14;

/** The place of an actor among the rows of a frame; -1 where the walker is in another room than it. */
function placeIn({ actors }: TraceRows, frame: number, actor: number): number {
  if (actors === null) return -1;
  for (let i = actors.from[frame]!; i < actors.from[frame + 1]!; i++) if (actors.actor[i] === actor) return i;
  return -1;
}

/** The phases of an actor, block by block, and the frames in which the walker meets it; nothing while they are in different rooms. */
export function drawPhases(
  c: CanvasRenderingContext2D,
  scale: LineScale,
  rows: TraceRows,
  { actor, phases }: PhasesOf,
  colours: Palette,
): void {
  const first = Math.max(0, Math.floor(scale.from) - 1);
  const end = Math.min(rows.count, Math.ceil(scale.from + scale.frames) + 2);
  c.textAlign = "left";
  c.textBaseline = "middle";
  c.font = `12px ${colours.text}`;
  const phaseAt = (frame: number): number => {
    const place = placeIn(rows, frame, actor);
    return place < 0 ? -1 : rows.actors!.phase[place]!;
  };
  let from = first;
  for (let frame = first + 1; frame <= end; frame++) {
    if (frame < end && phaseAt(frame) === phaseAt(from)) continue;
    const phase = phaseAt(from);
    if (phase >= 0) {
      const x = Math.max(scale.left, frameX(scale, from));
      const width = Math.max(1, frameX(scale, Math.min(frame, rows.count - 1)) - x - 1);
      c.fillStyle = phase % 2 === 0 ? colours.accentWash : colours.dataWash;
      c.beginPath();
      c.roundRect(x, TOP, width, HEIGHT, 3);
      c.fill();
      const name = `${phase + 1} ${phases[phase] ?? ""}`;
      c.fillStyle = colours.ink;
      if (c.measureText(name).width + 12 < width) c.fillText(name, x + 6, TOP + HEIGHT / 2 + 0.5);
    }
    from = frame;
  }
  c.fillStyle = colours.attention;
  for (let frame = first; frame < end; frame++) {
    const place = placeIn(rows, frame, actor);
    if (place >= 0 && rows.actors!.met[place] === 1)
      c.fillRect(frameX(scale, frame) - 1, TOP + HEIGHT - 4, Math.max(2, scale.width / scale.frames), 5);
  }
}
