import type { World } from "../world/world.ts";
import type { What } from "./what.ts";

/** Says which id of a WHAT the world does not have, or null: such a check is a failed one (formats.md section 2). */
export function danglingInWhat(world: World, what: What): string | null {
  switch (what.kind) {
    case "room":
      return world.rooms.some((room) => room.id === what.room) ? null : missing("room", what.room);
    case "cell":
      return what.room === null || world.rooms.some((room) => room.id === what.room) ? null : missing("room", what.room);
    case "on":
    case "taken":
    case "open":
      return hasFixture(world, what.fixture) ? null : missing("fixture", what.fixture);
    case "holds":
      return world.items.some((item) => item.id === what.item) ? null : missing("item", what.item);
    case "circuit":
      return world.circuits.includes(what.circuit) ? null : missing("circuit", what.circuit);
    case "event":
      if (what.subject === null || hasFixture(world, what.subject) || world.rooms.some((room) => room.id === what.subject)) return null;
      return missing("fixture or room", what.subject);
    case "lives":
      return null;
    case "aligned":
    case "still":
    case "facing":
    case "status":
    case "overlap":
    case "outside":
    case "pixel":
      return null;
  }
}

function hasFixture(world: World, id: string): boolean {
  return world.rooms.some((room) => room.fixtures.some((fixture) => fixture.id === id));
}

function missing(kind: string, id: string): string {
  return `no ${kind} ${id} in this world`;
}
