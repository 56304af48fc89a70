/** How frames lie along the pebble line, in px of its canvas. */
export interface LineScale {
  readonly left: number;
  readonly width: number;
  /** The first frame that is shown, and how many the line has room for. */
  readonly from: number;
  readonly frames: number;
}

/** A part of a run that is looked at: its first frame and how many. */
export interface LineWindow {
  readonly from: number;
  readonly frames: number;
}

/** Room for the lanes' names on the left, and for the off-grid lane's numbers on the right. */
const LEFT = 72;
const RIGHT = 28;

/** Nobody looks at fewer frames than these across the whole line. */
const LEAST_FRAMES = 24;

/** The scale of a line of that width for a run of so many frames, or for a part of it. */
export function lineScale(width: number, frames: number, part: LineWindow | null = null): LineScale {
  return {
    left: LEFT,
    width: Math.max(1, width - LEFT - RIGHT),
    from: part?.from ?? 0,
    frames: Math.max(1, part?.frames ?? frames),
  };
}

/** Where a frame lies. */
export function frameX(scale: LineScale, frame: number): number {
  return scale.left + ((frame - scale.from) / scale.frames) * scale.width;
}

/** The frame at a place, kept within the line. */
export function frameAt(scale: LineScale, x: number): number {
  return Math.max(
    0,
    scale.from + Math.max(0, Math.min(scale.frames, Math.round(((x - scale.left) / scale.width) * scale.frames))),
  );
}

/** Whether a frame lies on the shown part. */
export function isOnLine(scale: LineScale, frame: number): boolean {
  return frame >= scale.from && frame <= scale.from + scale.frames;
}

/**
 * The part that is shown once one has come nearer by a factor, the frame under the pointer staying where it is.
 * @param all frames of the whole run
 * @returns null for all of it
 */
export function zoomedLine(scale: LineScale, all: number, factor: number, x: number): LineWindow | null {
  const frames = Math.max(Math.min(LEAST_FRAMES, all), Math.round(scale.frames / factor));
  if (frames >= all) return null;
  const share = Math.max(0, Math.min(1, (x - scale.left) / scale.width));
  return movedTo(Math.round(scale.from + share * (scale.frames - frames)), frames, all);
}

/** The part moved by some frames, kept within the run. */
export function movedLine(part: LineWindow | null, all: number, by: number): LineWindow | null {
  return part === null ? null : movedTo(part.from + Math.round(by), part.frames, all);
}

/** The part moved so that a frame lies on it; the same one where it does already. */
export function lineWith(part: LineWindow | null, all: number, frame: number): LineWindow | null {
  if (part === null || (frame >= part.from && frame <= part.from + part.frames)) return part;
  return movedTo(frame - Math.round(part.frames * (frame < part.from ? 0.9 : 0.1)), part.frames, all);
}

function movedTo(from: number, frames: number, all: number): LineWindow {
  return { from: Math.max(0, Math.min(all - frames, from)), frames };
}
