import { createStore } from "zustand/vanilla";

const KEPT = 64;

/** How long it took from a change to the picture of its run, in ms: of the last ones, 95 in 100 took at most so long. */
export const latencyStore = createStore<{ readonly max: number | null }>(() => ({ max: null }));

const last: number[] = [];

/** The page's clock when it was last seen to be hidden or shown: what was changed before then waited for nobody. */
let turnedAt = -Infinity;
globalThis.document?.addEventListener("visibilitychange", () => {
  turnedAt = performance.now();
});

/**
 * Takes note of one change whose run is on the screen now; of a page that is hidden, or was meanwhile, nothing is noted.
 * @param changedAt when the change was made, by the page's clock
 */
export function notePicture(changedAt: number, now: number = performance.now()): void {
  if (document.visibilityState === "hidden" || changedAt < turnedAt) return;
  last.push(now - changedAt);
  if (last.length > KEPT) last.shift();
  latencyStore.setState({ max: percentile(last, 0.95) });
}

/** Forgets what was measured: another log is shown. */
export function forgetPictures(): void {
  last.length = 0;
  latencyStore.setState({ max: null });
}

/** The smallest of the values that at least a share of them does not exceed. */
export function percentile(values: readonly number[], share: number): number {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.max(0, Math.ceil(sorted.length * share) - 1)]!;
}
