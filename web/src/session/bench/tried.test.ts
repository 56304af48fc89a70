import { session } from "../../page-session.ts";
import type { Verdict } from "@keen-pebble/core/check";
import type { Rules, World } from "@keen-pebble/core/world";
import { emptyWorld } from "@keen-pebble/core/world";
import { beforeEach, expect, it } from "vitest";
import { triedKey } from "./tried.ts";

const world = emptyWorld("w", "W", 16);
const base = world.rules[0]!;
const speed = (value: number): Rules => ({ ...base, glide: { ...base.glide, speed: value } });
const verdicts = (failing: number): Verdict[] =>
  [0, 1, 2].map((i) => ({
    check: `always aligned ${i}`,
    verdict: i < failing ? "fail" : "pass",
    frame: 0,
    seen: null,
  }));
const tried = (): string =>
  (session.tried.store.getState().get(triedKey("main", "glide.speed")) ?? [])
    .map(({ value, failing }) => `${String(value)}:${failing}`)
    .join(" ");

const note = (
  log: string,
  rules: Rules,
  failing: number,
  stroke: string | null,
  on: World = world,
  text = "text",
): void => session.tried.noteTried({ log, text, world: { ...on, rules: [rules] }, rules }, verdicts(failing), stroke);
const holdNow = (): boolean[] =>
  (session.tried.store.getState().get(triedKey("main", "glide.speed")) ?? []).map(({ holdsNow }) => holdsNow);

beforeEach(session.tried.forgetTried);

it("what the checks said is true of a value only while all else is as it was", () => {
  note("log", speed(2), 0, null);
  note("log", speed(3), 1, null);
  expect(holdNow()).toEqual([true, true]);
  const room = world.rooms[0]!;
  const painted: World = {
    ...world,
    rooms: [{ ...room, cells: room.cells.map((tile, i) => (i === 5 ? 1 - Math.min(1, tile) : tile)) }],
  };
  note("log", speed(3), 1, null, painted);
  expect(holdNow()).toEqual([false, false]);
  note("log", speed(4), 1, null, painted);
  expect(holdNow()).toEqual([false, false, true]);
  // Painted back: it is the same room again.
  note("log", speed(4), 1, null, { ...world, rooms: [{ ...room, cells: room.cells.slice() }] });
  expect(holdNow()).toEqual([true, true, false]);
  // Another setting is another walk; so is another text of the log.
  note("log", { ...speed(4), glide: { ...speed(4).glide, arrive: "past" } }, 2, null);
  expect(holdNow()).toEqual([false, false, false]);
  note("log", speed(4), 1, null, world, "another text");
  expect(holdNow()).toEqual([false, false, false]);
});

it.each([
  ["the size of cells", { tileSize: 8 }, false],
  ["the seed, by which actors wander", { seed: 77 }, false],
  ["tiles", { tiles: world.tiles.slice(0, 1) }, false],
  ["items", { items: [{ id: "key", name: "Key", role: "key", colour: "#ffffff" }] as never }, false],
  ["circuits", { circuits: ["pump"] }, false],
  ["lives", { lives: 3 }, false],
  ["what a respawn restores", { respawnRestores: "start" as const }, false],
  ["the start", { start: { ...world.start, facing: "up" as const } }, false],
  ["the goal", { goal: { kind: "collect", item: "key" } as const }, false],
  ["laws", { laws: ["never overlap"] }, false],
  ["rooms", { rooms: [...world.rooms, world.rooms[0]!] }, false],
  ["a room's name", { rooms: [{ ...world.rooms[0]!, name: "Other" }] }, false],
  ["a room's width", { rooms: [{ ...world.rooms[0]!, cells: world.rooms[0]!.cells.slice(1) }] }, false],
  ["the world's name", { name: "Other" }, true],
  ["the camera", { camera: { ...world.camera, ease: 3 } }, true],
] as const)("with other values of %s what was tried is said of another world, or not", (_what, part, holds) => {
  note("log", speed(2), 0, null);
  note("log", speed(3), 1, null);
  note("log", speed(3), 1, null, { ...world, ...part });
  expect(holdNow()).toEqual([holds, holds]);
});

it("keeps the value before the first change, and each one after it with what failed", () => {
  note("log", speed(2), 0, null);
  expect(tried()).toBe("");
  note("log", speed(3), 1, null);
  note("log", speed(5), 2, null);
  expect(tried()).toBe("2:0 3:1 5:2");
  expect([...session.tried.store.getState().keys()]).toEqual(["main/glide.speed"]);
});

it("a drag leaves the value at which it rests; one that comes again keeps its place", () => {
  note("log", speed(2), 0, null);
  for (const value of [3, 4, 5]) note("log", speed(value), 1, "drag");
  expect(tried()).toBe("2:0 5:1");
  note("log", speed(2), 0, null);
  note("log", speed(7), 3, null);
  expect(tried()).toBe("2:0 5:1 7:3");
});

it("another log or rule set is nothing that was tried here", () => {
  note("log", speed(2), 0, null);
  note("other", speed(3), 0, null);
  note("other", { ...speed(4), id: "second" }, 0, null);
  expect(session.tried.store.getState().size).toBe(0);
});
