import { describe, expect, it } from "vitest";
import { newRules } from "../../world/new-rules.ts";
import type { Body, Rules, World } from "../../world/world.ts";
import { tinyWorld } from "../../test-support/tiny-world.ts";
import { changeSize, singleChanges } from "./candidates.ts";

const plain = tinyWorld(["S.#", ".=."]);
const tried = (world: World, rules: Rules, path: string, stops: Parameters<typeof singleChanges>[3] = []): unknown[] =>
  singleChanges(world, rules, [], stops).flatMap((change) => (change.path === path ? [change.value] : []));
const rules = (gait: Rules["gait"] = "glide", change: Partial<Rules> = {}): Rules => ({
  ...newRules("main", "Main", gait, 16),
  ...change,
});

describe("what is tried of a rule set", () => {
  it("every other gait, and settings of the one in use only", () => {
    expect(tried(plain, rules("glide"), "gait")).toEqual(["hop", "roam", "drift"]);
    const paths = new Set(singleChanges(plain, rules("glide")).map(({ path }) => path.split(".")[0]));
    expect([paths.has("glide"), paths.has("roam"), paths.has("hop"), paths.has("pose")]).toEqual([
      true,
      false,
      false,
      false,
    ]);
  });

  it("each flag, given and taken", () => {
    const world = { ...plain, flags: ["solid", "reeds"] };
    expect(tried(world, rules(), "walker.blockedBy")).toEqual([[], ["solid", "reeds"]]);
  });

  it("a ladder round each number, within its range, without the present value", () => {
    const speeds = tried(plain, rules("glide", { glide: { ...rules().glide, speed: 3 } }), "glide.speed") as number[];
    for (const value of [1, 2, 2.5, 3.5, 4, 5, 0.75, 1.5, 2.25, 3.75, 4.5, 6, 12, 16, 8])
      expect(speeds).toContain(value);
    expect(speeds).not.toContain(3);
    expect(Math.max(...speeds)).toBe(16);
    expect(Math.min(...speeds)).toBeGreaterThan(0);
    expect(speeds.every((value) => Number.isInteger(value * 256))).toBe(true);
    const buffers = tried(plain, rules(), "glide.bufferFrames") as number[];
    expect([...buffers].sort((a, b) => a - b)).toEqual([1, 2, 4, 8, 16, 32, 600]);
    expect(tried(plain, rules(), "glide.arrive")).toEqual(["equal", "past"]);
    expect(tried(plain, rules(), "glide.carry")).toEqual([false]);
  });

  it("bodies near the present one", () => {
    const bodies = (body: Body): Body[] =>
      tried(
        plain,
        rules("glide", { walker: { blockedBy: ["solid"], body, crossesAt: "centre" } }),
        "walker.body",
      ) as Body[];
    const box = (
      left: number,
      top: number,
      width: number,
      height: number,
      flush: "free" | "blocks" = "free",
    ): Body => ({ kind: "box", box: [left, top, width, height], flush });
    const near = bodies(box(2, 4, 6, 5));
    expect(near).toHaveLength(2 + 4);
    for (const each of [
      box(0, 0, 16, 16),
      box(2, 4, 6, 5, "blocks"),
      box(3, 5, 4, 3),
      box(4, 6, 2, 1),
      box(1, 3, 8, 7),
      box(0, 2, 10, 9),
    ])
      expect(near).toContainEqual(each);
    expect(bodies(box(0, 0, 16, 16))).not.toContainEqual(box(0, 0, 16, 16));
    expect(bodies({ kind: "probes", points: [[8, 8]], flush: "free" })).toEqual(
      expect.arrayContaining([box(0, 0, 16, 16), box(1, 1, 14, 14), box(2, 2, 12, 12), box(3, 3, 10, 10)]),
    );
  });
});

