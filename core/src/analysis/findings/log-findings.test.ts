import fc from "fast-check";
import { expect, it } from "vitest";
import { changedWorld } from "../fixes/single-change.ts";
import { compile } from "../../simulation/compile.ts";
import { run, stateAt } from "../../replay/run.ts";
import { step } from "../../simulation/step.ts";
import { FIXED, anyGait, anyLog, anyRows } from "../../test-support/arbitraries.ts";
import { mirroredLog, mirroredText, mirroredWorld } from "../../test-support/mirrored.ts";
import { told } from "../../test-support/told.ts";
import type { TinyOptions } from "../../test-support/tiny-world.ts";
import { tinyLog, tinyWorld } from "../../test-support/tiny-world.ts";
import type { World } from "../../world/world.ts";
import { logFindings } from "./log-findings.ts";
import type { LogFinding } from "./mistake.ts";

const inset = (px: number, flush: "free" | "blocks" = "free") =>
  ({ kind: "box", box: [px, px, 16 - 2 * px, 16 - 2 * px], flush }) as const;
/** The world with a ledge of one px: across the way of who goes sideways, or of who goes down a room one cell wide. */
const thin = (world: World): World => ({
  ...world,
  tiles: world.tiles.map((tile) =>
    tile.id === "ledge"
      ? { ...tile, shape: { kind: "boxes", boxes: [world.rooms[0]!.width > 1 ? [7, 0, 1, 16] : [0, 7, 16, 1]] } }
      : tile,
  ),
});

