/** Colours of cells by the moves to their first arrival, the nearest first. */
export const TINTS = ["#f4e9cd", "#dbe6cc", "#b5d4c2", "#8abcae", "#5b9f9a", "#34817f", "#1f5f68", "#173c4c"] as const;

/** How many moves each colour stands for, so that the farthest cell has the last one: a round number. */
export function tintStep(farthest: number): number {
  const least = (farthest + 1) / TINTS.length;
  const size = 10 ** Math.floor(Math.log10(Math.max(1, least)));
  return [1, 2, 4, 5, 8, 10].map((n) => n * size).find((step) => step >= least) ?? Math.ceil(least);
}

/** The colour of so many moves. */
export const tintOf = (moves: number, step: number): string =>
  TINTS[Math.min(TINTS.length - 1, Math.floor(moves / step))]!;

/** The most moves to any cell. */
export function farthestOf(first: readonly Int32Array[]): number {
  let farthest = 0;
  for (const cells of first) for (const n of cells) farthest = Math.max(farthest, n);
  return farthest;
}
