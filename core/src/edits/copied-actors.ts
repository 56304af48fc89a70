import type { Actor } from "../world/actors.ts";
import { FACINGS } from "../world/facing.ts";
import { LIMITS } from "../world/limits.ts";
import { movedActor } from "../world/moved-actor.ts";
import { roomById, thingIds } from "../world/queries.ts";
import type { Pair, Room, World } from "../world/world.ts";
import { FreeIds } from "./tiles.ts";

/** The actors that begin in a rectangle of a room, to be laid elsewhere: their cells and paths counted from its top left cell. */
export function copiedActors(
  room: Pick<Room, "actors">,
  rect: { readonly x: number; readonly y: number; readonly width: number; readonly height: number },
): readonly Actor[] {
  const { height, width, x, y } = rect;
  const isIn = ([cx, cy]: Pair): boolean => cx >= x && cy >= y && cx < x + width && cy < y + height;
  return room.actors.filter(({ cell }) => isIn(cell)).map((actor) => mapCells(actor, ([cx, cy]) => [cx - x, cy - y]));
}

/** Copied actors mirrored left to right, or top to bottom, in a rectangle of so many cells. Bodies stay: pictures are not mirrored either. */
export function flippedActors(actors: readonly Actor[], [width, height]: Pair, axis: "x" | "y"): Actor[] {
  return actors.map((actor) => ({
    ...mapCells(actor, ([x, y]) => (axis === "x" ? [width - 1 - x, y] : [x, height - 1 - y])),
    facing: turned(actor, (facing) => (axis === "x" ? 8 - facing : 12 - facing)),
  }));
}

/** Copied actors turned clockwise by a quarter, in a rectangle that is so high before. */
export function turnedActors(actors: readonly Actor[], height: number): Actor[] {
  return actors.map((actor) => ({
    ...mapCells(actor, ([x, y]) => [height - 1 - y, x]),
    facing: turned(actor, (facing) => facing + 2),
  }));
}

/**
 * The world with copied actors laid into a room, the rectangle's top left cell at `at`; those that would begin outside
 * the room, or are more than a room has, are left out, and paths lose the cells that lie outside.
 * @param moved ids of those that are moved, not copied: they leave where they are and keep their ids
 */
export function layActors(
  world: World,
  roomId: string,
  actors: readonly Actor[],
  at: Pair,
  moved: ReadonlySet<string> = new Set(),
): World {
  const room = roomById(world, roomId);
  if (room === undefined || actors.length === 0) return world;
  const free = new FreeIds(thingIds(world).filter((id) => !moved.has(id)));
  const inside = ([x, y]: Pair): boolean => x >= 0 && y >= 0 && x < room.width && y < room.height;
  const to = ([x, y]: Pair): Pair => [x + at[0], y + at[1]];
  const kept = actors.flatMap((actor) => movedActor(actor, to, inside, []));
  const left = new Set(kept.flatMap(({ id }) => (moved.has(id) ? [id] : [])));
  const stays = world.rooms.map((each) => each.actors.filter(({ id }) => !left.has(id)));
  const most = LIMITS.actors - stays[world.rooms.indexOf(room)]!.length;
  const laid = kept.slice(0, Math.max(most, 0)).map((actor) => ({ ...actor, id: free.take(actor.id) }));
  return {
    ...world,
    rooms: world.rooms.map((each, i) => ({
      ...each,
      actors: each.id === roomId ? [...stays[i]!, ...laid] : stays[i]!,
    })),
  };
}

/** An actor with its cell and those of its paths elsewhere. */
const mapCells = (actor: Actor, to: (cell: Pair) => Pair): Actor => movedActor(actor, to, () => true, [])[0]!;

const turned = ({ facing }: Actor, after: (facing: number) => number): Actor["facing"] =>
  FACINGS[after(FACINGS.indexOf(facing)) % 8]!;
