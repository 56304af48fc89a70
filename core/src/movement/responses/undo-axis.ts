import { axisByAxis } from "../axis-by-axis.ts";
import type { AxisMovement, ResponseMovement } from "../response-movement.ts";
import { wholeAxis } from "../whole-move.ts";

/** `undo-axis`: each axis moves by all of it, or back. */
export const undoAxis: ResponseMovement = (c, s, dx, dy, account) => axisByAxis(c, s, dx, dy, account, undone);

const undone: AxisMovement = (c, s, axis, displacement, account) =>
  wholeAxis(c, s, axis, displacement, displacement, account);
