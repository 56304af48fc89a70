import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { STRICT } from "./schema-parts.ts";
import { worldSchema } from "./world-schema.ts";

const everything = readFileSync(new URL("../test-support/everything.world.json", import.meta.url), "utf8");

/** Whether a world file has the shape of one, with something in it set to a value. */
function fits(place: readonly (string | number)[], value: unknown): boolean {
  const world = JSON.parse(everything) as Record<string, unknown>;
  let at: Record<string | number, unknown> = world;
  for (const key of place.slice(0, -1)) at = at[key] as Record<string | number, unknown>;
  at[place.at(-1)!] = value;
  return worldSchema(16).validate(world, STRICT).error === undefined;
}

const ROOM = ["rooms", 0] as const;
const TILE = ["tiles", 0] as const;
const GAME = { id: "mine", name: "Mine", columns: {} };
const ACTOR = { id: "crab", cell: [0, 0], plan: [{ do: "stand" }] };
const FILL = { fill: "#8d7f6f" };

describe("a number of a world file has its least and its largest value:", () => {
  it.each<[string, readonly (string | number)[], number, number, ((value: number) => unknown)?]>([
    ["tile size", ["tileSize"], 4, 128],
    ["frame rate", ["frameRate"], 1, 240],
    ["seed", ["seed"], 0, 4_294_967_295],
    ["lives", ["lives"], 1, 99],
    ["length of an id", ["id"], 1, 40, (n) => "n".repeat(n)],
    ["length of a name", ["name"], 1, 80, (n) => "n".repeat(n)],
    ["length of a law", ["laws"], 1, 200, (n) => ["n".repeat(n)]],
    ["width of the camera", ["camera", "width"], 1, 512],
    ["height of the camera", ["camera", "height"], 1, 512],
    ["margin of the camera across", ["camera", "margin"], 0, 512, (n) => [n, 0]],
    ["margin of the camera down", ["camera", "margin"], 0, 512, (n) => [0, n]],
    ["ease of the camera", ["camera", "ease"], 0, 240],
    ["tile of a sheet", ["sheets", 0, "tile"], 1, 512],
    ["margin of a sheet", ["sheets", 0, "margin"], 0, 512],
    ["spacing of a sheet", ["sheets", 0, "spacing"], 0, 512],
    ["column of a look", [...TILE, "look"], 0, 4095, (n) => ({ sheet: "a", at: [n, 0] })],
    ["row of a look", [...TILE, "look"], 0, 4095, (n) => ({ sheet: "a", at: [0, n] })],
    ["x of a corner", [...TILE, "shape"], -100_000, 100_000, (n) => polygon([n, 0], [1, 0], [0, 1])],
    ["y of a corner", [...TILE, "shape"], -100_000, 100_000, (n) => polygon([0, n], [1, 0], [0, 1])],
    ["x of a box", [...TILE, "shape"], -100_000, 100_000, (n) => boxes([n, 0, 1, 1])],
    ["y of a box", [...TILE, "shape"], -100_000, 100_000, (n) => boxes([0, n, 1, 1])],
    ["width of a box", [...TILE, "shape"], 1, 100_000, (n) => boxes([0, 0, n, 1])],
    ["height of a box", [...TILE, "shape"], 1, 100_000, (n) => boxes([0, 0, 1, n])],
    ["width of a room", [...ROOM, "width"], 1, 512],
    ["height of a room", [...ROOM, "height"], 1, 512],
    ["place in the plan across", [...ROOM, "plan"], -100_000, 100_000, (n) => [n, 0]],
    ["place in the plan down", [...ROOM, "plan"], -100_000, 100_000, (n) => [0, n]],
    ["offset of a link", [...ROOM, "edges", "north"], -100_000, 100_000, (offset) => ({ ...LINK, offset })],
    ["first cell of a span", [...ROOM, "edges", "north"], 0, 511, (from) => [{ kind: "wall", from, to: 0 }]],
    ["last cell of a span", [...ROOM, "edges", "north"], 0, 511, (to) => [{ kind: "wall", from: 0, to }]],
    ["column of a cell", ["start", "cell"], 0, 511, (n) => [n, 0]],
    ["row of a cell", ["start", "cell"], 0, 511, (n) => [0, n]],
    ["frame offset of a game", ["games"], -100_000, 100_000, (frameOffset) => [{ ...GAME, frameOffset }]],
    ["tolerance of a game", ["games"], 0, 512, (tolerance) => [{ ...GAME, tolerance }]],
    ["frames of a phase", [...ROOM, "actors"], 1, 100_000, (n) => [{ ...ACTOR, plan: [{ do: "stand", frames: n }] }]],
  ])("%s", (_, place, least, most, of = (value) => value) =>
    expect([least - 1, least, most, most + 1].map((value) => fits(place, of(value)))).toEqual([
      false,
      true,
      true,
      false,
    ]),
  );
});

