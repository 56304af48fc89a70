import { describe, expect, it } from "vitest";
import { EMPTY_LOG } from "../../logs/input-log.ts";
import { run } from "../../replay/run.ts";
import { compile } from "../../simulation/compile.ts";
import { startState } from "../../simulation/start-state.ts";
import { traceText } from "../../simulation/trace.ts";
import type { TinyOptions } from "../../test-support/tiny-world.ts";
import { tinyWorld } from "../../test-support/tiny-world.ts";
import type { Fixture } from "../../world/fixtures.ts";
import { LEFT, UP } from "../../world/keys.ts";
import type { Room, World } from "../../world/world.ts";
import { NEVER, UNDECIDED } from "./answer.ts";
import { withLegsAtOnce } from "./legs-at-once.ts";
import { Reach, searchFrom } from "./reach.ts";
import { unseenFrames } from "./unseen-frames.ts";

const common = { touch: "cell", keeps: "run" } as const;
const portal = (x: number, y: number): Fixture =>
  ({
    ...common,
    id: `portal-${x}-${y}`,
    kind: "portal",
    cell: [x, y],
    to: { room: "a", cell: [0, 0] },
    when: "enter",
    arrive: "stop",
  }) as Fixture;
const marker = (x: number, y: number, more: object = {}): Fixture => ({
  ...common,
  id: `marker-${x}-${y}`,
  kind: "marker",
  name: "M",
  cell: [x, y],
  ...more,
});

function roomWith(fixtures: readonly Fixture[], options: TinyOptions = {}, room: Partial<Room> = {}): World {
  const world = tinyWorld(["S     ", "      ", "      ", "   #  "], options);
  return { ...world, rooms: [{ ...world.rooms[0]!, fixtures, ...room }] };
}

describe("a leg is taken in one step where nobody can tell", () => {
  const atOnce = (world: World): boolean => {
    const c = compile(world);
    return withLegsAtOnce(c, startState(c)) !== c;
  };
  it.each<[string, readonly Fixture[], boolean]>([
    ["with nothing there", [], true],
    ["with a portal that stands alone", [portal(2, 1), marker(3, 1)], true],
    ["but not where something stands in a portal's cell", [portal(2, 1), marker(2, 1)], false],
    ["nor where an area covers it, at its first cell", [marker(2, 1, { size: [2, 2] }), portal(2, 1)], false],
    ["or its last one", [marker(2, 1, { size: [2, 2] }), portal(3, 2)], false],
    ["but where one begins right of it", [marker(3, 1, { size: [2, 2] }), portal(2, 1)], true],
    ["below it", [marker(2, 2, { size: [2, 2] }), portal(2, 1)], true],
    ["ends left of it", [marker(0, 1, { size: [2, 2] }), portal(2, 1)], true],
    ["or above it", [marker(2, 0, { size: [2, 2] }), portal(2, 2)], true],
    ["not where something is touched by the body", [marker(4, 2, { touch: "body" })], false],
  ])("%s", (_, fixtures, is) => expect(atOnce(roomWith(fixtures))).toBe(is));

  it("but not where a whole leg would be in time for a touch that lasts, and the walker's own is not", () => {
    const pit = { ...common, id: "pit", kind: "hazard", cell: [1, 0] } as unknown as Fixture;
    expect([7, 8].map((speed) => atOnce(roomWith([pit], { glide: { speed } })))).toEqual([false, true]);
    expect(atOnce(roomWith([{ ...pit, cell: [3, 1] }], { glide: { speed: 7 } }))).toBe(true);
  });

  it("but not by other gaits", () => expect(atOnce(roomWith([], { gait: "roam" }))).toBe(false));
});

