import { createStore } from "zustand/vanilla";

const KEPT = 64;

/** The smallest of the values that at least a share of them does not exceed. */
export function percentile(values: readonly number[], share: number): number {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.max(0, Math.ceil(sorted.length * share) - 1)]!;
}

/** How long it takes from a change to the picture of its run. */
export class Latency {
  /** How long it took from a change to the picture of its run, in ms: of the last ones, 95 in 100 took at most so long. */
  readonly store = createStore<{ readonly max: number | null }>(() => ({ max: null }));
  private readonly last: number[] = [];
  /** The page's clock when it was last seen to be hidden or shown: what was changed before then waited for nobody. */
  private turnedAt = -Infinity;

  constructor() {
    globalThis.document?.addEventListener("visibilitychange", () => {
      this.turnedAt = performance.now();
    });
  }

  /**
   * Takes note of one change whose run is on the screen now; of a page that is hidden, or was meanwhile, nothing is noted.
   * @param changedAt when the change was made, by the page's clock
   */
  readonly notePicture = (changedAt: number, now: number = performance.now()): void => {
    if (document.visibilityState === "hidden" || changedAt < this.turnedAt) return;
    this.last.push(now - changedAt);
    if (this.last.length > KEPT) this.last.shift();
    this.store.setState({ max: percentile(this.last, 0.95) });
  };

  /** Forgets what was measured: another log is shown. */
  readonly forgetPictures = (): void => {
    this.last.length = 0;
    this.store.setState({ max: null });
  };
}
