import type { Gait } from "../world/gaits.ts";
import type { GaitMovement } from "./gait-movement.ts";
import { drift } from "./gaits/drift.ts";
import { glide } from "./gaits/glide.ts";
import { hop } from "./gaits/hop.ts";
import { roam } from "./gaits/roam.ts";

/** How every gait moves. */
export const GAIT_MOVEMENTS: Readonly<Record<Gait, GaitMovement>> = { hop, glide, roam, drift };
