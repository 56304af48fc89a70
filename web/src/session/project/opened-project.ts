import type { Project } from "@keen-pebble/core/edit";
import { fromPlain } from "@keen-pebble/core/formats";
import type { WorldRevision } from "@keen-pebble/server/api";

/** The project that the server's answer holds. */
export function openedProject({ world, logs }: WorldRevision): Project {
  return { world: fromPlain(world), logs: new Map(Object.entries(logs)) };
}