const CASES: readonly (readonly [string, string[], TinyOptions, string, string[]])[] = [
  [
    "a flag that nobody asks for",
    ["S#"],
    { blockedBy: ["water"] },
    "20 R",
    ["Walks over block in 20 frames, first in frame 1: no rule set asks for solid"],
  ],
  [
    "flush sticking",
    ["S#", "..", ".."],
    { gait: "roam", body: inset(0, "blocks") },
    "5 D",
    ["Sticks where it only lies flush, in 5 frames, first in frame 1: flush counts as blocked"],
  ],
  [
    "sticking because both axes are taken back",
    ["S#", "..", ".."],
    { gait: "roam", input: { ways: 8 }, roam: { response: "undo-both" } },
    "5 RD",
    ["Sticks to the wall instead of sliding, in 5 frames, first in frame 1: one axis was free, both were taken back"],
  ],
  [
    "a gap before the wall",
    ["S.#"],
    { gait: "roam", roam: { response: "undo-axis", speedX: 5 } },
    "9 R",
    ["Stops 1 px before the wall, in 6 frames, first in frame 4: the whole step is taken back"],
  ],
  [
    "a gap before the wall, leftwards",
    ["#.S"],
    { gait: "roam", roam: { response: "undo-axis", speedX: 5 } },
    "9 L",
    ["Stops 1 px before the wall, in 6 frames, first in frame 4: the whole step is taken back"],
  ],
  [
    "sinking in",
    ["S.#"],
    { gait: "roam", roam: { response: "ahead", speedX: 5, aheadPx: 1 } },
    "9 R",
    ["Sinks 4 px into what blocks it, in frame 4: tested 1 px ahead, moved 5"],
  ],
  [
    "a missed corner, one point",
    ["S.#"],
    { gait: "roam", body: { kind: "probes", points: [[8, 8]], flush: "free" }, roam: { speedX: 4 } },
    "6 R",
    ["Slips over a corner in 2 frames, first in frame 5: only one point is tested"],
  ],
  [
    "a cut corner",
    ["S#", ".."],
    { gait: "hop", input: { ways: 8 }, hop: { cutCorners: true } },
    "1 RD",
    ["Cuts the corner of what blocks it in frame 1"],
  ],
  [
    "a jump through a thin wall",
    ["S.=..."],
    { gait: "roam", body: inset(4), roam: { response: "undo-axis", speedX: 13 } },
    "3 R",
    ["Passes through what blocks it in frame 3: one step is 13 px and only its end is tested"],
  ],
  [
    "a jump through a thin floor",
    ["S", ".", "=", ".", "."],
    { gait: "roam", body: inset(4), roam: { response: "undo-axis", speedY: 13 } },
    "3 D",
    ["Passes through what blocks it in frame 3: one step is 13 px and only its end is tested"],
  ],
  [
    "a jump aslant over a thin wall",
    ["S..", ".=.", "..."],
    {
      gait: "roam",
      input: { ways: 8 },
      body: inset(4),
      roam: { response: "undo-both", speedX: 24, speedY: 24, diagonal: "full" },
    },
    "1 RD",
    [
      "Passes through what blocks it in frame 1: one step is 24 px and only its end is tested",
      "Faster diagonally in frame 1: 33.94 px a frame, evened 24",
    ],
  ],
  [
    "a jump from cell to cell",
    ["S=."],
    { gait: "hop", body: { kind: "box", box: [9, 4, 4, 8], flush: "free" } },
    "1 R",
    ["Passes through what blocks it in frame 1: only the next cell is tested, not the way to it"],
  ],
  [
    "faster diagonals",
    ["S..", "..."],
    { gait: "roam", input: { ways: 8 }, roam: { speedX: 4, speedY: 4, diagonal: "full" } },
    "2 RD",
    ["Faster diagonally in 2 frames, first in frame 1: 5.66 px a frame, evened 4"],
  ],
  [
    "a slope that is faster than the floor",
    ["......", "S../##"],
    { gait: "roam", roam: { speedX: 4 } },
    "12 R",
    ["Faster along a slope in 4 frames, first in frame 9: 5.66 px a frame, walking 4"],
  ],
  [
    "a facing that is reset",
    ["S.."],
    { gait: "roam", facing: { idle: "reset" } },
    "2 R,3 .",
    ["Turns from right to down when it stops, in frame 3"],
  ],
  [
    "a lost turn",
    ["S..", "#.#"],
    { glide: { speed: 2 } },
    "3 R,1 RD,8 R",
    ["A turn is lost in frame 9: pressed in frame 4, 5 frames before the choice; buffer is 0"],
  ],
  [
    "a lost turn on the way up",
    ["###", "..#", "#S#"],
    { glide: { speed: 2 } },
    "3 U,1 LU,8 U",
    ["A turn is lost in frame 9: pressed in frame 4, 5 frames before the choice; buffer is 0"],
  ],
  ["no lost turn into what blocks", ["S..", "###"], { glide: { speed: 2 } }, "3 R,1 RD,8 R", []],
  ["no lost turn that is still held", ["S..", "#.#"], { glide: { speed: 2 } }, "3 R,8 RD,2 R", []],
  ["no lost turn that is in memory", ["S..", "#.#"], { glide: { speed: 2, bufferFrames: 5 } }, "3 R,1 RD,8 R", []],
  [
    "a lost turn a frame before that",
    ["S..", "#.#"],
    { glide: { speed: 2, bufferFrames: 4 } },
    "3 R,1 RD,8 R",
    ["A turn is lost in frame 9: pressed in frame 4, 5 frames before the choice; buffer is 4"],
  ],
  [
    "no lost turn along the way",
    ["S..", "#.#"],
    { glide: { speed: 2 }, input: { opposites: "earliest" } },
    "3 R,1 RL,8 R",
    [],
  ],
  ["no lost turn that was pressed before the first leg", ["S..", "..."], { glide: { speed: 2 } }, "1 D,8 .,9 R", []],
  [
    "two lost turns, the second one later",
    ["S....", "....."],
    { glide: { speed: 2 } },
    "3 R,1 RD,10 R,1 RD,9 R",
    ["A turn is lost in frame 9: pressed in frame 4, 5 frames before the choice; buffer is 0, 2 turns in all"],
  ],
  [
    "a speed that does not fit",
    ["S...."],
    { glide: { speed: 7, arrive: "equal" } },
    "4 R",
    ["Runs past the cell in 2 frames, first in frame 3: 7 px does not divide 16: 16 = 2 x 7 + 2"],
  ],
  ["nothing", ["S.#", "..."], { gait: "roam", input: { ways: 8 } }, "30 R,9 RD,20 D,5 .", []],
];

