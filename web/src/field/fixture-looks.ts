import { drawingOf } from "./fixture-art.ts";
import { kindOfFixture } from "@keen-pebble/core/world";
import type { Remembered } from "@keen-pebble/core/simulate";
import type { Fixture, World } from "@keen-pebble/core/world";
import type { FixtureLook } from "./fixture-drawing.ts";

/** What of a room's fixtures is to be seen, each with its look: taken items are gone. */
export function shownFixtures(
  world: World,
  roomId: string,
  remembered: Remembered | null,
): { readonly fixture: Fixture; readonly look: FixtureLook; readonly gone: boolean }[] {
  let number = 0;
  for (const room of world.rooms) {
    if (room.id === roomId) break;
    number += room.fixtures.length;
  }
  const room = world.rooms.find(({ id }) => id === roomId);
  return (room?.fixtures ?? []).map((fixture, i) => ({
    fixture,
    look: lookOf(world, fixture, remembered, number + i),
    gone: remembered?.taken[number + i] === 1,
  }));
}

/** The doors of a room that are closed; as at the start where nothing is remembered. */
export function closedDoors(world: World, roomId: string, remembered: Remembered | null): readonly Fixture[] {
  return shownFixtures(world, roomId, remembered).flatMap(({ fixture, look }) =>
    fixture.kind === "door" && !look.on ? [fixture] : [],
  );
}

/** How a fixture looks with what is remembered; as at the start where nothing is. */
export function lookOf(world: World, fixture: Fixture, remembered: Remembered | null, number: number): FixtureLook {
  const itemId = kindOfFixture(fixture.kind).item(fixture);
  const item = world.items.find(({ id }) => id === itemId) ?? null;
  return { kind: fixture.kind, on: drawingOf(fixture.kind).isOn(world, fixture, remembered, number), item };
}

/** What a fixture is, in a word; as at the start where nothing is remembered. Empty for kinds that a run cannot change. */
export function stateText(world: World, fixture: Fixture, remembered: Remembered | null, number: number): string {
  const { isOn, state } = drawingOf(fixture.kind);
  return state?.(isOn(world, fixture, remembered, number), remembered?.taken[number] === 1) ?? "";
}