describe("slants that carry over between frames may come to more than legs do", () => {
  const slants: TinyOptions = { glide: { speed: 3, carry: true }, input: { ways: 8 } };
  const isBounded = (world: World): boolean => {
    const c = compile(world);
    return unseenFrames(c, startState(c)) !== null;
  };
  const leads = { kind: "link", room: "a", offset: 0 } as const;
  const wall = { kind: "wall" } as const;
  const edges = (...open: string[]): Partial<Room> => ({
    edges: Object.fromEntries(
      ["north", "east", "south", "west"].map((side) => [side, open.includes(side) ? leads : wall]),
    ) as unknown as Room["edges"],
  });
  it.each<[string, World, boolean]>([
    ["with nothing there they do not", roomWith([], slants), false],
    ["where a thing is touched by the body they do", roomWith([marker(4, 1, { touch: "body" })], slants), true],
    ["where one stands in a wall", roomWith([marker(3, 3)], slants), true],
    ["but not in the open", roomWith([marker(3, 2)], slants), false],
    [
      "nor where a door blocks",
      roomWith(
        [
          {
            ...common,
            id: "door-1",
            kind: "door",
            cell: [3, 3],
            lock: { kind: "item", item: "key", count: 1, spends: true },
            opensOn: "push",
          } as unknown as Fixture,
        ],
        slants,
      ),
      false,
    ],
    ["where two sides lead on at the upper right corner", roomWith([], slants, edges("north", "east")), true],
    ["or at the lower left one", roomWith([], slants, edges("south", "west")), true],
    ["but not along two that do not meet", roomWith([], slants, edges("north", "south")), false],
    [
      "not where a cell is a whole number of frames",
      roomWith([marker(3, 3)], { ...slants, glide: { speed: 4, carry: true } }),
      false,
    ],
    ["without carry", roomWith([marker(3, 3)], { ...slants, glide: { speed: 3, carry: false } }), false],
    ["or without slants", roomWith([marker(3, 3)], { glide: { speed: 3, carry: true } }), false],
  ])("%s", (_, world, is) => expect(isBounded(world)).toBe(is));
});

describe("a leg that begins beyond a side may come to more than one from rest", () => {
  const carries: TinyOptions = { glide: { speed: 3, carry: true } };
  const link = (offset = 0) => ({ kind: "link", room: "a", offset }) as const;
  const wrap = { kind: "wrap" } as const;
  const wall = { kind: "wall" } as const;
  const sides = (edges: Partial<Room["edges"]>): Room["edges"] => ({
    ...{ north: wall, east: wall, south: wall, west: wall },
    ...edges,
  });
  const rests = (edges: Partial<Room["edges"]>, options = carries): boolean => {
    const c = compile(roomWith([], options, { edges: sides(edges) }));
    return unseenFrames(c, startState(c))?.rests ?? false;
  };
  it.each<[string, Partial<Room["edges"]>, boolean]>([
    ["nowhere leads on", {}, false],
    ["opposite sides lead on", { north: link(), south: link() }, false],
    ["a side of one piece leads on", { east: link(1) }, false],
    ["at the upper left corner", { north: link(), west: link() }, true],
    ["at the upper right one", { north: link(), east: wrap }, true],
    ["at the lower left one", { south: link(), west: link() }, true],
    ["at the lower right one", { south: wrap, east: link() }, true],
    ["where both wrap it is one place", { north: wrap, west: wrap }, false],
    ["only beside the corner", { north: [{ ...link(), from: 1, to: 4 }], west: link(), east: link() }, false],
    [
      "pieces side by side lead to different places",
      {
        east: [
          { ...link(), from: 0, to: 1 },
          { ...link(1), from: 2, to: 3 },
        ],
      },
      true,
    ],
    [
      "or one wraps",
      {
        south: [
          { ...link(), from: 0, to: 4 },
          { ...wrap, from: 5, to: 5 },
        ],
      },
      true,
    ],
    [
      "or to the same one",
      {
        west: [
          { ...link(1), from: 0, to: 1 },
          { ...link(1), from: 2, to: 3 },
        ],
      },
      false,
    ],
    [
      "a wall lies between them",
      {
        north: [
          { ...link(), from: 0, to: 1 },
          { ...link(1), from: 3, to: 5 },
        ],
      },
      false,
    ],
  ])("%s", (_, edges, is) => {
    expect(rests(edges)).toBe(is);
    expect(rests(edges, { glide: { speed: 3, carry: false } })).toBe(false);
    expect(rests(edges, { glide: { speed: 4, carry: true } })).toBe(false);
  });

  it("into a wall, too: what stands there is open, and whether one gets stuck", () => {
    const base = tinyWorld(["  #", "S  "], carries);
    const [room] = base.rooms;
    const west = [
      { kind: "link", room: "b", offset: 0, from: 0, to: 0 },
      { ...wrap, from: 1, to: 1 },
    ] as const;
    const [rules] = base.rules;
    const world = (carry: boolean): World => ({
      ...base,
      rules: [{ ...rules!, glide: { ...rules!.glide, carry }, walker: { ...rules!.walker, crossesAt: "whole" } }],
      rooms: [
        { ...room!, fixtures: [marker(2, 0)], edges: sides({ west }) },
        { ...room!, id: "b", edges: sides({}), cells: new Uint16Array(room!.cells.length) },
      ],
    });
    const walked = (carry: boolean): string => {
      const c = compile(world(carry));
      const keys = (count: number, held: number) =>
        ({ kind: "keys", count, keys: held, pointer: null, until: null }) as const;
      const { rows } = run(c, { ...EMPTY_LOG, lines: [keys(5, LEFT), keys(8, UP)] }, { rows: true });
      return [...traceText(c, rows!)].join("");
    };
    const told = (carry: boolean): (number | null)[] => {
      const { fixtures, first, losable } = new Reach(world(carry)).answer();
      return [fixtures[0]!, first[0]![2]!, losable === null ? null : losable.length];
    };
    expect([walked(true).includes("marker-2-0"), ...told(true)]).toEqual([true, UNDECIDED, UNDECIDED, null]);
    expect([walked(false).includes("marker-2-0"), ...told(false)]).toEqual([false, NEVER, NEVER, 0]);
  });
});