describe("a list of a world file has its least and its largest length:", () => {
  it.each<
    [string, readonly (string | number)[], number, number, (i: number) => unknown, ((list: unknown) => unknown)?]
  >([
    ["flags", ["flags"], 0, 16, (i) => `flag-${i}`],
    ["tiles", ["tiles"], 1, 1024, (i) => ({ id: `t-${i}`, name: "T", flags: [], shape: { kind: "full" }, look: FILL })],
    ["items", ["items"], 0, 256, (i) => ({ id: `i-${i}`, name: "I", role: "key", colour: "#8d7f6f" })],
    ["circuits", ["circuits"], 0, 256, (i) => `c-${i}`],
    ["sheets", ["sheets"], 0, 64, (i) => ({ id: `s-${i}`, file: "s.png", tile: 16, margin: 0, spacing: 0 })],
    ["laws", ["laws"], 0, 64, () => "never outside"],
    ["checks of all play", ["reachChecks"], 0, 256, () => "reach goal"],
    ["games", ["games"], 0, 16, (i) => ({ ...GAME, id: `g-${i}` })],
    ["rule sets", ["rules"], 1, 64, (i) => ({ id: `r-${i}`, name: "R", gait: "hop", hop: {} })],
    ["boxes of a tile", [...TILE, "shape"], 1, 64, () => [0, 0, 1, 1], (list) => ({ kind: "boxes", boxes: list })],
    ["corners of a tile", [...TILE, "shape"], 3, 8, () => [0, 0], (points) => ({ kind: "poly", points })],
    ["looks that join", [...TILE, "joins"], 16, 16, () => FILL, (looks) => ({ to: "floor", looks })],
    ["spans of a side", [...ROOM, "edges", "west"], 0, 512, () => ({ kind: "wall", from: 0, to: 0 })],
    [
      "fixtures of a room",
      [...ROOM, "fixtures"],
      0,
      4096,
      (i) => ({ id: `m-${i}`, kind: "marker", name: "M", cell: [0, 0] }),
    ],
    ["actors of a room", [...ROOM, "actors"], 0, 64, (i) => ({ ...ACTOR, id: `a-${i}` })],
    ["phases of an actor", [...ROOM, "actors"], 1, 16, () => ({ do: "stand" }), (plan) => [{ ...ACTOR, plan }]],
    [
      "cells of a path",
      [...ROOM, "actors"],
      1,
      256,
      () => [0, 0],
      (cells) => [{ ...ACTOR, plan: [{ do: "path", cells }] }],
    ],
    [
      "probes of a walker",
      ["rules", 0, "walker", "body"],
      1,
      16,
      () => [0, 0],
      (points) => ({ kind: "probes", points }),
    ],
    [
      "pictures of a direction",
      ["figure"],
      1,
      64,
      () => [0, 0],
      (up) => ({ sheet: "a", offset: [0, 0], images: { up } }),
    ],
  ])("%s", (_, place, least, most, one, of = (list) => list) => {
    const long = (length: number): boolean => fits(place, of(Array.from({ length }, (__, i) => one(i))));
    expect([least, most, most + 1].map(long)).toEqual([true, true, false]);
    if (least > 0) expect(long(least - 1)).toBe(false);
  });
});

describe("names of a game have their largest number:", () => {
  it.each<[string, string, unknown, number]>([
    ["keys", "keys", "A", 64],
    ["rooms", "rooms", "hall", 256],
  ])("%s", (_, part, value, most) => {
    const many = (count: number): boolean =>
      fits(
        ["games"],
        [{ ...GAME, [part]: Object.fromEntries(Array.from({ length: count }, (__, i) => [`k${i}`, value])) }],
      );
    expect([most, most + 1].map(many)).toEqual([true, false]);
  });
});

const LINK = { kind: "link", room: "hall" };
const polygon = (...points: [number, number][]) => ({ kind: "poly", points });
const boxes = (...list: [number, number, number, number][]) => ({ kind: "boxes", boxes: list });