it.each(CASES)("tells %s", (_what, rows, options, keys, texts) => {
  const found = logFindings(compile(thin(tinyWorld(rows, options))), tinyLog(keys));
  expect(found.map(({ text }) => text)).toEqual(texts);
});

// Who stands still faces down again, in a mirror too.
const MIRRORED = CASES.flatMap((each) =>
  (["x", "y"] as const)
    .filter((mirror) => mirror === "x" || each[2].facing?.idle !== "reset")
    .map((mirror) => [each[0], mirror, each] as const),
);

it.each(MIRRORED)("tells %s in a world that is mirrored along %s", (_what, mirror, [, rows, options, keys, texts]) => {
  const world = mirroredWorld(thin(tinyWorld(rows, options)), mirror);
  const found = logFindings(compile(world), mirroredLog(tinyLog(keys), mirror));
  expect(found.map(({ text }) => text)).toEqual(texts.map((text) => mirroredText(text, mirror)));
});

/** From the very state before the frame that shows it, the cured rules make something else of that frame. */
function differsThere(world: World, log: Parameters<typeof run>[1], finding: LogFinding, cured: World): boolean {
  const [c, fixed] = [compile(world), compile(cured)];
  const [one, other] = [stateAt(c, log, finding.frame - 1), stateAt(c, log, finding.frame - 1)];
  const { rows } = run(c, log, { rows: true });
  step(c, one, rows!.keys[finding.frame]!, null);
  step(fixed, other, rows!.keys[finding.frame]!, null);
  return one.x !== other.x || one.y !== other.y || one.facing !== other.facing;
}

it("a finding is true where it says, and is gone when the setting that it names is cured", () => {
  const seen: Record<string, number> = {};
  // What these do to a frame can be seen in that frame alone; a body or a buffer changes what went before it.
  const inOneFrame: readonly string[] = ["response", "diagonal", "idle"];
  fc.assert(
    fc.property(
      anyRows,
      anyGait,
      anyLog,
      fc.constantFrom(undefined, undefined, ["mist"]),
      (rows, gait, anyKeys, blockedBy) => {
        // A lost turn wants a slow walker and short taps, and is rare among random keys.
        const taps = gait.gait === "glide" && gait.glide?.carry === true;
        const options: TinyOptions = taps ? { ...gait, glide: { ...gait.glide, speed: 1, arrive: "land" } } : gait;
        const log = taps
          ? {
              ...anyKeys,
              lines: anyKeys.lines.map((line) =>
                line.kind === "keys" ? { ...line, count: 1 + (line.count % 5) } : line,
              ),
            }
          : anyKeys;
        const world = thin(tinyWorld(rows, blockedBy ? { ...options, blockedBy } : options));
        for (const finding of logFindings(compile(world), log)) {
          const { kind, path } = finding;
          seen[kind] = (seen[kind] ?? 0) + 1;
          const gone = finding.cures.filter(
            (cure) =>
              !logFindings(compile(changedWorld(world, "main", cure)), log).some(
                (again) => again.kind === kind && again.path === path,
              ),
          );
          expect(gone, `${finding.text}; cures ${JSON.stringify(finding.cures)}`).not.toEqual([]);
          if (inOneFrame.some((name) => path.endsWith(name))) {
            const contact = finding.cures.find(({ value }) => value === "contact") ?? finding.cures[0]!;
            expect(differsThere(world, log, finding, changedWorld(world, "main", contact)), finding.text).toBe(true);
          }
        }
      },
    ),
    { ...FIXED, numRuns: 1500 },
  );
  told("findings", seen);
  expect(Object.keys(seen)).toHaveLength(11);
  expect(Math.min(...Object.values(seen))).toBeGreaterThan(3);
});
