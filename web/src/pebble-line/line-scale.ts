/** How frames lie along the pebble line, in px of its canvas. */
export interface LineScale {
  readonly left: number;
  readonly width: number;
  /** Frames that the line has room for. */
  readonly frames: number;
}

/** Room for the lanes' names on the left, and for the off-grid lane's numbers on the right. */
const LEFT = 72;
const RIGHT = 28;

/** The scale of a line of that width for a run of so many frames. */
export function lineScale(width: number, frames: number): LineScale {
  return { left: LEFT, width: Math.max(1, width - LEFT - RIGHT), frames: Math.max(1, frames) };
}

/** Where a frame lies. */
export function frameX(scale: LineScale, frame: number): number {
  return scale.left + (frame / scale.frames) * scale.width;
}

/** The frame at a place, kept within the line. */
export function frameAt(scale: LineScale, x: number): number {
  return Math.max(0, Math.min(scale.frames, Math.round(((x - scale.left) / scale.width) * scale.frames)));
}
