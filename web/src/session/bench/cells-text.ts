import type { Pair } from "@keen-pebble/core/world";

/** More cells than this are counted, not listed. */
const MOST_LISTED = 6;

/** Some cells in words: `4,5 and 6,7`, or the first ones and how many more. */
export function cellsText(cells: readonly Pair[]): string {
  const shown = cells.slice(0, MOST_LISTED).map((cell) => cell.join(","));
  const more = cells.length - shown.length;
  return more > 0 ? `${shown.join(" ")} and ${more} more` : shown.join(" ");
}
