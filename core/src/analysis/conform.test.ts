import { describe, expect, it } from "vitest";
import type { GameTrace } from "../formats/game-trace.ts";
import { explainFrame, run } from "../replay/run.ts";
import { compile } from "../simulation/compile.ts";
import { tinyLog, tinyWorld } from "../test-support/tiny-world.ts";
import { conform, framesOf, ghostRows, spotBefore } from "./conform.ts";
import { divergenceText } from "./divergence-text.ts";

const world = tinyWorld(["S.#.", "...."], { gait: "roam", roam: { speedX: 3, response: "contact" } });
const c = compile(world);
const log = tinyLog("10 R");
const rows = run(c, log, { rows: true }).rows!;

/** Our own walk as somebody else's, with some of it changed. */
function traceOf(change: (frame: number) => readonly [room: number, x: number, y: number] | null): GameTrace {
  const all = Array.from({ length: rows.count }, (_, frame) => [frame, change(frame)] as const).filter(
    ([, at]) => at !== null,
  );
  return {
    count: all.length,
    frames: Int32Array.from(all, ([frame]) => frame),
    rooms: Uint8Array.from(all, ([, at]) => at![0]),
    x: Int32Array.from(all, ([, at]) => at![1]),
    y: Int32Array.from(all, ([, at]) => at![2]),
  };
}
const ours = (frame: number) => [0, rows.x[frame]!, rows.y[frame]!] as const;

describe("a game beside ours", () => {
  it("conforms where every frame is within the tolerance, on each axis", () => {
    expect(conform(rows, traceOf(ours), 0)).toEqual({ compared: 11, first: null, farthest: 0 });
    const half = traceOf((frame) => [0, rows.x[frame]! + 128, rows.y[frame]! - 128]);
    expect(conform(rows, half, 0.5)).toEqual({ compared: 11, first: null, farthest: 128 });
    expect(conform(rows, half, 0.49).first).toMatchObject({ frame: 0 });
  });

  it("is held at its last row where it has none, and compared only in frames that both have", () => {
    const sparse = traceOf((frame) => (frame === 2 || frame === 8 ? ours(frame) : null));
    // Frame 3 is where ours moved on and the game's row of frame 2 still holds.
    expect(conform(rows, sparse, 0)).toMatchObject({ compared: 2, first: { frame: 3 } });
    expect([...framesOf(rows, sparse)].map(({ frame, at }) => [frame, at])).toEqual([
      [2, 0],
      [3, 0],
      [4, 0],
      [5, 0],
      [6, 0],
      [7, 0],
      [8, 1],
    ]);
    expect(conform(rows, { ...sparse, count: 0, frames: new Int32Array() }, 0).compared).toBe(0);
  });

  it("diverges with the frame, and in words that say what both did", () => {
    // A wall of ours is two cells away: 16 px, which is reached within six frames of 3 px.
    const through = traceOf((frame) => [0, frame * 3 * 256, 0]);
    const { first } = conform(rows, through, 0.5);
    expect(first).toEqual({ frame: 6, ours: { room: 0, x: 16 * 256, y: 0 }, theirs: { room: 0, x: 18 * 256, y: 0 } });
    expect(divergenceText(world, first!, spotBefore(through, 6), explainFrame(c, log, 6))).toBe(
      "ours: moved 1 px right, stopped by 2,0 block; yours: moved 3 px right, which is 2 px further right",
    );
    const still = traceOf((frame) => [0, 0, frame === 0 ? 0 : 256]);
    const diverges = conform(rows, still, 2).first!;
    expect(
      divergenceText(world, diverges, spotBefore(still, diverges.frame), explainFrame(c, log, diverges.frame)),
    ).toBe("ours: moved 3 px right; yours: moved 1 px down, which is 3 px further left and 1 px further down");
  });

  it("is told apart by the room", () => {
    const two = { ...world, rooms: [world.rooms[0]!, { ...world.rooms[0]!, id: "b", name: "Pit" }] };
    const elsewhere = traceOf((frame) => [frame < 4 ? 0 : 1, rows.x[frame]!, rows.y[frame]!]);
    const first = conform(rows, elsewhere, 100).first!;
    expect(first.frame).toBe(4);
    expect(divergenceText(two, first, spotBefore(elsewhere, 4), explainFrame(c, log, 4))).toBe(
      `ours: in ${world.rooms[0]!.name}; yours: in Pit`,
    );
  });
});

it("stands before a frame where its last row before says, and as a ghost in each frame, from the first row on and before it", () => {
  const places = [
    [2, 10],
    [3, 20],
    [7, 30],
  ] as const;
  const sparse: GameTrace = {
    count: 3,
    frames: Int32Array.from(places, ([frame]) => frame),
    rooms: Uint8Array.of(0, 1, 1),
    x: Int32Array.from(places, ([, x]) => x),
    y: Int32Array.from(places, ([, x]) => x + 1),
  };
  expect([0, 2, 3, 4, 7, 8, 99].map((frame) => spotBefore(sparse, frame)?.x ?? null)).toEqual([
    null,
    null,
    10,
    20,
    20,
    30,
    30,
  ]);
  const ghost = ghostRows(sparse);
  expect([ghost.count, [...ghost.x], [...ghost.y], [...ghost.room]]).toEqual([
    8,
    [10, 10, 10, 20, 20, 20, 20, 30],
    [11, 11, 11, 21, 21, 21, 21, 31],
    [0, 0, 0, 1, 1, 1, 1, 1],
  ]);
  // All that it had was before the start.
  const nothing: GameTrace = {
    count: 0,
    frames: new Int32Array(),
    rooms: new Uint8Array(),
    x: new Int32Array(),
    y: new Int32Array(),
  };
  expect([ghostRows(nothing).count, spotBefore(nothing, 5), [...framesOf(rows, nothing)]]).toEqual([0, null, []]);
});
