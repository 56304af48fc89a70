import type { FreeMovement } from "../free-movement.ts";
import { freeMovement } from "../free-movement.ts";
import type { GaitKind } from "../gait-kind.ts";
import { px } from "../setting.ts";

/** Free movement, axis by axis (semantics.md section 4.3). Speeds are px a frame. */
export interface RoamSettings extends FreeMovement {
  readonly speedX: number;
  readonly speedY: number;
}

export const roam: GaitKind<RoamSettings> = {
  label: "Roam",
  onGrid: false,
  tapCounts: false,
  settings: {
    speedX: px("Speed x", "motion", 4, 1),
    speedY: px("Speed y", "motion", 4, 1),
    ...freeMovement((rules) => rules.roam),
  },
};
