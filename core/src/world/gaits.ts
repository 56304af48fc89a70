import type { Gait } from "./world.ts";
/** Whether a gait keeps to the grid. */
export function isOnGridGait(gait: Gait): boolean { return gait === "hop" || gait === "glide"; }
