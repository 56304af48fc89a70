import { describe, expect, it } from "vitest";
import { tinyWorld } from "../../test-support/tiny-world.ts";
import type { Fixture } from "../../world/fixtures.ts";
import type { Rules, World } from "../../world/world.ts";
import { worldFindings } from "./world-findings.ts";

const base = tinyWorld(["S   #", "     "]);
const common = { touch: "cell", keeps: "run", cell: [1, 0] } as const;
const item = (id: string, give: string, more: Partial<Fixture> = {}): Fixture =>
  ({ ...common, id, kind: "item", give, count: 1, ...more }) as Fixture;
const door = (lock: object): Fixture =>
  ({ ...common, id: "door-1", kind: "door", cell: [2, 0], lock, opensOn: "push" }) as unknown as Fixture;
const portal = (x: number): Fixture =>
  ({
    ...common,
    id: "portal-1",
    kind: "portal",
    to: { room: "a", cell: [x, 0] },
    when: "enter",
    arrive: "stop",
  }) as Fixture;
const hazard = { ...common, id: "pit", kind: "hazard", cell: [3, 1], to: "checkpoint" } as unknown as Fixture;

/** What is found in a room with some fixtures, place and words. */
function found(fixtures: readonly Fixture[], more: Partial<World> = {}): string[] {
  const items = ["key", "ruby"].map((id) => ({ id, name: id, role: id === "key" ? "key" : "treasure", colour: null }));
  const world = { ...base, items, circuits: ["pump"], rooms: [{ ...base.rooms[0]!, fixtures }], ...more } as World;
  return worldFindings(world).map(({ place, message }) => `${place}: ${message}`);
}
const rules = (more: Partial<Rules>): Partial<World> => ({ rules: [{ ...base.rules[0]!, ...more }] });
const glide = (speed: number, arrive: Rules["glide"]["arrive"], gait: Rules["gait"] = "glide"): Partial<World> =>
  rules({ gait, glide: { ...base.rules[0]!.glide, speed, arrive } });

describe("of a world is told", () => {
  it.each<[string, readonly Fixture[], Partial<World>, readonly unknown[]]>([
    [
      "nothing where nothing is wrong",
      [item("key-1", "key"), door({ kind: "item", item: "key", count: 1, spends: true })],
      {},
      [],
    ],
    [
      "a lock that asks for more than there is",
      [item("key-1", "key"), door({ kind: "item", item: "key", count: 2, spends: true })],
      {},
      ["rooms[0].fixtures[1]: door-1 in A needs 2 key, 1 can be had"],
    ],
    [
      "a lock whose key nothing gives",
      [door({ kind: "item", item: "key", count: 1, spends: false })],
      {},
      ["rooms[0].fixtures[0]: door-1 in A needs 1 key, none can be had"],
    ],
    [
      "but not where the key comes back each time",
      [item("key-1", "key", { keeps: "visit" }), door({ kind: "item", item: "key", count: 9, spends: true })],
      {},
      [],
    ],
    [
      "a door that waits for all of what there is none of",
      [door({ kind: "collected", item: "ruby" })],
      {},
      ["rooms[0].fixtures[0]: door-1 in A waits for every ruby, and there is none: it never opens"],
    ],
    ["but not where there is one", [item("ruby-1", "ruby"), door({ kind: "collected", item: "ruby" })], {}, []],
    [
      "a door whose circuit nothing switches",
      [door({ kind: "circuit", circuit: "pump", open: "on" })],
      {},
      ["rooms[0].fixtures[0]: door-1 in A follows pump, which nothing switches"],
    ],
    [
      "a key that nothing asks for",
      [item("key-1", "key")],
      {},
      ["rooms[0].fixtures[0].give: key-1 in A gives key, which no lock and no goal asks for"],
    ],
    ["but not a treasure, which may be there to be had", [item("ruby-1", "ruby")], {}, []],
    ["and no key that is the goal", [item("key-1", "key")], { goal: { kind: "collect", item: "key" } }, []],
    [
      "a portal onto what is solid",
      [portal(4)],
      {},
      ["rooms[0].fixtures[0].to: portal-1 in A leads onto block, which blocks the walker"],
    ],
    ["but not onto the floor", [portal(3)], {}, []],
    [
      "an item that a death puts back while the bag keeps it",
      [item("ruby-1", "ruby", { keeps: "life" }), hazard],
      { respawnRestores: "keeps" },
      [expect.stringMatching(/^rooms\[0\]\.fixtures\[0\]\.keeps: ruby-1 in A can be had twice/)],
    ],
    ["but not without a death", [item("ruby-1", "ruby", { keeps: "life" })], { respawnRestores: "keeps" }, []],
    [
      "nor where the bag goes back, too",
      [item("ruby-1", "ruby", { keeps: "life" }), hazard],
      { respawnRestores: "start" },
      [],
    ],
    [
      "a walker whom nothing blocks",
      [],
      rules({ walker: { ...base.rules[0]!.walker, blockedBy: [] } }),
      ["rules[0].walker.blockedBy: is empty: nothing but the map's edge stops the walker"],
    ],
  ])("%s", (_, fixtures, more, expected) => expect(found(fixtures, more)).toEqual(expected));

  it("a start from which nobody can move, and not one beside a door or on a portal", () => {
    const shut = tinyWorld(["S#", "# "]).rooms[0]!;
    const at = (fixtures: readonly Fixture[], room = shut): string[] => found([], { rooms: [{ ...room, fixtures }] });
    const ajar = {
      ...(door({ kind: "item", item: "key", count: 1, spends: true }) as object),
      cell: [0, 1],
    } as unknown as Fixture;
    const keys = [item("key-1", "key"), ajar];
    expect(at([])).toEqual([
      "start.cell: the walker starts shut in, with nothing free beside it: no other cell of the room is better",
    ]);
    expect(at(keys)).toEqual([]);
    expect(
      at([{ ...(portal(1) as object), cell: [0, 0], to: { room: "a", cell: [1, 1] } } as unknown as Fixture]),
    ).toEqual([]);
    for (const rows of [
      ["S ", "##"],
      ["S#", " #"],
    ])
      expect(at([], tinyWorld(rows).rooms[0])).toEqual([]);
    expect(at([], { ...shut, cells: Uint16Array.of(1, 0, 0, 0) })).toEqual([
      expect.stringContaining("the walker starts inside something that blocks it"),
    ]);
  });

  it("a speed that does not divide the cell, with what comes of it, and not where a leg lands on the cell", () => {
    expect(found([], glide(3, "equal"))[0]).toContain("a leg never ends");
    expect(found([], glide(3, "past"))[0]).toContain("legs end off the grid");
    for (const fits of [glide(3, "land"), glide(4, "equal"), glide(3, "equal", "hop")])
      expect(found([], fits)).toEqual([]);
  });
});
