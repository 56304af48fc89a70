import { unitsFromPx } from "../base/units.ts";
import type { Compiled } from "../compiled/compiled.ts";
import type { FreeMovement } from "../world/free-movement.ts";
import { RESPONSE_MOVEMENTS } from "./responses.ts";

/** What a gait that moves freely adds to the settings of free movement, in units. */
type OwnSettings = Partial<Pick<Compiled["free"], "speedX" | "speedY" | "accel" | "drag" | "maxSpeed">>;

/** The settings of free movement in units, with those of one gait. */
export function freeSettings(common: FreeMovement, own: OwnSettings): Compiled["free"] {
  return {
    speedX: 0,
    speedY: 0,
    accel: 0,
    drag: 0,
    maxSpeed: 0,
    ...own,
    evenDiagonal: common.diagonal === "even",
    response: common.response,
    respond: RESPONSE_MOVEMENTS[common.response],
    xFirst: common.axisOrder === "x-first",
    aheadUnits: unitsFromPx(common.aheadPx),
    nudgePx: common.nudge,
    slide: common.slopes === "slide",
  };
}
