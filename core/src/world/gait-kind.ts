import type { SettingsOf } from "./setting.ts";

/** What a gait is to whoever need not move by it: its settings, and what everything else asks of it. */
export interface GaitKind<S> {
  /** What it is called. */
  readonly label: string;
  /** Whether it keeps to the grid: it rests on cells only, and moves from one to the next. */
  readonly onGrid: boolean;
  /** With two directions held and one of them newly pressed, that one counts for its frame (semantics.md section 4.1). */
  readonly tapCounts: boolean;
  readonly settings: SettingsOf<S>;
}
