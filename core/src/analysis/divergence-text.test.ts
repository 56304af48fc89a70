import { expect, it } from "vitest";
import { explainFrame } from "../replay/run.ts";
import { compile } from "../simulation/compile.ts";
import { tinyLog, tinyWorld } from "../test-support/tiny-world.ts";
import type { Spot } from "./conform.ts";
import { divergenceText } from "./divergence-text.ts";

const world = tinyWorld(["S #"], { gait: "roam", roam: { speedX: 6, speedY: 6 } });
const second = { ...world, rooms: [world.rooms[0]!, { ...world.rooms[0]!, id: "b", name: "Cellar" }] };
const at = (x: number, y = 0, room = 0): Spot => ({ room, x: x * 256, y: y * 256 });
/** What is said where ours does what these keys do in a frame, and a game's walker goes from one place to another. */
function said(keys: string, frame: number, ours: Spot, before: Spot | null, theirs: Spot): string {
  return divergenceText(second, { frame, ours, theirs }, before, explainFrame(compile(world), tinyLog(keys), frame));
}

it.each<[string, Parameters<typeof said>, string]>([
  [
    "both move, ours further",
    ["5 R", 1, at(6), at(0), at(4)],
    "ours: moved 6 px right; yours: moved 4 px right, which is 2 px further left",
  ],
  [
    "ours moves up to the wall",
    ["5 R", 3, at(16), at(12), at(18)],
    "ours: moved 4 px right, stopped by 2,0 block; yours: moved 6 px right, which is 2 px further right",
  ],
  [
    "ours cannot move at the wall",
    ["5 R", 4, at(16), at(16), at(17, -1)],
    "ours: stopped by 2,0 block; yours: moved 1 px right and 1 px up, which is 1 px further right and 1 px further up",
  ],
  [
    "ours cannot leave the room",
    ["5 D", 1, at(0), at(0), at(0, 1.5)],
    "ours: stopped by 0,1 the edge; yours: moved 1.5 px down, which is 1.5 px further down",
  ],
  [
    "neither moves",
    ["5 .", 1, at(0), at(1), at(1)],
    "ours: stood still; yours: stood still, which is 1 px further right",
  ],
  [
    "nobody knows where the game's was",
    ["5 .", 1, at(0), null, at(1)],
    "ours: stood still; yours: stands there, which is 1 px further right",
  ],
  [
    "the game's comes from another room",
    ["5 .", 1, at(1), at(0, 0, 1), at(0)],
    "ours: stood still; yours: came into the room, which is 1 px further left",
  ],
  ["they are in different rooms", ["5 .", 1, at(1), at(0), at(1, 0, 1)], "ours: in A; yours: in Cellar"],
])("%s", (_, given, text) => expect(said(...given)).toBe(text));
