import { readFileSync } from "node:fs";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { RefusedError } from "../base/refused-error.ts";
import { FIXED, anyWorld } from "../test-support/arbitraries.ts";
import { fromPlain, toPlain } from "./plain-world.ts";
import { bodyFault } from "./world-faults.ts";
import { readWorld } from "./read-world.ts";
import { worldSchema } from "./world-schema.ts";
import { writeWorld } from "./write-world.ts";

const demo = readFileSync(
  new URL("../../../demo/saltglass-cistern/saltglass-cistern.world.json", import.meta.url),
  "utf8",
);
const EVERYTHING = readFileSync(new URL("../test-support/everything.world.json", import.meta.url), "utf8");

it("a canonical world is re-saved byte for byte", () => {
  expect(writeWorld(readWorld(demo))).toBe(demo);
  expect(writeWorld(readWorld(EVERYTHING))).toBe(EVERYTHING);
  fc.assert(
    fc.property(anyWorld, (world) => {
      const text = writeWorld(world);
      expect(writeWorld(readWorld(text))).toBe(text);
      expect(fromPlain(toPlain(world))).toEqual(world);
    }),
    FIXED,
  );
});

it("keys in any order, and those left out, come back in the canonical form", () => {
  const json = JSON.parse(EVERYTHING) as Record<string, unknown>;
  const shuffled = JSON.stringify(json, (_key, value: unknown) =>
    value && typeof value === "object" && !Array.isArray(value)
      ? Object.fromEntries(Object.entries(value).reverse())
      : value,
  );
  expect(writeWorld(readWorld(shuffled))).toBe(EVERYTHING);

  // One room alone, with nothing in it that the rest would have to explain.
  const whole = JSON.parse(demo) as { rooms: unknown[]; tiles: { look: object }[] };
  const sparse = {
    ...whole,
    rooms: whole.rooms.slice(0, 1),
    tiles: whole.tiles.filter(({ look }) => !("sheet" in look)),
  } as unknown as { rules: Record<string, unknown>[]; rooms: Record<string, unknown>[] } & Record<string, unknown>;
  for (const key of [
    "frameRate",
    "seed",
    "sheets",
    "items",
    "circuits",
    "lives",
    "respawnRestores",
    "camera",
    "figure",
    "goal",
    "laws",
    "reachChecks",
    "games",
  ])
    delete sparse[key];
  for (const key of ["input", "walker", "hop", "roam", "drift", "facing", "pose"]) delete sparse.rules[0]![key];
  for (const key of ["plan", "edges", "fixtures", "actors"]) delete sparse.rooms[0]![key];
  expect(readWorld(JSON.stringify(sparse))).toMatchObject({
    frameRate: 60,
    camera: { mode: "follow", width: 20, height: 12, margin: [6, 4], ease: 0 },
    rules: [
      {
        input: { ways: 4 },
        walker: { blockedBy: ["solid"], body: { box: [0, 0, 16, 16], flush: "free" } },
        hop: { repeatAfter: 20 },
        drift: { maxSpeed: 3 },
        pose: { images: 1 },
      },
    ],
    rooms: [{ plan: [0, 0], edges: { west: { kind: "wall" } }, fixtures: [] }],
  });
});

it("a size is written where it is not one cell, and read as what it is", () => {
  const sized = (size: string): string =>
    EVERYTHING.replace('"kind": "hazard", "cell": [1, 1],', `"kind": "hazard", "cell": [1, 1],${size}`);
  expect(writeWorld(readWorld(sized(' "size": [3, 1],')))).toBe(sized(' "size": [3, 1],'));
  expect(writeWorld(readWorld(sized(' "size": [1, 1],')))).toBe(EVERYTHING);
});

it("a side that leads on and says no offset has none; pieces of a side begin at its first cell", () => {
  const json = JSON.parse(demo) as { rooms: { id: string; edges: object }[] };
  const [first, second] = json.rooms;
  const onward = { kind: "link", room: second!.id };
  first!.edges = { ...first!.edges, east: onward, south: [{ from: 0, to: 0, ...onward }] };
  const { edges } = readWorld(JSON.stringify(json)).rooms[0]!;
  expect([edges.east, edges.south]).toEqual([{ ...onward, offset: 0 }, [{ from: 0, to: 0, ...onward, offset: 0 }]]);
});

