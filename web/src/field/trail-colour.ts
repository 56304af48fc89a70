// Blue, teal, ochre: the run from its beginning to its end.
const STOPS: readonly (readonly [number, number, number])[] = [
  [61, 90, 152],
  [24, 148, 138],
  [222, 164, 52],
];

/** How many steps of colour a run is drawn in. */
export const TRAIL_STEPS = 48;

/** Colour of a step of the run, 0 to `TRAIL_STEPS - 1`. */
export function trailColour(step: number): string {
  const t = (step / (TRAIL_STEPS - 1)) * (STOPS.length - 1);
  const i = Math.min(STOPS.length - 2, Math.floor(t));
  const [a, b] = [STOPS[i]!, STOPS[i + 1]!];
  const mix = (n: 0 | 1 | 2): number => Math.round(a[n] + (b[n] - a[n]) * (t - i));
  return `rgb(${mix(0)}, ${mix(1)}, ${mix(2)})`;
}

/** A walk of more frames has colours that stay what they are for a while. */
const LONG_WALK = 600;

/**
 * The frames over which a run's colours go: its own. Of a long walk that goes on they are twice as many each time that
 * there are not enough, since new colours with each frame would have all of it drawn anew.
 */
export function trailScale(frames: number, growing: boolean): number {
  if (!growing || frames <= LONG_WALK) return frames;
  let scale = LONG_WALK;
  while (scale < frames) scale *= 2;
  return scale;
}

/** The step of colour in which a frame of a run is drawn. */
export function trailStep(frame: number, frames: number): number {
  return frames === 0 ? 0 : Math.min(TRAIL_STEPS - 1, Math.floor((frame / frames) * TRAIL_STEPS));
}
