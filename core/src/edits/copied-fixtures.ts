import { sizeOf, withSize, keptPart } from "../world/fixture-area.ts";
import { withPlaces } from "../world/fixture-references.ts";
import type { Fixture } from "../world/fixtures.ts";
import { kindOfFixture } from "../world/fixtures.ts";
import type { Place } from "../world/fixtures/portal.ts";
import type { Facing } from "../world/facing.ts";
import { FACINGS } from "../world/facing.ts";
import { roomById, thingIds } from "../world/queries.ts";
import type { Pair, Room, World } from "../world/world.ts";
import { FreeIds } from "./tiles.ts";

/** The room of a place that lies in the copied rectangle itself: it goes where the copy goes. No room has this id. */
const HERE = "";

/** A rectangle of cells. */
interface Cells {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/**
 * The fixtures that lie wholly in a rectangle of a room, to be laid elsewhere: their cells counted from its top left
 * one. A portal that leads into the rectangle leads into the copy.
 */
export function copiedFixtures(room: Pick<Room, "id" | "fixtures">, rect: Cells): readonly Fixture[] {
  const from = ([x, y]: Pair): Pair => [x - rect.x, y - rect.y];
  const isIn = ([x, y]: Pair, [across, down]: Pair): boolean =>
    x >= rect.x && y >= rect.y && x + across <= rect.x + rect.width && y + down <= rect.y + rect.height;
  return room.fixtures
    .filter((fixture) => isIn(fixture.cell, sizeOf(fixture)))
    .map((fixture) => ({
      ...withPlaces(fixture, (to) =>
        to.room === room.id && isIn(to.cell, [1, 1]) ? { ...to, room: HERE, cell: from(to.cell) } : to,
      ),
      cell: from(fixture.cell),
    }));
}

/** Copied fixtures mirrored left to right, or top to bottom, in a rectangle of so many cells. */
export function flippedFixtures(fixtures: readonly Fixture[], [width, height]: Pair, axis: "x" | "y"): Fixture[] {
  return changed(
    fixtures,
    ([x, y], [across, down]) => (axis === "x" ? [width - x - across, y] : [x, height - y - down]),
    (size) => size,
    (facing) => (axis === "x" ? 8 - facing : 12 - facing),
  );
}

/** Copied fixtures turned clockwise by a quarter, in a rectangle that is so high before. */
export function turnedFixtures(fixtures: readonly Fixture[], height: number): Fixture[] {
  return changed(
    fixtures,
    ([x, y], [, down]) => [height - y - down, x],
    ([across, down]) => [down, across],
    (facing) => facing + 2,
  );
}

function changed(
  fixtures: readonly Fixture[],
  cellOf: (cell: Pair, size: Pair) => Pair,
  sizeAfter: (size: Pair) => Pair,
  facingAfter: (facing: number) => number,
): Fixture[] {
  const facing = (before: Facing): Facing => FACINGS[facingAfter(FACINGS.indexOf(before)) % 8]!;
  const placeAfter = (to: Place): Place =>
    to.room !== HERE
      ? to
      : {
          ...to,
          cell: cellOf(to.cell, [1, 1]),
          ...(to.facing === undefined ? {} : { facing: facing(to.facing) }),
        };
  return fixtures.map((fixture) => ({
    ...withSize(withPlaces(fixture, placeAfter), sizeAfter(sizeOf(fixture))),
    cell: cellOf(fixture.cell, sizeOf(fixture)),
  }));
}

/**
 * The world with copied fixtures laid into a room, the rectangle's top left cell at `at`. Where one of its kind stands
 * already none is laid; what is outside the room is left out.
 * @param moved ids of those that are moved, not copied: they leave where they are and keep their ids; what cannot be
 * laid stays where it is
 * @returns also the ids that the laid ones have
 */
export function layFixtures(
  world: World,
  roomId: string,
  fixtures: readonly Fixture[],
  at: Pair,
  moved: ReadonlySet<string> = new Set(),
): { readonly world: World; readonly ids: readonly string[] } {
  const room = roomById(world, roomId);
  if (room === undefined) return { world, ids: [] };
  const free = new FreeIds(thingIds(world).filter((id) => !moved.has(id)));
  const to = ([x, y]: Pair): Pair => [x + at[0], y + at[1]];
  const placeAt = (place: Place): Place =>
    place.room === HERE ? { ...place, room: roomId, cell: inside(to(place.cell), room) } : place;
  const spot = ({ kind, cell }: Fixture): string => `${kind} ${cell.join()}`;
  const taken = new Set(room.fixtures.flatMap((each) => (moved.has(each.id) ? [] : [spot(each)])));
  const left = new Set<string>();
  const laid = fixtures.flatMap((fixture): Fixture[] => {
    const kept = keptPart({ ...withPlaces(fixture, placeAt), cell: to(fixture.cell) }, room.width, room.height);
    if (kept === null || taken.has(spot(kept))) return [];
    if (kindOfFixture(kept.kind).alone) taken.add(spot(kept));
    if (moved.has(fixture.id)) left.add(fixture.id);
    return [{ ...kept, id: free.take(fixture.id) }];
  });
  const rooms = world.rooms.map((each): Room => {
    const stay = each.fixtures.some(({ id }) => left.has(id))
      ? each.fixtures.filter(({ id }) => !left.has(id))
      : each.fixtures;
    const now = each.id === roomId && laid.length > 0 ? [...stay, ...laid] : stay;
    return now === each.fixtures ? each : { ...each, fixtures: now };
  });
  return { world: { ...world, rooms }, ids: laid.map(({ id }) => id) };
}

function inside([x, y]: Pair, { width, height }: Room): Pair {
  return [Math.min(Math.max(x, 0), width - 1), Math.min(Math.max(y, 0), height - 1)];
}
