import type { Remembered } from "@keen-pebble/core/simulate";
import type { Fixture, World } from "@keen-pebble/core/world";
import type { FixtureLook } from "./fixture-art.ts";

/** What of a room's fixtures is to be seen, each with its look: taken items are gone. */
export function shownFixtures(world: World, roomId: string, remembered: Remembered | null): { readonly fixture: Fixture; readonly look: FixtureLook; readonly gone: boolean }[] {
  let number = 0;
  for (const room of world.rooms) {
    if (room.id === roomId) break;
    number += room.fixtures.length;
  }
  const room = world.rooms.find(({ id }) => id === roomId);
  return (room?.fixtures ?? []).map((fixture, i) => ({ fixture, look: lookOf(world, fixture, remembered, number + i), gone: remembered?.taken[number + i] === 1 }));
}

/** The doors of a room that are closed; as at the start where nothing is remembered. */
export function closedDoors(world: World, roomId: string, remembered: Remembered | null): readonly Fixture[] {
  return shownFixtures(world, roomId, remembered).flatMap(({ fixture, look }) => (fixture.kind === "door" && !look.on ? [fixture] : []));
}

/** How a fixture looks with what is remembered; as at the start where nothing is. */
export function lookOf(world: World, fixture: Fixture, remembered: Remembered | null, number: number): FixtureLook {
  const itemId = fixture.kind === "item" ? fixture.give : fixture.kind === "door" && "item" in fixture.lock ? fixture.lock.item : null;
  const item = world.items.find(({ id }) => id === itemId) ?? null;
  return { kind: fixture.kind, on: isOn(world, fixture, remembered, number), item };
}

function isOn(world: World, fixture: Fixture, remembered: Remembered | null, number: number): boolean {
  if (remembered === null) return fixture.kind === "door" && fixture.lock.kind === "circuit" && fixture.lock.open === "off";
  if (fixture.kind === "door") return remembered.open[number] === 1;
  if (fixture.kind === "switch") return remembered.on[world.circuits.indexOf(fixture.circuit)] === 1;
  return fixture.kind === "checkpoint" && remembered.checkpoint === number;
}
