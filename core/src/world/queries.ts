import type { Tile, Rules, Room, World } from "./world.ts";
import type { Actor } from "./actors.ts";
import type { Fixture } from "./fixtures.ts";

/** The room with that id, or undefined. */
export function roomById(world: World, id: string): Room | undefined {
  return world.rooms.find((room) => room.id === id);
}

/** The rule set with that id, or undefined. */
export function rulesById(world: World, id: string): Rules | undefined {
  return world.rules.find((rules) => rules.id === id);
}

/** Whether a tile blocks a walker that these flags block (semantics.md section 3). */
export function isSolidFor(blockedBy: readonly string[], tile: Pick<Tile, "flags">): boolean {
  return tile.flags.some((flag) => blockedBy.includes(flag));
}

/** The fixture with that id and its room, or undefined. */
export function fixtureById(
  world: World,
  id: string,
): { readonly fixture: Fixture; readonly room: string } | undefined {
  for (const room of world.rooms) {
    const fixture = room.fixtures.find((each) => each.id === id);
    if (fixture !== undefined) return { fixture, room: room.id };
  }
  return undefined;
}

/** Every actor of a world, in file order. */
export function allActors(world: World): readonly Actor[] {
  return world.rooms.flatMap((room) => room.actors);
}

/** The actor with that id and its room, or undefined. */
export function actorById(world: World, id: string): { readonly actor: Actor; readonly room: string } | undefined {
  for (const room of world.rooms) {
    const actor = room.actors.find((each) => each.id === id);
    if (actor !== undefined) return { actor, room: room.id };
  }
  return undefined;
}

/** The ids that a new fixture or actor must not have: those of all there are. */
export function thingIds(world: World): readonly string[] {
  return world.rooms.flatMap(({ actors, fixtures }) => [...fixtures, ...actors].map(({ id }) => id));
}

/** Every fixture of a world, in file order. */
export function allFixtures(world: World): readonly Fixture[] {
  return world.rooms.flatMap((room) => room.fixtures);
}
