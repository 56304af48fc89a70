import { expect, it } from "vitest";
import { compile } from "../../simulation/compile.ts";
import { startState } from "../../simulation/start-state.ts";
import { tinyWorld } from "../../test-support/tiny-world.ts";
import type { Fixture } from "../../world/fixtures.ts";
import { keysText } from "../../world/keys.ts";
import type { World } from "../../world/world.ts";
import { PlausibleKeys } from "./plausible-keys.ts";

const bare = tinyWorld(["S...", "...."], { gait: "glide", glide: { speed: 2 } });
const gate: Fixture = {
  id: "gate",
  kind: "door",
  cell: [3, 1],
  touch: "cell",
  keeps: "run",
  lock: { kind: "none" },
  opensOn: "use",
  closes: "never",
};
const withGate: World = { ...bare, rooms: [{ ...bare.rooms[0]!, fixtures: [gate] }] };

/** What is pressed in so many frames, as runs of the same keys with their lengths. */
function pressed(world: World, seed: number, bumping = false): readonly [string, number][] {
  const c = compile(world);
  const s = startState(c);
  s.bumping = bumping;
  const keys = new PlausibleKeys(c, seed);
  const runs: [string, number][] = [];
  for (let frame = 0; frame < 20_000; frame++) {
    const now = keysText(keys.next(s));
    if (runs.at(-1)?.[0] === now) runs.at(-1)![1]++;
    else runs.push([now, 1]);
  }
  return runs;
}
/** Which keys are pressed together, each in the order of the alphabet. */
const kinds = (runs: readonly [string, number][]): readonly string[] =>
  [...new Set(runs.map(([keys]) => [...keys].sort().join("")))].sort();

it("are each direction, two at a time and opposite ones, and rests; `use` with them only where something opens by it", () => {
  const plain = [".", "D", "DL", "DR", "DU", "L", "LR", "LU", "R", "RU", "U"];
  expect(kinds(pressed(bare, 1))).toEqual(plain);
  const used = kinds(pressed(withGate, 1));
  expect(used.filter((keys) => !keys.includes("A"))).toEqual(plain);
  for (const way of ["D", "L", "R", "U"]) expect(used).toContain(`A${way}`);
});

it("are held for a frame now and then, and for nine cells and two frames at the most: 74 at 2 px", () => {
  const lengths = pressed(bare, 2).map(([, length]) => length);
  expect(Math.min(...lengths)).toBe(1);
  // Two holds of the same keys may follow each other.
  expect(lengths.filter((length) => length > 74).length).toBeLessThan(lengths.length / 20);
  expect(lengths.filter((length) => length > 40).length).toBeGreaterThan(lengths.length / 20);
});

it("are given up soon, and not at once, by who stands at a wall", () => {
  const lengths = pressed(bare, 3, true).map(([, length]) => length);
  expect(lengths.filter((length) => length > 40)).toEqual([]);
  expect(lengths.some((length) => length > 14)).toBe(true);
});

it("are the same for the same seed, and others for another one", () => {
  expect(pressed(withGate, 4)).toEqual(pressed(withGate, 4));
  expect(pressed(withGate, 5)).not.toEqual(pressed(withGate, 4));
});
