import fc from "fast-check";
import { expect, it } from "vitest";
import type { MetShape } from "../compiled/account.ts";
import { FIXED, anyGait, anyLog, anyRows } from "../test-support/arbitraries.ts";
import { told } from "../test-support/told.ts";
import type { TinyOptions } from "../test-support/tiny-world.ts";
import { tinyLog, tinyWorld } from "../test-support/tiny-world.ts";
import { compile } from "./compile.ts";
import type { ExplainedAxis, Explanation } from "./explain.ts";
import { explain } from "./explain.ts";
import { explainFrame } from "../replay/run.ts";
import { startState } from "./start-state.ts";
import type { SimState } from "../compiled/state.ts";
import { step } from "./step.ts";
import { same } from "../test-support/same.ts";

/** Everything in a state but the room for events that did not happen. */
function numbersOf({ eventKinds, eventSubjects, ...numbers }: SimState) {
  return {
    ...numbers,
    events: [...eventKinds.subarray(0, numbers.eventCount), ...eventSubjects.subarray(0, numbers.eventCount)],
  };
}

/** First unit on a way at which a shape is overlapped; one beyond the way where it never is. */
function firstMet(shapes: readonly MetShape[], way: number): number {
  const sign = Math.sign(way);
  const firsts = shapes
    .filter(({ inside }) => !inside)
    .flatMap(({ ranges }) =>
      ranges
        .filter(({ lo, hi }) => (sign > 0 ? hi >= 1 : lo <= -1))
        .map(({ lo, hi }) => Math.max(1, sign > 0 ? lo : -hi)),
    );
  return Math.min(Math.abs(way) + 1, ...firsts);
}

/** How far an axis goes, worked out from what its account says was met and tested. */
function recompute(move: ExplainedAxis, response: string): readonly [number, number] {
  const { dx, dy, place, shapes } = move;
  if (place !== null) return place.free ? [dx, dy] : [0, 0];
  const way = dx + dy;
  const sign = Math.sign(way);
  let gone = 0;
  if (response === "contact") gone = firstMet(shapes, way) - 1;
  else {
    const met = shapes
      .filter(({ inside, ranges }) => !inside && ranges.some(({ lo, hi }) => lo <= way && way <= hi))
      .flatMap(({ ranges }) => ranges);
    for (
      gone = Math.abs(way);
      gone > 0 && met.some(({ boxLo, boxHi }) => boxLo <= gone * sign && gone * sign <= boxHi);
      gone--
    );
  }
  return dx !== 0 ? [gone * sign + 0, 0] : [0, gone * sign + 0];
}

/** Where a frame ends, worked out from its account alone. */
function placeFrom(account: Explanation): readonly [number, number] {
  let [x, y] = account.from;
  for (const { dx, dy } of account.pieces) {
    x += dx;
    y += dy;
  }
  return [x, y];
}

it("explaining a frame moves the walker just as stepping does, and its account alone gives the movement again", () => {
  const seen = { chosen: 0, stopped: 0, slid: 0, nudged: 0, turned: 0, crossed: 0 };
  fc.assert(
    fc.property(anyRows, anyGait, anyLog, fc.boolean(), (rows, options: TinyOptions, log, slopes) => {
      // Turning round on a leg wants a slow walker, and is rare among random keys.
      const slow: TinyOptions =
        options.gait === "glide" && !slopes
          ? { ...options, glide: { ...options.glide, speed: 1, arrive: "land", reverse: true } }
          : options;
      const c = compile(tinyWorld(slopes ? rows.map((row) => row.replaceAll("#", "/")) : rows, slow));
      const stepped = startState(c);
      const explained = startState(c);
      const frames = log.lines.flatMap((line) =>
        line.kind === "keys" ? Array.from({ length: line.count }, () => line.keys) : [],
      );
      for (const keys of frames) {
        if (stepped.status !== 0) break;
        step(c, stepped, keys, null);
        const account = explain(c, explained, keys);
        same(numbersOf(explained), numbersOf(stepped));
        same(placeFrom(account), [stepped.x, stepped.y]);
        for (const candidates of account.choices) {
          // The first candidate with every place free is taken, and none is tested after it.
          const first = candidates.findIndex(({ places }) => places.every(({ free }) => free));
          same(
            candidates.map(({ taken }) => taken),
            candidates.map((_, i) => i === first),
          );
          for (const place of candidates.flatMap(({ places }) => places))
            same(
              place.cells.some((cell) => cell.blocks),
              !place.free,
            );
          if (first >= 0) seen.chosen++;
        }
        for (const move of account.axes) {
          same([move.movedX, move.movedY], recompute(move, c.free.response));
          if (move.slope.length > 0) seen.slid++;
          const all = move.movedX === move.dx && move.movedY === move.dy;
          same(
            move.cells.some((cell) => cell.blocks && cell.side !== null),
            !all,
          );
        }
        if (account.nudge !== null && account.nudge.moved !== 0) {
          same(
            account.nudge.tried.findIndex(({ place }) => place.free),
            account.nudge.tried.length - 1,
          );
          seen.nudged++;
        }
        if (account.stoppedBy !== null) seen.stopped++;
        if (account.reverse?.turned) seen.turned++;
        if (account.pieces.some(({ what }) => what === "crossing")) seen.crossed++;
      }
    }),
    { ...FIXED, numRuns: 400 },
  );
  told("explained frames", seen);
  expect(Math.min(...Object.values(seen))).toBeGreaterThan(10);
});

