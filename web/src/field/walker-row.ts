import type { TraceRows } from "@keen-pebble/core/simulate";
import type { Facing } from "@keen-pebble/core/world";
import { FACINGS } from "@keen-pebble/core/world";
import type { BenchState } from "../session/bench/bench-store.ts";

/** The walker in the shown frame, for drawing; x and y in px. */
export interface WalkerRow {
  readonly rows: TraceRows;
  readonly frame: number;
  readonly room: number;
  readonly x: number;
  readonly y: number;
  readonly facing: Facing;
  readonly pose: number;
}

/** The walker of the live walk, or of the run at the shown frame; null where there is neither. */
export function walkerRow(state: BenchState): WalkerRow | null {
  const rows = state.walk?.rows ?? state.run?.rows;
  if (!rows || rows.count === 0) return null;
  const frame = Math.min(state.walk ? rows.count - 1 : state.frame, rows.count - 1);
  return {
    rows,
    frame,
    room: rows.room[frame]!,
    x: rows.x[frame]! / 256,
    y: rows.y[frame]! / 256,
    facing: FACINGS[rows.facing[frame]!]!,
    pose: rows.pose[frame]!,
  };
}
