import type { Fixture } from "../world/fixtures.ts";
import type { Compiled } from "../compiled/compiled.ts";
import type { CompiledActor } from "../compiled/compiled-actor.ts";
import { actorById, allActors, allFixtures, fixtureById, roomById } from "../world/queries.ts";
import type { World } from "../world/world.ts";

/** Ids of a world's rooms. */
export function roomIds(world: World): string[] {
  return world.rooms.map(({ id }) => id);
}

/** Ids of a world's fixtures: all, or those of one kind. */
export function fixtureIds(world: World, kind: Fixture["kind"] | null = null): string[] {
  return allFixtures(world).flatMap((fixture) => (kind === null || fixture.kind === kind ? [fixture.id] : []));
}

/** Ids of a world's actors. */
export function actorIds(world: World): string[] {
  return allActors(world).map(({ id }) => id);
}

/** Number of a room, -1 where the world has none of that id. */
export function roomNumber(c: Compiled, id: string): number {
  return c.rooms.findIndex((room) => room.id === id);
}

/** Number of a fixture, -1 where the world has none of that id. */
export function fixtureNumber(c: Compiled, id: string): number {
  return c.fixtures.all.findIndex((fixture) => fixture.id === id);
}

/** An actor as the simulation has it; undefined where there is none of that id, or actors are left out. */
export function compiledActor(c: Compiled, id: string): CompiledActor | undefined {
  return c.actors?.all.find((actor) => actor.id === id);
}

/** Number of a fixture, or of an actor, as events name it; -1 where the world has none of that id. */
export function subjectNumber(c: Compiled, id: string): number {
  const actor = compiledActor(c, id);
  return actor === undefined ? fixtureNumber(c, id) : c.fixtures.all.length + actor.number;
}

/** Says that a world lacks a room, or null. */
export function missingRoom(world: World, id: string): string | null {
  return roomById(world, id) === undefined ? missing("room", id) : null;
}

/** Says that a world lacks a fixture, or null. */
export function missingFixture(world: World, id: string): string | null {
  return fixtureById(world, id) === undefined ? missing("fixture", id) : null;
}

/** Says that a world lacks an actor, or null. */
export function missingActor(world: World, id: string): string | null {
  return actorById(world, id) === undefined ? missing("actor", id) : null;
}

/** Says that a world lacks something. */
export function missing(kind: string, id: string): string {
  return `no ${kind} ${id} in this world`;
}