it("names the side on which the walker was stopped, and how it lies after the frame", () => {
  const body = { kind: "box", box: [2, 2, 12, 12], flush: "blocks" } as const;
  const c = compile(
    tinyWorld(["S.#", "...", "..."], { gait: "roam", body, roam: { speedX: 5, speedY: 5, response: "contact" } }),
  );
  // Five frames take the body flush to the block's left, one unit short of it where lying flush counts.
  const log = tinyLog("5 R,1 R,1 D");
  expect(explainFrame(c, log, 4)).toMatchObject({
    stoppedBy: { cx: 2, cy: 0, side: "right" },
    gaps: { right: 0, bottom: null, overlap: null },
  });
  expect(explainFrame(c, log, 7).stoppedBy).toBeNull();
  const deep = compile(tinyWorld(["S.#"], { gait: "roam", roam: { speedX: 5, response: "ahead", aheadPx: 1 } }));
  expect(explainFrame(deep, tinyLog("9 R"), 9)).toMatchObject({
    gaps: { overlap: 4 * 256 },
    stoppedBy: { side: "inside" },
  });
});

it("names every cell on a way longer than one, from the one that the body left to the one where it stops", () => {
  const body = { kind: "box", box: [4, 4, 8, 8], flush: "free" } as const;
  const c = compile(
    tinyWorld(["S...", "....", "...."], {
      gait: "roam",
      input: { ways: 8 },
      body,
      roam: { speedX: 40, speedY: 24, response: "contact" },
    }),
  );
  const cells = explainFrame(c, tinyLog("1 RD"), 1).axes.map((move) => move.cells.map(({ cx, cy }) => [cx, cy]));
  const [across, down] = [28.284, 16.97].map((px) => Math.floor((px + 11) / 16));
  expect(cells).toEqual([
    Array.from({ length: across! + 1 }, (_, cx) => [cx, 0]),
    Array.from({ length: down! + 1 }, (_, cy) => [Math.floor((28 + 4) / 16), cy]),
  ]);
});

it.each([
  ["right", [0, 2], "60 R"],
  ["left", [4, 2], "60 L"],
  ["bottom", [2, 0], "60 D"],
  ["top", [2, 4], "60 U"],
] as const)("a shape within its cell stops the walker on its %s side, with no gap left there", (side, [x, y], keys) => {
  const rows = [0, 1, 2, 3, 4].map((row) =>
    [0, 1, 2, 3, 4].map((column) => (row === 2 && column === 2 ? "=" : row === y && column === x ? "S" : ".")).join(""),
  );
  const body = { kind: "box", box: [5, 8, 5, 6], flush: "free" } as const;
  const world = tinyWorld(rows, { gait: "roam", body, roam: { speedX: 3, speedY: 3, response: "contact" } });
  // No two of its edges are alike.
  const tiles = world.tiles.map((tile) =>
    tile.id === "ledge" ? { ...tile, shape: { kind: "boxes" as const, boxes: [[3, 9, 8, 4] as const] } } : tile,
  );
  const { stoppedBy, gaps } = explainFrame(compile({ ...world, tiles }), tinyLog(keys), 60);
  expect([stoppedBy, gaps[side]]).toMatchObject([{ cx: 2, cy: 2, side }, 0]);
});