describe("what is tried of rooms", () => {
  const common = { cell: [1, 0] as const, touch: "cell", keeps: "run" } as const;
  const withFixtures: World = {
    ...plain,
    items: [{ id: "key", name: "Key", role: "key", colour: "#000000" }],
    circuits: ["pump"],
    rooms: [
      {
        ...plain.rooms[0]!,
        fixtures: [
          { ...common, id: "key-1", kind: "item", give: "key", count: 2 },
          {
            ...common,
            id: "door-1",
            kind: "door",
            lock: { kind: "item", item: "key", count: 1, spends: true },
            opensOn: "push",
            closes: "never",
          },
          {
            ...common,
            id: "door-2",
            kind: "door",
            lock: { kind: "circuit", circuit: "pump", open: "on" },
            opensOn: "push",
            closes: "never",
          },
          { ...common, id: "marker-1", kind: "marker", name: "Here" },
        ],
      },
    ],
  };

  it("what fixtures keep and give, and what locks ask for; of what has nothing to return, nothing", () => {
    const of = (id: string): string[] =>
      (tried(withFixtures, rules(), "fixture") as World["rooms"][number]["fixtures"][number][])
        .filter((each) => each.id === id)
        .map(
          (each) =>
            `${each.keeps} ${each.kind === "item" ? each.count : ""}${each.kind === "door" && each.lock.kind === "item" ? `${each.lock.count} ${each.lock.spends}` : ""}`,
        );
    expect(of("key-1").sort()).toEqual(["life 2", "run 3", "visit 2"]);
    expect(of("door-1").sort()).toEqual(["life 1 true", "run 1 false", "run 2 true", "visit 1 true"]);
    expect([of("door-2"), of("marker-1")]).toEqual([[], []]);
  });

  it("cells that blocked, opened with the floor that the room has most of; never one that is open", () => {
    const floors: World = {
      ...plain,
      tiles: [...plain.tiles, { ...plain.tiles[0]!, id: "moss" }, { ...plain.tiles[0]!, id: "sand" }],
      rooms: [{ ...plain.rooms[0]!, cells: Uint16Array.from([4, 5, 1, 5, 3, 5]) }],
    };
    const { id } = floors.rooms[0]!;
    expect(
      tried(floors, rules(), "cell", [
        { room: id, x: 2, y: 0 },
        { room: id, x: 1, y: 1 },
        { room: id, x: 0, y: 0 },
        { room: "none", x: 0, y: 0 },
      ]),
    ).toEqual([
      { room: id, x: 2, y: 0, tile: 5 },
      { room: id, x: 1, y: 1, tile: 5 },
    ]);
    expect(tried(plain, rules(), "cell", [{ room: plain.rooms[0]!.id, x: 2, y: 0 }])).toEqual([
      { room: plain.rooms[0]!.id, x: 2, y: 0, tile: 0 },
    ]);
  });
});

it("the smallest change comes first: a share of a number, then a step, then what is another way to move", () => {
  const from = rules("glide", { glide: { ...rules().glide, speed: 4 } });
  const size = (path: string, value: unknown): number =>
    changeSize(from, { path, value } as Parameters<typeof changeSize>[1]);
  expect([
    size("glide.speed", 5),
    size("glide.speed", 2),
    size("glide.speed", 8),
    size("glide.bufferFrames", 8),
    size("glide.arrive", "past"),
  ]).toEqual([0.25, 1, 1, 1, 1]);
  expect([size("walker.blockedBy", []), size("cell", {}), size("fixture", {}), size("gait", "hop")]).toEqual([
    2, 3, 1.2, 8,
  ]);
  expect([
    size("walker.body", { kind: "box", box: [0, 0, 16, 16], flush: "blocks" }),
    size("walker.body", { kind: "box", box: [1, 1, 14, 14], flush: "free" }),
    size("walker.body", { kind: "probes", points: [[8, 8]], flush: "free" }),
  ]).toEqual([1.5, 1.375, 4]);
  const sizes = singleChanges(plain, from).map((change) => changeSize(from, change));
  expect(sizes).toEqual([...sizes].sort((a, b) => a - b));
});