describe("a broken world is refused at its place", () => {
  /** The world with one value changed: path of keys, then the value. */
  const changed = (path: readonly (string | number)[], value: unknown): string => {
    const json = JSON.parse(EVERYTHING) as Record<string | number, unknown>;
    let at = json;
    for (const key of path.slice(0, -1)) at = at[key] as Record<string | number, unknown>;
    at[path.at(-1)!] = value;
    return JSON.stringify(json);
  };
  it.each([
    [["version"], 2, "version: must be 1"],
    [["tileSize"], 3, "tileSize: must be a whole number from 4 to 128, found 3"],
    [["colour"], "red", "colour: is not allowed"],
    [["tiles", 1, "flags", 0], "hard", "tiles[1].flags[0]: names flag hard, which this world does not have"],
    [["tiles", 0, "flags"], ["solid"], "tiles[0].flags: must be empty"],
    [
      ["tiles", 2, "shape", "points"],
      [
        [0, 0],
        [0, 16],
        [16, 16],
      ],
      "tiles[2].shape.points: must be the corners of a strictly convex polygon, clockwise",
    ],
    [
      ["tiles", 2, "shape", "points"],
      [
        [0, 0],
        [8, 8],
        [16, 16],
        [0, 16],
      ],
      "tiles[2].shape.points: must be the corners of a strictly convex polygon",
    ],
    ...(
      [
        [-1, 0, 4, 4],
        [0, -1, 4, 4],
        [13, 0, 4, 4],
        [0, 13, 4, 4],
      ] as const
    ).map(
      (box) =>
        [
          ["tiles", 2, "shape"],
          { kind: "boxes", boxes: [[0, 0, 16, 16], box] },
          "tiles[2].shape.boxes[1]: must lie inside the cell, 0 to 16 px",
        ] as const,
    ),
    [["tiles", 1, "shape"], { kind: "round" }, 'tiles[1].shape.kind: must be one of full, boxes, poly, found "round"'],
    [["tiles", 1, "look", "pattern"], "plaid", "tiles[1].look.pattern: must be one of"],
    [["rules", 0, "glide", "speed"], 17, "rules[0].glide.speed: must be px, at least 1/256 and at most 16, found 17"],
    [["rules", 0, "glide", "speed"], 0.001, "rules[0].glide.speed: must be px"],
    [
      ["rules", 0, "walker", "body", "box"],
      [0, 0, 0, 16],
      "rules[0].walker.body.box[2]: must be a whole number from 1",
    ],
    [["rules", 0, "walker", "body", "box"], [0, 0, 16, 40], "rules[0].walker.body: must reach at most one tile size"],
    [["activeRules"], "quick", "activeRules: names rule set quick"],
    [["start", "cell"], [9, 9], "start.cell: must lie inside room hall (4x2), found 9 9"],
    [["rooms", 0, "cells", 3], 99, "rooms[0].cells[3]: must be a tile number from 0 to 3, found 99"],
    [["rooms", 0, "cells"], [1, 2], "rooms[0].cells: must be a list of 8 tile numbers (width x height), found 2"],
    [["rooms", 0, "edges", "south", 0, "to"], 9, "rooms[0].edges.south[0].to: must be at most 3"],
    [["rooms", 0, "fixtures", 2, "cell"], [4, 0], "rooms[0].fixtures[2].cell: must lie inside room hall"],
    [
      ["rooms", 0, "fixtures", 2, "size"],
      [4, 1],
      "rooms[0].fixtures[2].size: must lie inside room hall (4x2), found 4 1",
    ],
    [["rooms", 0, "fixtures", 2, "size"], [0, 1], "rooms[0].fixtures[2].size[0]: must be a whole number from 1 to 512"],
    [["rooms", 0, "fixtures", 2, "size"], [1], "rooms[0].fixtures[2].size"],
    [["rooms", 0, "fixtures", 0, "size"], [2, 1], "rooms[0].fixtures[0].size: is not allowed"],
    [["rooms", 0, "fixtures", 1, "lock", "item"], "ruby", "rooms[0].fixtures[1].lock.item: names item ruby"],
    [["rooms", 1, "fixtures", 1, "id"], "crank-1", "rooms[1].fixtures[1].id: crank-1 stands twice"],
    [["laws", 0], "mostly aligned", "laws[0]: expected one of"],
    [["respawnRestores"], "all", "respawnRestores: must be one of keeps, checkpoint, start, found"],
    [["rules", 0, "walker", "crossesAt"], "edge", "rules[0].walker.crossesAt: must be one of centre, whole"],
    [["reachChecks", 0], "always winnable", "reachChecks[0]: must be one of: reachable FIXTURE, "],
    [["goal"], { kind: "marker", fixture: "crank-1" }, "goal.fixture: names marker crank-1"],
  ] as const)("%j = %j", (path, value, message) => {
    const text = changed(path, value);
    expect(() => readWorld(text)).toThrow(RefusedError);
    expect(() => readWorld(text)).toThrow(message);
  });

  it("with line and column", () => {
    const text = demo.replace('"speed": 2', '"speed": 99');
    const line = text.split("\n").findIndex((row) => row.includes('"speed": 99')) + 1;
    expect(() => readWorld(text, "hall.world.json")).toThrow(
      `hall.world.json is refused: line ${line}, column ${text.split("\n")[line - 1]!.indexOf('"speed"') + 1}: rules[0].glide.speed`,
    );
  });

  it.each([
    ['{"format": "keen-pebble-world", "format": 1}', "line 1, column 33: format: the key stands twice"],
    ['{"a": 1,\n "b": }', "line 2, column 7: broken JSON: value expected"],
    ['{"a": 1} // more', "broken JSON"],
    ["[".repeat(100_000), "line 1, column 33: is nested deeper than 32"],
    ["", "broken JSON"],
    ["null", "must be of type object"],
  ])("as broken JSON: %.30j", (text, message) => expect(() => readWorld(text)).toThrow(message));
});

