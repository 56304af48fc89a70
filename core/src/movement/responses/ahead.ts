import { axisByAxis } from "../axis-by-axis.ts";
import type { AxisMovement, ResponseMovement } from "../response-movement.ts";
import { wholeAxis } from "../whole-move.ts";

/** `ahead`: each axis moves by all of it where the body would be free so many px on. */
export const ahead: ResponseMovement = (c, s, dx, dy, account) => axisByAxis(c, s, dx, dy, account, lookedAhead);

const lookedAhead: AxisMovement = (c, s, axis, displacement, account) =>
  wholeAxis(c, s, axis, displacement, displacement < 0 ? -c.free.aheadUnits : c.free.aheadUnits, account);
