import type { FreeMovement } from "../free-movement.ts";
import { freeMovement } from "../free-movement.ts";
import type { GaitKind } from "../gait-kind.ts";
import { px, whole } from "../setting.ts";

/** Momentum (semantics.md section 4.4). Px a frame, and px a frame more in each; drag in 256ths of the velocity. */
export interface DriftSettings extends FreeMovement {
  readonly accel: number;
  readonly drag: number;
  readonly maxSpeed: number;
}

export const drift: GaitKind<DriftSettings> = {
  label: "Drift",
  onGrid: false,
  tapCounts: false,
  settings: {
    accel: px("Accel", "motion", 4, 0.25),
    drag: whole("Drag", "motion", 0, 256, "", 16),
    maxSpeed: px("Max speed", "motion", 4, 3),
    ...freeMovement((rules) => rules.drift),
  },
};