describe("how much of what is wrong is told", () => {
  /** The file with things wrong in some rule sets' speeds, made so many characters long by blanks at its end. */
  const wrong = (sets: number, length: number): string => {
    const world = JSON.parse(EVERYTHING) as { rules: { id: string; glide: { speed: number } }[] };
    const [first] = world.rules;
    const text = JSON.stringify({
      ...world,
      rules: [
        ...world.rules,
        ...Array.from({ length: sets }, (_, i) => ({
          ...first!,
          id: `set-${i}`,
          glide: { ...first!.glide, speed: 99 },
        })),
      ],
    });
    return text.padEnd(length, " ");
  };
  const told = (text: string): number => {
    try {
      readWorld(text);
      return 0;
    } catch (error) {
      return (error as RefusedError).refusals.length;
    }
  };

  it.each([
    [2, 256 * 1024, 2],
    [2, 256 * 1024 + 1, 1],
    [20, 0, 20],
    [21, 0, 20],
  ])("of %i wrong things in a file of at least %i characters %i are told", (sets, length, expected) =>
    expect(told(wrong(sets, length))).toBe(expected),
  );
});

it.each([3, 129, 0, -16, "16", null, 15.5])(
  "a tile size of %j is the only thing that is wrong: what depends on it is not held against a size that is none",
  (tileSize) => {
    const json = JSON.parse(EVERYTHING) as Record<string, unknown>;
    try {
      readWorld(JSON.stringify({ ...json, tileSize }));
      expect.unreachable();
    } catch (error) {
      expect((error as RefusedError).refusals.map(({ place }) => place)).toEqual(["tileSize"]);
    }
  },
);

it("a body reaches at most a tile beyond the frame-square, on each side and with each probe", () => {
  const fits = (...box: [number, number, number, number]): boolean =>
    bodyFault({ kind: "box", box, flush: "free" }, 16) === null;
  expect([fits(-16, -16, 48, 48), fits(31, 31, 1, 1), fits(0, 0, 32, 32)]).toEqual([true, true, true]);
  expect([fits(-17, 0, 16, 16), fits(0, -17, 16, 16), fits(0, 0, 33, 16), fits(0, 0, 16, 33)]).toEqual(
    Array(4).fill(false),
  );
  const probes = (...point: [number, number]): boolean =>
    bodyFault({ kind: "probes", points: [[0, 0], point], flush: "free" }, 16) === null;
  expect([probes(32, -16), probes(-16, 32)]).toEqual([true, true]);
  expect([probes(33, 0), probes(0, 33), probes(-17, 0), probes(0, -17)]).toEqual(Array(4).fill(false));
});

it("the shape of a file is built once for each tile size", () => {
  expect(worldSchema(16)).toBe(worldSchema(16));
  expect(worldSchema(24)).not.toBe(worldSchema(16));
});
