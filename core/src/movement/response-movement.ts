import type { Account } from "../compiled/account.ts";
import type { Compiled } from "../compiled/compiled.ts";
import type { SimState } from "../compiled/state.ts";

/**
 * Moves the walker by a free displacement in units, as far as what blocks lets it, and leaves the units travelled along
 * each axis in `travelledX` and `travelledY` (semantics.md section 4.3). Allocates nothing without an account.
 */
export type ResponseMovement = (c: Compiled, s: SimState, dx: number, dy: number, account: Account | null) => void;

/** Moves along one axis; gives the units travelled. */
export type AxisMovement = (
  c: Compiled,
  s: SimState,
  axis: number,
  displacement: number,
  account: Account | null,
) => number;
