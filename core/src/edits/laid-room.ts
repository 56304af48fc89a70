import { placesOf } from "../world/fixture-references.ts";
import type { Fixture } from "../world/fixtures.ts";
import { NOTHING_CHANGES, follow } from "./references.ts";
import type { Project } from "./project.ts";
import type { RoomDraft } from "../formats/room-draft.ts";
import { layRoom } from "../formats/room-draft.ts";
import type { Pair, World } from "../world/world.ts";
import { thingIds } from "../world/queries.ts";
import { removeFixtures } from "./fixtures.ts";
import type { Followed } from "./references.ts";

/**
 * The project with a room's content laid in as `layRoom` does; fixtures, actors and starts that have no cell any more, portals
 * that led to such a cell, and fixtures that what was read does not have, go with all that names them, and are told.
 */
export function layRoomInto(project: Project, roomId: string, draft: RoomDraft): Followed {
  const inside = ([x, y]: Pair): boolean => x < draft.width && y < draft.height;
  const laid = withoutPortals(layRoom(project.world, roomId, draft), roomId, inside);
  const kept = new Set(thingIds(laid));
  const lost = thingIds(project.world).filter((id) => !kept.has(id));
  const fellAway = lost.map((id) => `${id}, which has no place any more`);
  const { start } = project.world;
  if (start.room === roomId && draft.start === null && !inside(start.cell))
    fellAway.push("the start, which stood in what was cut off");
  const without = removeFixtures({ ...project, world: laid }, lost);
  const followed = follow(without.project, {
    ...NOTHING_CHANGES,
    start: (begin) => (begin.room === roomId && !inside(begin.cell) ? null : begin),
  });
  return { project: followed.project, fellAway: [...fellAway, ...without.fellAway, ...followed.fellAway] };
}

function withoutPortals(world: World, roomId: string, inside: (cell: Pair) => boolean): World {
  const leadsNowhere = (fixture: Fixture): boolean =>
    placesOf(fixture).some((to) => to.room === roomId && !inside(to.cell));
  return {
    ...world,
    rooms: world.rooms.map((room) =>
      room.fixtures.some(leadsNowhere)
        ? { ...room, fixtures: room.fixtures.filter((fixture) => !leadsNowhere(fixture)) }
        : room,
    ),
  };
}
