import { expect, it } from "vitest";
import { RefusedError } from "../base/refused-error.ts";
import { tinyWorld } from "../test-support/tiny-world.ts";
import type { Actor } from "../world/actors.ts";
import { newActor } from "../world/actors.ts";
import type { Fixture } from "../world/fixtures.ts";
import type { Room, World } from "../world/world.ts";
import { readWorld } from "./read-world.ts";
import { writeWorld } from "./write-world.ts";

const base: World = {
  ...tinyWorld(["S   ", "    "]),
  items: [{ id: "key", name: "Key", role: "key", colour: "#ffcc00" }],
};
/** All that is said of a world where it is read. */
function faults(world: World): string[] {
  try {
    readWorld(writeWorld(world));
    return [];
  } catch (error) {
    if (!(error instanceof RefusedError)) throw error;
    return error.refusals.map(({ place, message }) => `${place}: ${message}`);
  }
}
const roomWith = (more: Partial<Room>): World => ({ ...base, rooms: [{ ...base.rooms[0]!, ...more }] });
const actor = (more: Partial<Actor> = {}, id = "crab-1"): Actor => ({ ...newActor(id, [1, 1], base), ...more });
const path = (...cells: [number, number][]): Partial<Actor> => ({
  plan: [
    { frames: 3, do: "stand" },
    { frames: null, do: "path", then: "round", cells },
  ],
});
const mark = (id: string, more: object = {}): Fixture => ({
  id,
  kind: "marker",
  name: "M",
  cell: [0, 0],
  touch: "cell",
  keeps: "run",
  ...more,
});
const door = (id: string, more: object = {}): Fixture =>
  ({
    id,
    kind: "door",
    cell: [1, 0],
    lock: { kind: "item", item: "key", count: 1, spends: true },
    opensOn: "push",
    closes: "never",
    touch: "cell",
    keeps: "run",
    ...more,
  }) as unknown as Fixture;

it.each<[string, Partial<Actor>, string[]]>([
  ["in the last cell", { cell: [3, 1] }, []],
  ["beyond the room", { cell: [4, 1] }, ["rooms[0].actors[0].cell: must lie inside room a (4x2), found 4 1"]],
  ["below the room", { cell: [3, 2] }, ["rooms[0].actors[0].cell: must lie inside room a (4x2), found 3 2"]],
  ["stopped by what the world has", { blockedBy: ["solid"] }, []],
  [
    "stopped by a flag that there is not",
    { blockedBy: ["solid", "lava"] },
    ["rooms[0].actors[0].blockedBy[1]: names flag lava, which this world does not have"],
  ],
  [
    "with a body that reaches too far",
    { body: [0, 0, 33, 16] },
    ["rooms[0].actors[0].body: must reach at most one tile size (16 px) beyond the frame-square"],
  ],
  ["with a body that reaches a tile beyond", { body: [-16, -16, 48, 48] }, []],
  ["on a path inside", path([0, 0], [3, 1]), []],
  [
    "on a path that leaves the room",
    path([0, 0], [3, 2]),
    ["rooms[0].actors[0].plan[1].cells[1]: must lie inside room a (4x2), found 3 2"],
  ],
])("an actor %s", (_, more, said) => expect(faults(roomWith({ actors: [actor(more)] }))).toEqual(said));

it("an id stands once, for fixtures and actors of all rooms", () => {
  const [room] = base.rooms;
  const twice = (fixtures: readonly Fixture[], actors: readonly Actor[]): string[] =>
    faults({
      ...base,
      rooms: [
        { ...room!, fixtures: [mark("one")] },
        { ...room!, id: "b", fixtures, actors },
      ],
    });
  const said = "stands twice; ids of fixtures and actors are unique in the world";
  expect(twice([mark("two")], [actor({}, "three")])).toEqual([]);
  expect(twice([mark("one")], [])).toEqual([`rooms[1].fixtures[0].id: one ${said}`]);
  expect(twice([], [actor({}, "one")])).toEqual([`rooms[1].actors[0].id: one ${said}`]);
  expect(twice([], [actor({}, "two"), actor({}, "two")])).toEqual([`rooms[1].actors[1].id: two ${said}`]);
});

it("a door stands alone in its cell, a marker beside others, and an area within the room", () => {
  const of = (...fixtures: Fixture[]): string[] => faults(roomWith({ fixtures }));
  expect(of(mark("a"), mark("b"))).toEqual([]);
  expect(of(door("a"), door("b", { cell: [2, 0] }), mark("c", { cell: [1, 0] }))).toEqual([]);
  expect(of(door("a"), mark("c"), door("b"))).toEqual(["rooms[0].fixtures[2].cell: has another door already"]);
  expect(of(mark("a", { size: [4, 2] }), mark("b", { cell: [3, 1], size: [1, 1] }))).toEqual([]);
  expect(of(mark("a", { cell: [1, 0], size: [4, 1] }))).toEqual([
    "rooms[0].fixtures[0].size: must lie inside room a (4x2), found 4 0",
  ]);
  expect(of(mark("a", { cell: [0, 1], size: [1, 2] }))).toEqual([
    "rooms[0].fixtures[0].size: must lie inside room a (4x2), found 0 2",
  ]);
  expect(of(mark("a", { cell: [-1, 0] }))[0]).toMatch(/^rooms\[0\]\.fixtures\[0\]\.cell/);
});

it("a world has 4,096 fixtures at the most, in all of its rooms", () => {
  const many = (n: number): Fixture[] => Array.from({ length: n }, (_, i) => mark(`m-${i}`));
  const inTwo = (n: number): World => ({
    ...base,
    rooms: [
      { ...base.rooms[0]!, fixtures: many(4090) },
      { ...base.rooms[0]!, id: "b", fixtures: many(n).map((each) => ({ ...each, id: `${each.id}-b` })) },
    ],
  });
  expect(faults(inTwo(6))).toEqual([]);
  expect(faults(inTwo(8))).toEqual(["rooms[1].fixtures[6]: is one too many: a world has at most 4096 fixtures"]);
});

it("spans of a side ascend, do not overlap and end with the side", () => {
  const said = (...spans: [number, number][]): string[] =>
    faults(
      roomWith({
        edges: {
          ...base.rooms[0]!.edges,
          north: spans.map(([from, to]) => ({ from, to, kind: "wall" })),
          east: { kind: "wall" },
        } as never,
      }),
    );
  expect(said([0, 0], [1, 3])).toEqual([]);
  expect(said([1, 2], [2, 3])).toEqual([
    "rooms[0].edges.north[1].from: must be at least 3: spans ascend and do not overlap",
  ]);
  expect(said([2, 1])).toEqual(["rooms[0].edges.north[0].to: must be at least 2, the span's from"]);
  expect(said([0, 4])).toEqual(["rooms[0].edges.north[0].to: must be at most 3, the side's last cell"]);
});
