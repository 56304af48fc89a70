import type { Actor } from "../world/actors.ts";
import { newActor } from "../world/actors.ts";
import { thingIds } from "../world/queries.ts";
import type { Pair, World } from "../world/world.ts";
import type { Project } from "./project.ts";
import type { Followed } from "./references.ts";
import { NOTHING_CHANGES, follow } from "./references.ts";
import { FreeIds } from "./tiles.ts";

/** The world with a new actor that stands on a cell of a room, and its id. */
export function placeActor(world: World, room: string, cell: Pair): { readonly world: World; readonly id: string } {
  const id = new FreeIds(thingIds(world)).take("actor-1");
  const actor = newActor(id, cell, world);
  const rooms = world.rooms.map((each) => (each.id === room ? { ...each, actors: [...each.actors, actor] } : each));
  return { world: { ...world, rooms }, id };
}

/** The world with an actor changed; its id stays. */
export function changeActor(world: World, id: string, how: (actor: Actor) => Actor): World {
  return {
    ...world,
    rooms: world.rooms.map((room) =>
      room.actors.some((each) => each.id === id)
        ? { ...room, actors: room.actors.map((each) => (each.id === id ? { ...how(each), id } : each)) }
        : room,
    ),
  };
}

/** The project without an actor; checks and `with` lines that were about it fall away and are told. */
export function removeActor(project: Project, id: string): Followed {
  const rooms = project.world.rooms.map((room) => ({ ...room, actors: room.actors.filter((each) => each.id !== id) }));
  return follow(
    { ...project, world: { ...project.world, rooms } },
    { ...NOTHING_CHANGES, fixture: (each) => (each === id ? null : each) },
  );
}

/** An actor under another id; every reference follows, in logs too. */
export function renameActor(project: Project, from: string, to: string): Followed {
  const rooms = project.world.rooms.map((room) => ({
    ...room,
    actors: room.actors.map((each) => (each.id === from ? { ...each, id: to } : each)),
  }));
  return follow(
    { ...project, world: { ...project.world, rooms } },
    { ...NOTHING_CHANGES, fixture: (each) => (each === from ? to : each) },
  );
}
