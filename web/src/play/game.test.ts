import { MOST_PLAYED, readLog, readPlayed } from "@keen-pebble/core/check";
import type { World } from "@keen-pebble/core/world";
import { DOWN, RIGHT } from "@keen-pebble/core/world";
import { expect, it } from "vitest";
import { hall } from "../test-support/hall.ts";
import { traceHash } from "../workers/trace-hash.ts";
import { Game } from "./game.ts";

function stepped(game: Game, ...held: readonly (readonly [frames: number, buttons: number])[]): Game {
  for (const [frames, buttons] of held) for (let i = 0; i < frames; i++) game.step(buttons, { x: 5, y: 7 });
  return game;
}

it("what was played is taken as it was walked, without a pointer where nobody looks there", () => {
  const world = hall();
  const game = stepped(new Game(world), [16, RIGHT], [8, DOWN], [3, 0]);
  const { fingerprint, log } = game.played();
  expect(log.split("---\n")[1]).toBe("16 R\n8 D\n3 .\n");
  expect(readPlayed(log, fingerprint, world, traceHash()).frames).toBe(27);
  expect(game.rows().x.at(-1)).toBe(4 * 16 * 256);
});

it("the pointer is kept where the rules look at it", () => {
  const [rules] = hall().rules;
  const world: World = { ...hall(), rules: [{ ...rules!, facing: { ...rules!.facing, source: "pointer" } }] };
  const { fingerprint, log } = stepped(new Game(world), [2, RIGHT]).played();
  expect(readLog(log).lines).toMatchObject([{ count: 2, pointer: { x: 5, y: 7 } }]);
  expect(() => readPlayed(log, fingerprint, world, traceHash())).not.toThrow();
});

it("a game that is won stands still, and what is sent ends there", () => {
  const base = hall();
  const [room] = base.rooms;
  const marker = {
    kind: "marker",
    id: "end",
    name: "End",
    cell: [4, 2],
    touch: "cell",
    keeps: "run",
    size: [1, 1],
  } as const;
  const world: World = {
    ...base,
    rooms: [{ ...room!, fixtures: [marker] }],
    goal: { kind: "marker", fixture: "end" },
  };
  const game = stepped(new Game(world), [60, RIGHT]);
  expect(game.isOver).toBe(true);
  expect(game.frame).toBeLessThan(20);
  const { fingerprint, log } = game.played();
  expect(readPlayed(log, fingerprint, world, traceHash()).frames).toBe(game.frame);
});

it("nobody plays for longer than a play may last", () => {
  const game = stepped(new Game(hall()), [MOST_PLAYED + 9, 0]);
  expect([game.isOver, game.frame]).toEqual([true, 36_000]);
});
