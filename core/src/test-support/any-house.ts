import type { Lock } from "../world/fixtures/door.ts";
import type { Fixture } from "../world/fixtures.ts";
import fc from "fast-check";
import type { Goal, Room, World } from "../world/world.ts";
import { RESPAWN_RESTORES } from "../world/world.ts";
import { anyGait } from "./arbitraries.ts";
import { tinyWorld } from "./tiny-world.ts";

const ROOMS = ["a", "b", "c"] as const;
const WIDTH = 6;
const HEIGHT = 5;

const anyLock: fc.Arbitrary<Lock> = fc.oneof(
  fc.constant({ kind: "none" as const }),
  fc.record({
    kind: fc.constant("item" as const),
    item: fc.constantFrom("key", "bead"),
    count: fc.integer({ min: 1, max: 2 }),
    spends: fc.boolean(),
  }),
  fc.record({
    kind: fc.constant("circuit" as const),
    circuit: fc.constant("pump"),
    open: fc.constantFrom("on" as const, "off" as const),
  }),
  fc.record({ kind: fc.constant("collected" as const), item: fc.constantFrom("key", "bead") }),
);
const anyCell = fc.tuple(fc.integer({ min: 0, max: WIDTH - 1 }), fc.integer({ min: 0, max: HEIGHT - 1 }));
const common = {
  cell: anyCell,
  touch: fc.constantFrom("cell" as const, "cell" as const, "body" as const),
  keeps: fc.constantFrom("run" as const, "visit" as const, "life" as const),
  id: fc.constant(""),
};
const anyFixture: fc.Arbitrary<Fixture> = fc.oneof(
  fc.record({
    ...common,
    kind: fc.constant("item" as const),
    give: fc.constantFrom("key", "bead"),
    count: fc.integer({ min: 1, max: 2 }),
  }),
  fc.record({
    ...common,
    kind: fc.constant("door" as const),
    lock: anyLock,
    opensOn: fc.constantFrom("push" as const, "use" as const),
    closes: fc.constantFrom("never" as const, "behind" as const),
  }),
  fc.record({
    ...common,
    kind: fc.constant("door" as const),
    lock: anyLock,
    opensOn: fc.constantFrom("push" as const, "use" as const),
    closes: fc.constantFrom("never" as const, "behind" as const),
  }),
  fc.record({ ...common, kind: fc.constantFrom("hazard" as const, "checkpoint" as const) }),
  fc.record({ ...common, kind: fc.constant("switch" as const), circuit: fc.constant("pump") }),
  fc.record({ ...common, kind: fc.constant("marker" as const), name: fc.constant("Place") }),
  fc.record({
    ...common,
    kind: fc.constant("portal" as const),
    to: fc.record({ room: fc.constantFrom(...ROOMS), cell: anyCell }),
  }),
);

/** Three small rooms, linked and wrapped in all sorts of ways, with fixtures of all kinds, under any gait. */
export const anyHouse: fc.Arbitrary<World> = fc
  .record({
    options: anyGait,
    walls: fc.array(
      fc.array(fc.constantFrom(0, 0, 0, 0, 0, 0, 1), { minLength: WIDTH * HEIGHT, maxLength: WIDTH * HEIGHT }),
      { minLength: 3, maxLength: 3 },
    ),
    sides: fc.array(
      fc.oneof(
        fc.constant("wall" as const),
        fc.constant("wrap" as const),
        fc.record({ room: fc.constantFrom(...ROOMS), offset: fc.integer({ min: -1, max: 1 }) }),
        fc.record({ room: fc.constantFrom(...ROOMS), offset: fc.constant(0) }),
      ),
      { minLength: 12, maxLength: 12 },
    ),
    fixtures: fc.array(fc.array(anyFixture, { maxLength: 7 }), { minLength: 3, maxLength: 3 }),
    lives: fc.constantFrom(null, null, 2),
    respawnRestores: fc.constantFrom("keeps" as const, "keeps" as const, ...RESPAWN_RESTORES),
    crossesAt: fc.constantFrom("centre" as const, "centre" as const, "whole" as const),
    goalIs: fc.constantFrom(null, null, "marker" as const, "key" as const, "bead" as const),
  })
  .map(({ options, walls, sides, fixtures, lives, respawnRestores, crossesAt, goalIs }) => {
    const base = tinyWorld(["S"], options);
    const side = (i: number): Room["edges"]["north"] => {
      const rule = sides[i]!;
      return typeof rule === "string" ? { kind: rule } : { kind: "link", ...rule };
    };
    const rooms = ROOMS.map((id, i): Room => {
      const cells = Uint16Array.from(walls[i]!);
      if (i === 0) cells[0] = 0;
      const doors = new Set<string>();
      const own = fixtures[i]!.filter(
        ({ kind, cell }) => kind !== "door" || (!doors.has(String(cell)) && Boolean(doors.add(String(cell)))),
      );
      return {
        id,
        name: id,
        width: WIDTH,
        height: HEIGHT,
        plan: [i * 10, 0],
        edges: { north: side(i * 4), east: side(i * 4 + 1), south: side(i * 4 + 2), west: side(i * 4 + 3) },
        cells,
        fixtures: own.map((fixture, n) => ({ ...fixture, id: `${id}-${n}` })),
        actors: [],
      };
    });
    const item = (id: string) => ({ id, name: id, role: "key" as const, colour: "#c89b3c" });
    const rules = base.rules.map((each) => ({ ...each, walker: { ...each.walker, crossesAt } }));
    const all = rooms.flatMap((room) => room.fixtures);
    const marker = all.find(({ kind }) => kind === "marker");
    const goal: Goal | null =
      goalIs === null || (goalIs === "marker" && marker === undefined)
        ? null
        : goalIs === "marker"
          ? { kind: "marker", fixture: marker!.id }
          : { kind: "collect", item: goalIs };
    const items = [item("key"), item("bead")];
    return { ...base, rules, lives, respawnRestores, items, circuits: ["pump"], goal, rooms };
  });
