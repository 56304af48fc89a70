import type { Fixture } from "../world/fixtures.ts";
import { describe, expect, it } from "vitest";
import type { Check } from "../checks/check.ts";
import { parseCheck } from "../checks/check.ts";
import { RIGHT, keysFromText } from "../world/keys.ts";
import { EMPTY_LOG } from "../logs/input-log.ts";
import { compile } from "../simulation/compile.ts";
import { run } from "../replay/run.ts";
import { STATUS_NAMES } from "../world/vocabulary.ts";
import { traceText } from "../simulation/trace.ts";
import { RESPONSES } from "../world/responses.ts";
import { tinyWorld } from "../test-support/tiny-world.ts";
import type { World } from "../world/world.ts";

/** A check that reads. */
function parsed(text: string): Check {
  const result = parseCheck(text.split(" "));
  if ("fault" in result) throw new Error(result.fault);
  return result.check;
}
const RESPONSE_NAMES = Object.keys(RESPONSES) as (keyof typeof RESPONSES)[];
const plain = { touch: "cell", keeps: "run" } as const;
const item = (id: string, x: number, more: object = {}): Fixture => ({
  id,
  kind: "item",
  cell: [x, 0],
  give: "key",
  count: 1,
  ...plain,
  ...more,
});
const door = (lock: object, more: object = {}, x = 3): Fixture =>
  ({ id: "door", kind: "door", cell: [x, 0], lock, opensOn: "push", closes: "never", ...plain, ...more }) as Fixture;
const wheel = (x: number, more: object = {}): Fixture => ({
  id: "wheel",
  kind: "switch",
  cell: [x, 0],
  circuit: "pump",
  ...plain,
  ...more,
});
const at = (id: string, kind: "hazard" | "checkpoint" | "marker", x: number): Fixture =>
  ({ id, kind, cell: [x, 0], ...(kind === "marker" ? { name: id } : {}), ...plain }) as Fixture;

/** A corridor of eight cells that leads into a second one on its right, both with a wall below; a frame a cell. */
function corridor(fixtures: readonly Fixture[], more: Partial<World> = {}): World {
  const world = tinyWorld(["S.......", "########"], { tileSize: 16, glide: { speed: 16 } });
  const [room] = world.rooms;
  const a = { ...room!, edges: { ...room!.edges, east: { kind: "link", room: "b", offset: 0 } }, fixtures } as const;
  const b = { ...room!, id: "b", edges: { ...room!.edges, west: { kind: "link", room: "a", offset: 0 } } } as const;
  return {
    ...world,
    items: [{ id: "key", name: "Key", role: "key", colour: "#c89b3c" }],
    circuits: ["pump"],
    rooms: [a, b],
    ...more,
  };
}

/** What happens, by frames: events but for arrivals, and how it ends. */
function happens(world: World, keys: string): string {
  const lines = keys.split(",").map((line) => {
    const [count, held] = line.trim().split(" ");
    return { kind: "keys", count: Number(count), keys: keysFromText(held!), pointer: null, until: null } as const;
  });
  const c = compile(world);
  const { rows, status } = run(c, { ...EMPTY_LOG, lines }, { rows: true });
  const events = [...traceText(c, rows!)]
    .join("")
    .split("\r\n")
    .slice(1, -1)
    .flatMap((row) => {
      const fields = row.split(",");
      const told = fields[12]!.split(";").filter((event) => event !== "" && event !== "arrive");
      return told.length === 0 ? [] : [`${fields[0]} ${told.join(" ")}`];
    });
  return [...events, ...(status === 0 ? [] : [STATUS_NAMES[status]!])].join("; ");
}

