import { expect, it } from "vitest";
import { parseCheck } from "../checks/check.ts";
import { addRoom } from "../edits/rooms.ts";
import { compile } from "../simulation/compile.ts";
import { tinyLog, tinyWorld } from "../test-support/tiny-world.ts";
import { newActor } from "../world/actors.ts";
import type { Phase } from "../world/actors.ts";
import type { World } from "../world/world.ts";
import { isUpToChance, overSeeds } from "./over-seeds.ts";

function worldWith(phase: Phase): World {
  const base = tinyWorld(["S    ", "     ", "     "]);
  const crab = { ...newActor("crab-1", [3, 1], base), speed: 4, plan: [phase] };
  return { ...base, rooms: [{ ...base.rooms[0]!, actors: [crab] }] };
}

const check = parseCheck(["never", "meets", "crab-1"]);
if (!("check" in check)) throw new Error("no check");
const log = tinyLog("64 R", { checks: [check.check] });

it("over many seeds a log holds as often as over each by itself, in pieces too, and the first that breaks it is the smallest", () => {
  const c = compile(worldWith({ frames: null, do: "wander" }));
  const alone = Array.from({ length: 60 }, (_, seed) => overSeeds(c, log, seed, 1));
  const all = overSeeds(c, log, 0, 60);
  expect(all.held).toBe(alone.filter(({ held }) => held === 1).length);
  expect(all.held).toBeGreaterThan(5);
  expect(all.held).toBeLessThan(55);
  expect(all.broken).toEqual(alone.find(({ broken }) => broken !== null)!.broken);
  const pieces = [overSeeds(c, log, 0, 25), overSeeds(c, log, 25, 35)];
  expect(pieces[0]!.held + pieces[1]!.held).toBe(all.held);
  expect(overSeeds(c, { ...log, seed: all.broken!.seed }, all.broken!.seed, 1).held).toBe(0);
});

it("where nothing wanders all seeds say the same, and chance has nothing to do with it", () => {
  const world = worldWith({ frames: null, do: "toward" });
  const inRoom = (...rooms: number[]) => ({ room: Uint8Array.from(rooms) });
  expect(isUpToChance(world, inRoom(0))).toBe(false);
  const wandering = addRoom(worldWith({ frames: null, do: "wander" }), "b", "B", 3, 3);
  expect(isUpToChance(wandering, inRoom(0, 0, 1))).toBe(true);
  // Only from a room that is never come to.
  expect(isUpToChance(wandering, inRoom(1, 1))).toBe(false);
  expect(overSeeds(compile(world), log, 0xffff_fff0, 8)).toMatchObject({ held: 0, broken: { seed: 0xffff_fff0 } });
});
