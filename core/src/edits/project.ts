import type { World } from "../world/world.ts";

/** A world and its logs: what a revision holds (architecture.md, flow 2). A value; edits make new ones. */
export interface Project {
  readonly world: World;
  /** Each log's text by its id. */
  readonly logs: Readonly<Record<string, string>>;
}