describe("a door", () => {
  it.each<[string, readonly Fixture[], string, string]>([
    ["without a lock, pushed", [door({ kind: "none" })], "5 R", "3 bump open:door"],
    ["without a lock, used", [door({ kind: "none" }, { opensOn: "use" })], "3 R,1 RA,2 R", "3 bump; 4 open:door"],
    ["that wants use is not opened by a push", [door({ kind: "none" }, { opensOn: "use" })], "5 R", "3 bump"],
    [
      "that wants a key which nobody has",
      [door({ kind: "item", item: "key", count: 1, spends: false })],
      "5 R",
      "3 bump refused:door",
    ],
    [
      "that wants a key which was taken",
      [item("key-1", 1), door({ kind: "item", item: "key", count: 1, spends: false })],
      "5 R",
      "1 take:key-1; 3 bump open:door",
    ],
    [
      "that wants two and gets one that counts twice",
      [item("key-1", 1, { count: 2 }), door({ kind: "item", item: "key", count: 2, spends: true })],
      "5 R",
      "1 take:key-1; 3 bump open:door",
    ],
    [
      "that wants two and gets one",
      [item("key-1", 1), door({ kind: "item", item: "key", count: 2, spends: true })],
      "5 R",
      "1 take:key-1; 3 bump refused:door",
    ],
    [
      "of a circuit that is switched on",
      [wheel(1), door({ kind: "circuit", circuit: "pump", open: "on" })],
      "5 R",
      "1 switch:wheel open:door",
    ],
    [
      "of a circuit that is to be off",
      [wheel(1), door({ kind: "circuit", circuit: "pump", open: "off" })],
      "5 R",
      "1 switch:wheel close:door; 3 bump",
    ],
    [
      "of what is collected",
      [item("key-1", 1), item("key-2", 2), door({ kind: "collected", item: "key" })],
      "5 R",
      "1 take:key-1; 2 take:key-2 open:door",
    ],
    ["of what nothing gives", [door({ kind: "collected", item: "key" })], "5 R", "3 bump"],
    [
      "that closes behind",
      [door({ kind: "none" }, { closes: "behind" })],
      "6 R,3 L",
      "3 bump open:door; 5 close:door; 8 bump open:door",
    ],
    [
      "that spends its key closes behind it for good",
      [item("key-1", 1), door({ kind: "item", item: "key", count: 1, spends: true }, { closes: "behind" })],
      "6 R,2 L",
      "1 take:key-1; 3 bump open:door; 5 close:door; 8 bump refused:door",
    ],
  ])("%s", (_what, fixtures, keys, events) => expect(happens(corridor(fixtures), keys)).toBe(events));
});

describe("what a fixture keeps", () => {
  it.each<["run" | "visit" | "life", string]>([
    ["run", "1 take:key-1; 8 leave:a enter:b; 9 leave:b enter:a"],
    ["visit", "1 take:key-1; 8 leave:a enter:b; 9 leave:b enter:a; 15 take:key-1"],
    ["life", "1 take:key-1; 8 leave:a enter:b; 9 leave:b enter:a"],
  ])("an item for a %s, left and come back to", (keeps, events) =>
    expect(happens(corridor([item("key-1", 1, { keeps })]), "8 R,8 L")).toBe(events),
  );

  it.each<["run" | "visit" | "life", string]>([
    ["run", "1 take:key-1; 2 hurt:vent respawn; 4 hurt:vent respawn"],
    // Who respawns in the same room has not left it.
    ["visit", "1 take:key-1; 2 hurt:vent respawn; 4 hurt:vent respawn"],
    ["life", "1 take:key-1; 2 hurt:vent respawn; 3 take:key-1; 4 hurt:vent respawn"],
  ])("an item for a %s, after a death", (keeps, events) =>
    expect(happens(corridor([item("key-1", 1, { keeps }), at("vent", "hazard", 2)]), "4 R")).toBe(events),
  );

  it("a wheel for a visit is off again, and so is what follows it", () => {
    expect(
      happens(
        corridor([wheel(1, { keeps: "visit" }), door({ kind: "circuit", circuit: "pump", open: "on" })]),
        "8 R,5 L",
      ),
    ).toBe("1 switch:wheel open:door; 8 leave:a enter:b close:door; 9 leave:b enter:a; 13 bump");
  });
});

