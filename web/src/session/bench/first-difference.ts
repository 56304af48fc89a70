import type { TraceRows } from "@keen-pebble/core/simulate";

/** The first frame whose rows differ in room, place, facing or image; null where none does. */
export function firstDifference(one: TraceRows, other: TraceRows): number | null {
  const columns = ["room", "x", "y", "facing", "pose"] as const;
  const count = Math.min(one.count, other.count);
  for (let frame = 0; frame < count; frame++)
    if (columns.some((column) => one[column][frame] !== other[column][frame])) return frame;
  return one.count === other.count ? null : count;
}
