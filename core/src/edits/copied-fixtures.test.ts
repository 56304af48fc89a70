import fc from "fast-check";
import { expect, it } from "vitest";
import { FIXED } from "../test-support/arbitraries.ts";
import { tinyWorld } from "../test-support/tiny-world.ts";
import { sizeOf } from "../world/fixture-area.ts";
import type { Fixture } from "../world/fixtures.ts";
import type { World } from "../world/world.ts";
import { copiedFixtures, flippedFixtures, layFixtures, turnedFixtures } from "./copied-fixtures.ts";

const OWN = { touch: "cell", keeps: "run" } as const;

/** A room of 8 by 6 cells with these fixtures, and an empty one beside. */
function roomWith(fixtures: readonly Fixture[]): World {
  const base = tinyWorld(Array.from({ length: 6 }, () => "........"));
  const [room] = base.rooms;
  return {
    ...base,
    rooms: [
      { ...room!, fixtures },
      { ...room!, id: "b", name: "B", fixtures: [] },
    ],
  };
}

const anyFixtures = fc.array(fc.tuple(fc.nat(5), fc.nat(4), fc.nat(2)), { minLength: 1, maxLength: 8 }).map((places) =>
  places.map(([x, y, kind], i): Fixture =>
    kind === 0
      ? { ...OWN, id: `gate-${i}`, cell: [x, y], kind: "hazard", size: [2, 1] }
      : kind === 1
        ? {
            ...OWN,
            id: `way-${i}`,
            cell: [x, y],
            kind: "portal",
            to: { room: "a", cell: [y, x % 4], facing: "up-left" },
          }
        : { ...OWN, id: `lamp-${i}`, cell: [x, y], kind: "marker", name: "Lamp" },
  ),
);

const RECT = { x: 1, y: 1, width: 5, height: 4 };

it("copies flipped twice or turned four times are as they were", () => {
  let copied = 0;
  fc.assert(
    fc.property(anyFixtures, (fixtures) => {
      const copy = copiedFixtures(roomWith(fixtures).rooms[0]!, RECT);
      copied += copy.length;
      for (const axis of ["x", "y"] as const) {
        const once = flippedFixtures(copy, [5, 4], axis);
        expect(flippedFixtures(once, [5, 4], axis)).toEqual(copy);
        once.forEach((each, i) => {
          const along = axis === "x" ? 0 : 1;
          expect(each.cell[along] + sizeOf(each)[along] + copy[i]!.cell[along]).toBe([5, 4][along]);
        });
      }
      const turned = [4, 5, 4, 5].reduce((now, height) => turnedFixtures(now, height), copy);
      expect(turned).toEqual(copy);
    }),
    FIXED,
  );
  expect(copied).toBeGreaterThan(200);
});

it("a portal that leads into the copied rectangle leads into the copy, with the facing that it has there", () => {
  const world = roomWith([
    { ...OWN, id: "way-1", cell: [1, 1], kind: "portal", to: { room: "a", cell: [3, 2], facing: "up-left" } },
    { ...OWN, id: "way-2", cell: [2, 1], kind: "portal", to: { room: "a", cell: [7, 5] } },
  ]);
  const copy = copiedFixtures(world.rooms[0]!, { x: 1, y: 1, width: 3, height: 2 });
  const laid = layFixtures(world, "b", copy, [4, 3]);
  expect(laid.ids).toEqual(["way-3", "way-4"]);
  expect(laid.world.rooms[1]!.fixtures).toMatchObject([
    { id: "way-3", cell: [4, 3], to: { room: "b", cell: [6, 4], facing: "up-left" } },
    { id: "way-4", cell: [5, 3], to: { room: "a", cell: [7, 5] } },
  ]);
  const flipped = layFixtures(world, "b", flippedFixtures(copy, [3, 2], "x"), [0, 0]).world.rooms[1]!.fixtures;
  expect(flipped[0]).toMatchObject({ cell: [2, 0], to: { room: "b", cell: [0, 1], facing: "up-right" } });
  const turned = layFixtures(world, "b", turnedFixtures(copy, 2), [0, 0]).world.rooms[1]!.fixtures;
  expect(turned[0]).toMatchObject({ cell: [1, 0], to: { room: "b", cell: [0, 2], facing: "up-right" } });
});

it("a size is turned along, and what lies only in part in the rectangle stays where it is", () => {
  const world = roomWith([
    { ...OWN, id: "vent-1", cell: [0, 0], kind: "hazard", size: [3, 1] },
    { ...OWN, id: "vent-2", cell: [2, 0], kind: "hazard", size: [3, 1] },
  ]);
  const copy = copiedFixtures(world.rooms[0]!, { x: 0, y: 0, width: 3, height: 2 });
  expect(copy.map(({ id }) => id)).toEqual(["vent-1"]);
  expect(turnedFixtures(copy, 2)).toMatchObject([{ cell: [1, 0], size: [1, 3] }]);
});

it("moving loses nothing and keeps the ids; copying leaves all where it is", () => {
  fc.assert(
    fc.property(anyFixtures, fc.integer({ min: -3, max: 7 }), fc.integer({ min: -3, max: 5 }), (fixtures, x, y) => {
      const world = roomWith(fixtures);
      const copy = copiedFixtures(world.rooms[0]!, RECT);
      const ids = (after: World): string[] => after.rooms.flatMap((room) => room.fixtures.map(({ id }) => id)).sort();
      for (const room of ["a", "b"]) {
        const moved = layFixtures(world, room, copy, [x, y], new Set(copy.map(({ id }) => id)));
        expect(ids(moved.world)).toEqual(ids(world));
        const copied = layFixtures(world, room, copy, [x, y]);
        expect(copied.world.rooms[0]!.fixtures.slice(0, fixtures.length)).toEqual(fixtures);
        expect(new Set(ids(copied.world)).size).toBe(fixtures.length + copied.ids.length);
        for (const each of copied.world.rooms)
          for (const { cell } of each.fixtures)
            expect(cell[0] >= 0 && cell[1] >= 0 && cell[0] < 8 && cell[1] < 6).toBe(true);
      }
    }),
    FIXED,
  );
});
