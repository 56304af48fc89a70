import { freeSlug } from "../log/log-title.ts";
import type { ShownRoom } from "../bench/shown-room.ts";
import { putSheet } from "../project/api-client.ts";
import type { ProjectSession } from "../project/project.ts";
import type { MapTarget } from "./map-import.ts";
import { bytesOf } from "./new-world-target.ts";

/** A map as one room more of the open world. */
export function moreRoomTarget(project: ProjectSession, shownRoom: ShownRoom): MapTarget {
  const world = () => project.store.getState().project?.world ?? null;
  return {
    base: world,
    tileSize: () => world()?.tileSize ?? null,
    roomId: (name) => freeSlug(name, world()?.rooms.map(({ id }) => id) ?? []),
    make: async ({ base, world: made, room, sheet }) => {
      try {
        // The picture is there before anything names it.
        if (sheet !== null) await putSheet(made.id, sheet.sheet.file, await bytesOf(sheet));
      } catch (error) {
        if (!(error instanceof Error)) throw error;
        return `${error.message}. Nothing was made.`;
      }
      // Its cells name tiles by their numbers in that very world.
      if (world() !== base || !project.changeWorld(() => made))
        return "The world was changed meanwhile, and the map was read again: look at it, and create it then.";
      shownRoom.chooseRoom(room.id);
      return null;
    },
  };
}
