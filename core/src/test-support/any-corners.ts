import fc from "fast-check";
import type { Fixture } from "../world/fixtures.ts";
import type { EdgeRule, Side, World } from "../world/world.ts";
import { tinyWorld } from "./tiny-world.ts";

/** Ids of the rooms, in their order. */
export const CORNER_ROOMS = ["a", "b", "c", "d"] as const;

const anyRule: fc.Arbitrary<EdgeRule> = fc.oneof(
  {
    weight: 4,
    arbitrary: fc.constantFrom(...CORNER_ROOMS).map((room) => ({ kind: "link" as const, room, offset: 0 })),
  },
  { weight: 1, arbitrary: fc.constantFrom<EdgeRule>({ kind: "wall" }, { kind: "wrap" }) },
);
/** A rule for all of a side, or for its first cell and its last one each. */
const anySide: fc.Arbitrary<Side> = fc.oneof(
  anyRule,
  fc.tuple(anyRule, anyRule).map(([one, other]) => [
    { ...one, from: 0, to: 0 },
    { ...other, from: 1, to: 1 },
  ]),
);
/** Four rooms of two by two cells, each of them a corner and some of them a wall, whose sides lead anywhere. */
export const anyCorners: fc.Arbitrary<World> = fc
  .record({
    solid: fc.array(fc.array(fc.constantFrom(0, 0, 1), { minLength: 4, maxLength: 4 }), {
      minLength: CORNER_ROOMS.length,
      maxLength: CORNER_ROOMS.length,
    }),
    sides: fc.array(fc.record({ north: anySide, east: anySide, south: anySide, west: anySide }), {
      minLength: CORNER_ROOMS.length,
      maxLength: CORNER_ROOMS.length,
    }),
    speed: fc.constantFrom(2, 3, 3, 11),
    carry: fc.constantFrom(true, true, false),
    crossesAt: fc.constantFrom("centre" as const, "whole" as const),
  })
  .map(({ solid, sides, speed, carry, crossesAt }) => {
    const world = tinyWorld(["S ", "  "], { glide: { speed, carry }, input: { ways: 8 } });
    return {
      ...world,
      rooms: CORNER_ROOMS.map((id, i) => ({
        ...world.rooms[0]!,
        id,
        name: id,
        edges: sides[i]!,
        cells: Uint16Array.from(solid[i]!, (tile, cell) => (i + cell === 0 ? 0 : tile)),
      })),
      rules: world.rules.map((each) => ({ ...each, walker: { ...each.walker, crossesAt } })),
    };
  });

const common = { touch: "cell", keeps: "run" } as const;
const anyThing: fc.Arbitrary<"key" | "door" | null> = fc.constantFrom("key", "door", null);

/** The same with keys and doors in some of the cells. */
export const anyCornersWithThings: fc.Arbitrary<World> = fc
  .record({
    world: anyCorners,
    things: fc.array(fc.array(anyThing, { minLength: 3, maxLength: 3 }), { minLength: 4, maxLength: 4 }),
    spends: fc.boolean(),
  })
  .map(({ spends, things, world }) => ({
    ...world,
    items: [{ id: "key", name: "Key", role: "key", colour: "#ffcc00" }],
    rooms: world.rooms.map((room, i) => ({
      ...room,
      cells: Uint16Array.from(room.cells, (tile, cell) => (things[i]![cell - 1] == null ? tile : 0)),
      fixtures: things[i]!.flatMap((thing, at): Fixture[] => {
        const cell = [(at + 1) % 2, Math.floor((at + 1) / 2)] as const;
        const id = `${room.id}-${at}`;
        if (thing === "key") return [{ ...common, id, kind: "item", cell, give: "key", count: 1 }];
        const lock = { kind: "item", item: "key", count: 1, spends } as const;
        return thing === null ? [] : [{ ...common, id, kind: "door", cell, lock, opensOn: "push", closes: "never" }];
      }),
    })),
  }));