it("the way into the room where one is has no moves, in whatever cell one stands", () => {
  for (const rows of [
    ["S  ", "   "],
    ["   ", "  S"],
  ]) {
    const c = compile(tinyWorld(rows));
    const search = searchFrom(c, startState(c), 1000);
    while (search.run(100));
    expect(search.wayInto((room) => room === 0)).toMatchObject({ lines: [] });
    expect(search.wayInto((room) => room === 1)).toBeNull();
  }
});

describe("a hazard or a portal whose touch lasts over the frame in which it puts one back is passed", () => {
  const hazard = (x: number, y: number): Fixture =>
    ({ ...common, id: "pit", kind: "hazard", cell: [x, y] }) as unknown as Fixture;
  const back = (x: number, y: number, to: [number, number]): Fixture =>
    ({ ...portal(x, y), id: "back", to: { room: "a", cell: to } }) as Fixture;
  const checkpoint = (x: number, y: number): Fixture =>
    ({ ...common, id: "flag", kind: "checkpoint", cell: [x, y] }) as unknown as Fixture;
  /** Behind the thing in a corridor, with few states looked at and with all of them. */
  const behind = (fixtures: readonly Fixture[], rows: string, speed = 8): number[] =>
    [8000, 3].map((limit) => {
      const base = tinyWorld([rows], { glide: { speed } });
      const world: World = { ...base, lives: 3, rooms: [{ ...base.rooms[0]!, fixtures }] };
      const answer = new Reach(world, { limit }).answer();
      return Math.sign(answer.first[0]!.at(-1)!);
    });
  it.each<[string, readonly Fixture[], string, boolean]>([
    ["right beside the start", [hazard(1, 0)], "S   ", true],
    ["two cells from it", [hazard(2, 0)], "S    ", false],
    ["right beside a checkpoint", [checkpoint(2, 0), hazard(3, 0)], "S     ", true],
    ["two cells from a checkpoint", [checkpoint(1, 0), hazard(3, 0)], "S     ", false],
    ["a portal right beside where it leads", [back(2, 0, [1, 0])], "S    ", true],
    ["a portal that leads further back", [back(3, 0, [0, 0])], "S     ", false],
  ])("%s", (_, fixtures, rows, passes) => {
    const [whole, few] = behind(fixtures, rows);
    expect(whole).toBe(passes ? 1 : -1);
    // What is not known may be open, and is never called never.
    if (passes) expect(few).not.toBe(NEVER);
    // One that takes longer into the next cell is hurt or moved on each time.
    expect(behind(fixtures, rows, 7)[0]).toBe(-1);
  });
});
