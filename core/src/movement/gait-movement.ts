import type { Account } from "../compiled/account.ts";
import type { Compiled } from "../compiled/compiled.ts";
import type { SimState } from "../compiled/state.ts";
import type { Rules } from "../world/world.ts";

/** How a gait moves the walker; one file each in `gaits/`. Its settings are those of `world/gaits`. */
export interface GaitMovement {
  /** Moves the state by one frame, allocating nothing, and writes what it saw and decided into the account where there is one. */
  readonly move: (c: Compiled, s: SimState, account: Account | null) => void;
  /** Its settings in units, for gaits that move freely. */
  readonly free?: (rules: Rules) => Compiled["free"];
  /** Frames in which it gets about a cell further. */
  readonly framesOfCell: (c: Compiled) => number;
  /**
   * For gaits that move freely: a frame's diagonal displacement, as it would be were it evened.
   * @param began velocity at the start of the frame
   */
  readonly evened?: (
    c: Compiled,
    s: SimState,
    began: { readonly vx: number; readonly vy: number },
    dx: number,
    dy: number,
  ) => readonly [number, number];
}
