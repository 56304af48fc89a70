import type { World } from "../world/world.ts";

/** Each log's text by its id. */
export type Logs = ReadonlyMap<string, string>;

/** A world and its logs: what a revision holds (architecture.md, flow 2). A value; edits make new ones. */
export interface Project {
  readonly world: World;
  readonly logs: Logs;
}