describe("what a respawn gives back", () => {
  const key = item("key-1", 1);
  const lamp = at("lamp", "checkpoint", 2);
  const vent = at("vent", "hazard", 4);
  const back = "4 hurt:vent respawn";
  it.each<[string, readonly Fixture[], World["respawnRestores"], string, string]>([
    ["nothing that keeps for a run", [key, vent], "keeps", "4 R, 2 R", `1 take:key-1; ${back}`],
    ["an item as it was in row 0", [key, vent], "start", "5 R", `1 take:key-1; ${back}; 5 take:key-1`],
    [
      "what was taken before the last checkpoint stays",
      [key, lamp, vent],
      "checkpoint",
      "4 R, 2 L",
      `1 take:key-1; 2 checkpoint:lamp; ${back}`,
    ],
    [
      "what was taken after it does not",
      [lamp, item("key-2", 3), vent],
      "checkpoint",
      "5 R",
      `2 checkpoint:lamp; 3 take:key-2; ${back}; 5 take:key-2`,
    ],
    [
      "before any checkpoint it is as in row 0",
      [key, vent],
      "checkpoint",
      "5 R",
      `1 take:key-1; ${back}; 5 take:key-1`,
    ],
    [
      "a door that was opened is closed",
      [door({ kind: "none" }, { cell: [3, 0] }), at("vent", "hazard", 3)],
      "start",
      "8 R",
      "3 bump open:door; 4 hurt:vent respawn; 7 bump open:door; 8 hurt:vent respawn",
    ],
    [
      "a circuit, and the door that follows it in the same frame",
      [wheel(1), door({ kind: "circuit", circuit: "pump", open: "on" }, { cell: [6, 0] }), vent],
      "start",
      "4 R",
      "1 switch:wheel open:door; 4 hurt:vent respawn close:door",
    ],
    [
      "life gives nothing back of its own",
      [item("key-1", 1, { keeps: "life" }), lamp, vent],
      "checkpoint",
      "4 R, 1 L",
      `1 take:key-1; 2 checkpoint:lamp; ${back}`,
    ],
  ])("%s", (_what, fixtures, respawnRestores, keys, events) =>
    expect(happens(corridor(fixtures, { respawnRestores }), keys)).toBe(events),
  );

  it("is held again when the same checkpoint is touched again, without an event", () => {
    const fixtures = [lamp, item("key-2", 3), vent];
    expect(happens(corridor(fixtures, { respawnRestores: "checkpoint" }), "3 R, 1 L, 2 R, 1 R")).toBe(
      "2 checkpoint:lamp; 3 take:key-2; 6 hurt:vent respawn",
    );
  });
});

it("a side is crossed with the centre, or only with all of the walker", () => {
  const crossing = (crossesAt: "centre" | "whole"): string => {
    const world = corridor([]);
    const rules = world.rules.map((each) => ({
      ...each,
      gait: "roam" as const,
      roam: { ...each.roam, speedX: 3, speedY: 3 },
      walker: { ...each.walker, crossesAt },
    }));
    return happens({ ...world, rules, start: { ...world.start, cell: [7, 0] } }, "12 R");
  };
  // From 112 px on: 120 is the first place with the centre beyond, 128 the first with all of it.
  expect([crossing("centre"), crossing("whole")]).toEqual(["3 leave:a enter:b", "6 leave:a enter:b"]);
});

describe("lives, goals and ends", () => {
  const hurt = [at("vent", "hazard", 2)];
  it.each<[string, readonly Fixture[], Partial<World>, string, string]>([
    [
      "without lives one respawns for ever",
      hurt,
      {},
      "7 R",
      "2 hurt:vent respawn; 4 hurt:vent respawn; 6 hurt:vent respawn",
    ],
    ["the last life is the end", hurt, { lives: 2 }, "9 R", "2 hurt:vent respawn; 4 hurt:vent lose; lost"],
    [
      "a checkpoint is where one comes back to, told once",
      [at("lamp", "checkpoint", 1), at("vent", "hazard", 3)],
      {},
      "7 R",
      "1 checkpoint:lamp; 3 hurt:vent respawn; 5 hurt:vent respawn; 7 hurt:vent respawn",
    ],
    [
      "a marker that is the goal",
      [at("lamp", "marker", 2)],
      { goal: { kind: "marker", fixture: "lamp" } },
      "5 R",
      "2 marker:lamp win; won",
    ],
    ["a marker that is none", [at("lamp", "marker", 2)], {}, "5 R", "2 marker:lamp"],
    [
      "all that was to be collected",
      [item("key-1", 1), item("key-2", 3)],
      { goal: { kind: "collect", item: "key" } },
      "5 R",
      "1 take:key-1; 3 take:key-2 win; won",
    ],
    ["what nothing gives is never collected", [], { goal: { kind: "collect", item: "key" } }, "5 R", ""],
    [
      "the goal and a hazard in one cell: the goal was touched",
      [at("lamp", "marker", 2), at("vent", "hazard", 2)],
      { goal: { kind: "marker", fixture: "lamp" } },
      "5 R",
      "2 marker:lamp hurt:vent respawn win; won",
    ],
  ])("%s", (_what, fixtures, more, keys, events) => expect(happens(corridor(fixtures, more), keys)).toBe(events));
});

