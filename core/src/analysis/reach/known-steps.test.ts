import { expect, it } from "vitest";
import { compile } from "../../simulation/compile.ts";
import { startState } from "../../simulation/start-state.ts";
import { door, item, plain } from "../../test-support/row-fixtures.ts";
import { tinyWorld } from "../../test-support/tiny-world.ts";
import type { Fixture } from "../../world/fixtures.ts";
import type { Room, World } from "../../world/world.ts";
import { GridSearch } from "./grid-search.ts";
import { LookBack } from "./lost-for-good.ts";

const portal = (id: string, x: number, room: string, to: number): Fixture => ({
  ...plain,
  id,
  kind: "portal",
  cell: [x, 0],
  to: { room, cell: [to, 0] },
});

/** Rows of four cells, one a room, to be hopped along from the second cell of one; each leads east into the next, and back. */
function rows(start: number, ...fixtures: (readonly Fixture[])[]): World {
  const base = tinyWorld([" S  "], { gait: "hop" });
  const link = (i: number) => ({ kind: "link" as const, room: `row-${i}`, offset: 0 });
  return {
    ...base,
    start: { ...base.start, room: `row-${start}` },
    items: ["key", "bead"].map((id) => ({ id, name: id, role: "key" as const, colour: "#c89b3c" })),
    rooms: fixtures.map((its, i): Room => ({
      ...base.rooms[0]!,
      id: `row-${i}`,
      name: `Row ${i}`,
      fixtures: its,
      edges: {
        ...base.rooms[0]!.edges,
        ...(i > 0 && { west: link(i - 1) }),
        ...(i < fixtures.length - 1 && { east: link(i + 1) }),
      },
    })),
  };
}

/** What all play comes to, with the simulation asked for each step, or only where what matters was not met before. */
function known(world: World, asks: boolean): object {
  const c = compile(world);
  const search = new GridSearch(c, startState(c), 10_000, asks);
  while (search.run(1000));
  const { all } = c.fixtures;
  return {
    states: search.states,
    origins: search.origins.map((origin, i) => [all[i]!.id, origin && search.points.moves[origin.point]!]),
    losable: new LookBack(search).losable().map(({ fixture }) => all[fixture]!.id),
  };
}

const anywhere = { kind: "none" } as const;
const collected = { kind: "collected", item: "bead" } as const;
const keyed = { kind: "item", item: "key", count: 1, spends: false } as const;

it.each([
  [
    "beads that open a door elsewhere, the last one taken first",
    rows(
      1,
      [item("bead-1", 3, "bead")],
      [door("gate", 3, anywhere)],
      [item("bead-2", 1, "bead"), door("vault", 3, collected)],
    ),
  ],
  [
    "an item that is taken with a door open elsewhere, or not",
    rows(0, [door("gate", 0, anywhere)], [item("key-1", 1, "key"), door("side", 3, keyed)]),
  ],
  [
    "a portal beside a side that leads to an item in a third room",
    rows(
      0,
      [door("gate", 0, anywhere)],
      [portal("way-on", 0, "row-2", 1), door("side", 3, keyed)],
      [item("key-1", 1, "key"), portal("way-back", 3, "row-0", 2)],
    ),
  ],
])("%s: the same is found where the simulation is asked for every step", (_, world) => {
  expect(known(world, false)).toEqual(known(world, true));
});
