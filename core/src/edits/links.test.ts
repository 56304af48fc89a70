import type { Fixture, FixtureKindName } from "../world/fixtures.ts";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { roomFindings } from "../analysis/findings/room-findings.ts";
import { anyHouse } from "../test-support/any-house.ts";
import { FIXED } from "../test-support/arbitraries.ts";
import { tinyWorld } from "../test-support/tiny-world.ts";
import type { Pair, World } from "../world/world.ts";
import { roomById } from "../world/queries.ts";
import {
  changeFixtures,
  copyFixtures,
  moveFixtures,
  placeFixtures,
  removeFixtures,
  renameFixture,
  threadsOf,
} from "./fixtures.ts";
import { OPPOSITE, linkSides, openingAt, ruleAt, seamsOf, sideLength, wallSide, wrapRoom } from "./links.ts";

/** A world with one more fixture in room `a`, and its id. */
const placed = (world: World, kind: FixtureKindName, cell: Pair) => {
  const { world: after, ids } = placeFixtures(world, "a", { kind, about: null }, [cell]);
  return { world: after, id: ids[0]! };
};

const two = (): World => {
  const base = tinyWorld(["S..", "..#", "..."]);
  return { ...base, rooms: [base.rooms[0]!, { ...base.rooms[0]!, id: "b", name: "B" }] };
};

it("sides are linked whole or in spans, there and back or one way, and walled up again", () => {
  const linked = linkSides(two(), { room: "a", side: "east", to: "b", offset: 1, span: null, oneWay: false });
  expect([linked.rooms[0]!.edges.east, linked.rooms[1]!.edges.west]).toEqual([
    { kind: "link", room: "b", offset: 1 },
    { kind: "link", room: "a", offset: -1 },
  ]);
  const span = linkSides(two(), {
    room: "a",
    side: "south",
    to: "b",
    offset: 0,
    span: openingAt(two(), two().rooms[0]!, "south", 1),
    oneWay: true,
  });
  expect([span.rooms[0]!.edges.south, span.rooms[1]!.edges.north]).toEqual([
    [{ from: 0, to: 2, kind: "link", room: "b", offset: 0 }],
    { kind: "wall" },
  ]);
  expect(seamsOf(span)).toMatchObject([{ room: "a", side: "south", from: 0, to: 2, oneWay: true, unmet: [] }]);
  expect(wallSide(linked, "a", "east").rooms[0]!.edges.east).toEqual({ kind: "wall" });
  expect(seamsOf(wrapRoom(two(), "b", "y")).map(({ side, rule }) => `${side} ${rule.kind}`)).toEqual([
    "north wrap",
    "south wrap",
  ]);
});

it("a span that is laid over a side changes that span and nothing else", () => {
  fc.assert(
    fc.property(
      anyHouse,
      fc.constantFrom("north", "east", "south", "west"),
      fc.integer({ min: 0, max: 5 }),
      fc.integer({ min: 0, max: 5 }),
      (world, side, one, other) => {
        const [from, to] = [Math.min(one, other), Math.max(one, other)];
        const after = linkSides(world, { room: "a", side, to: "b", offset: 2, span: [from, to], oneWay: true });
        const [before, now] = [roomById(world, "a")!, roomById(after, "a")!];
        for (let at = 0; at < sideLength(before, side); at++) {
          const { kind, ...rest } = ruleAt(now.edges[side], at);
          if (at >= from && at <= to) expect({ kind, ...rest }).toMatchObject({ kind: "link", room: "b", offset: 2 });
          else expect({ kind }).toMatchObject({ kind: ruleAt(before.edges[side], at).kind });
        }
        expect(after.rooms[1]!.edges[OPPOSITE[side]]).toBe(world.rooms[1]!.edges[OPPOSITE[side]]);
      },
    ),
    FIXED,
  );
});

it("fixtures are placed, moved, copied, renamed and taken away with what was about them", () => {
  const { world: one, id } = placed(two(), "item", [1, 0]);
  expect([id, one.items.map((item) => item.id)]).toEqual(["key-1", ["key"]]);
  const { world: both, id: door } = placed(one, "door", [2, 0]);
  expect(threadsOf(both, door)).toEqual([{ from: "key-1", to: "door-1" }]);
  expect(moveFixtures(both, [id], -2, 0)).toBeNull();
  expect(moveFixtures(both, [id], 0, 1)!.rooms[0]!.fixtures[0]!.cell).toEqual([1, 1]);
  expect(copyFixtures(both, [id]).copies).toEqual(["key-2"]);
  const logs = new Map([
    ["walk", "keen-pebble-inputs 1\nwith taken key-1\ncheck ever taken key-1\ncheck end event take key-1\n---\n1 R\n"],
  ]);
  const renamed = renameFixture({ world: both, logs }, "key-1", "crank");
  expect(renamed.project.logs.get("walk")).toBe(logs.get("walk")!.replaceAll("key-1", "crank"));
  expect(removeFixtures({ world: both, logs }, ["key-1"]).fellAway).toEqual([
    "walk: check ever taken key-1",
    "walk: check end event take key-1",
    "walk: with taken",
  ]);
});

describe("what cannot work is told with its place", () => {
  it.each<[string, (world: World) => World, string]>([
    [
      "a key that nobody can have",
      (world) =>
        placed({ ...world, items: [{ id: "key", name: "Key", role: "key", colour: "#c89b3c" }] }, "door", [1, 0]).world,
      "door-1 in A needs 1 key, none can be had",
    ],
    [
      "a circuit that nothing switches",
      (world) => {
        const { world: after, id } = placed({ ...world, circuits: ["pump"] }, "door", [1, 0]);
        return changeFixtures(
          after,
          [id],
          (door) => ({ ...door, lock: { kind: "circuit", circuit: "pump", open: "on" } }) as Fixture,
        );
      },
      "door-1 in A follows pump, which nothing switches",
    ],
    [
      "a portal onto what is solid",
      (world) => {
        const { world: after, id } = placed(world, "portal", [1, 0]);
        return changeFixtures(after, [id], (portal) => ({ ...portal, to: { room: "b", cell: [2, 1] } }) as Fixture);
      },
      "portal-1 in A leads onto block, which blocks the walker",
    ],
    [
      "openings that do not meet",
      (world) => linkSides(world, { room: "a", side: "east", to: "b", offset: 0, span: null, oneWay: false }),
      "openings of a and b do not meet on the east side at 1",
    ],
    [
      "openings that do not meet all along",
      (world) =>
        linkSides(
          {
            ...world,
            rooms: world.rooms.map((room) =>
              room.id === "b"
                ? { ...room, cells: Uint16Array.from(room.cells, (tile, i) => (i % 3 === 0 ? 1 : tile)) }
                : room,
            ),
          },
          { room: "a", side: "east", to: "b", offset: 0, span: null, oneWay: false },
        ),
      "openings of a and b do not meet on the east side at 0 to 2",
    ],
  ])("%s", (_what, change, message) =>
    expect(roomFindings(change(two())).map((finding) => finding.message)).toEqual([message]),
  );
});
