import type { InputLog } from "../logs/input-log.ts";
import type { Compiled } from "../compiled/compiled.ts";
import { run } from "./run.ts";

/** Where a path is in one row: room, and position in units. Null after its run's end. */
export interface PathPlace {
  readonly room: string;
  readonly x: number;
  readonly y: number;
}

/** The first frame in which two runs are at different places. */
export interface PathDifference {
  readonly frame: number;
  readonly was: PathPlace | null;
  readonly is: PathPlace | null;
}

/**
 * Compares the paths of two runs, of one log in two worlds say, row by row; null where they are the same. Throws as
 * `run` does.
 */
export function pathDifference(
  before: Compiled,
  logBefore: InputLog,
  now: Compiled,
  logNow: InputLog,
): PathDifference | null {
  const one = run(before, logBefore, { rows: true }).rows!;
  const other = run(now, logNow, { rows: true }).rows!;
  const count = Math.min(one.count, other.count);
  const place = (c: Compiled, rows: typeof one, frame: number): PathPlace | null =>
    frame < rows.count ? { room: c.rooms[rows.room[frame]!]!.id, x: rows.x[frame]!, y: rows.y[frame]! } : null;
  // A room may have another number in the other world.
  const numbers = before.rooms.map(({ id }) => now.rooms.findIndex((room) => room.id === id));
  for (let frame = 0; frame < count; frame++) {
    if (
      one.x[frame] !== other.x[frame] ||
      one.y[frame] !== other.y[frame] ||
      numbers[one.room[frame]!] !== other.room[frame]
    ) {
      return { frame, was: place(before, one, frame), is: place(now, other, frame) };
    }
  }
  return one.count === other.count
    ? null
    : { frame: count, was: place(before, one, count), is: place(now, other, count) };
}