it("a portal that nobody steps on changes nothing, whatever the walker carries over from cell to cell", () => {
  const portal = (x: number): Fixture => ({
    id: "stair",
    kind: "portal",
    cell: [x, 0],
    to: { room: "b", cell: [0, 0], facing: "left" },
    ...plain,
  });
  const quick = (fixtures: readonly Fixture[]): World => {
    const world = corridor(fixtures);
    return {
      ...world,
      rules: world.rules.map((rules) => ({ ...rules, glide: { ...rules.glide, speed: 7, carry: true } })),
    };
  };
  const places = (world: World): number[] => [
    ...run(
      compile(world),
      { ...EMPTY_LOG, lines: [{ kind: "keys", count: 12, keys: keysFromText("R"), pointer: null, until: null }] },
      { rows: true },
    ).rows!.x,
  ];
  expect(places(quick([portal(7)]))).toEqual(places(quick([])));
  // On the cell that is reached it ends the frame's movement.
  expect(places(quick([portal(1)]))[3]).not.toBe(places(quick([]))[3]);
});

describe("what covers a rectangle", () => {
  const rows = ["     ", "     ", "S    ", "     ", "     "];
  const wide = { kind: "switch", id: "wheel", cell: [2, 1], size: [2, 3], circuit: "pump", ...plain } as const;
  const events = (fixture: Fixture, gait: "glide" | "roam", keys: string): string => {
    const base = tinyWorld(rows, { gait, glide: { speed: 16 }, roam: { speedX: 1, speedY: 1 } });
    const world = { ...base, circuits: ["pump"], rooms: [{ ...base.rooms[0]!, fixtures: [fixture] }] };
    return happens(world, keys);
  };

  it("is touched once from the first of its cells to the last, and again after it was left", () => {
    expect(events(wide, "glide", "1 R")).not.toContain("switch");
    expect(events(wide, "glide", "4 R, 4 L")).toBe("2 switch:wheel; 5 switch:wheel");
    expect(events({ ...wide, size: [1, 1], cell: [3, 2] }, "glide", "4 R, 4 L")).toBe("3 switch:wheel; 5 switch:wheel");
    // Up and down inside of it, and along its lower edge.
    expect(events(wide, "glide", "2 R, 1 U, 1 R, 2 D")).toBe("2 switch:wheel");
    expect(events(wide, "glide", "2 D, 4 R")).toBe("");
  });

  it("is under a walker in any of its cells", () => {
    const base = tinyWorld(rows, { gait: "glide", glide: { speed: 16 } });
    const world = { ...base, circuits: ["pump"], rooms: [{ ...base.rooms[0]!, fixtures: [wide] }] };
    const checks = [1, 2, 3, 4].map((frame) => parsed(`at ${frame} on wheel`));
    const lines = [{ kind: "keys", count: 4, keys: RIGHT, pointer: null, until: null }] as const;
    const { verdicts } = run(compile(world), { ...EMPTY_LOG, lines, checks }, { checks: true });
    expect(verdicts.map(({ verdict }) => verdict)).toEqual(["fail", "pass", "pass", "fail"]);
  });

  it("is touched by the body in any of its cells", () => {
    expect(events({ ...wide, touch: "body" }, "roam", "20 R")).toBe("17 switch:wheel");
    expect(events(wide, "roam", "30 R")).toBe("24 switch:wheel");
  });
});

describe.each([
  ["hop", {}],
  ["glide", {}],
  ...RESPONSE_NAMES.flatMap((response) => [
    ["roam", { roam: { response, speedX: 2, speedY: 2 } }] as const,
    ["drift", { drift: { response } }] as const,
  ]),
] as const)("a door is pushed open by %s %j", (gait, options) => {
  it.each([
    ["R", [3, 2]],
    ["L", [1, 2]],
    ["D", [2, 3]],
    ["U", [2, 1]],
  ] as const)("towards %s, and by no other key", (key, cell) => {
    const base = tinyWorld(["     ", "     ", "  S  ", "     ", "     "], { ...options, gait });
    const [room] = base.rooms;
    const fixture: Fixture = { ...door({ kind: "none" }), cell };
    const world = { ...base, rooms: [{ ...room!, fixtures: [fixture] }] };
    expect(happens(world, `40 ${key}`)).toContain("open:door");
    for (const other of [..."LRUD"].filter((each) => each !== key))
      expect(happens(world, `40 ${other}`)).not.toContain("open");
  });
});
