import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { compile } from "../simulation/compile.ts";
import { run } from "../replay/run.ts";
import { EMPTY_LOG } from "../logs/input-log.ts";
import { gameTrace } from "../formats/game-trace.ts";
import { FIXED } from "../test-support/arbitraries.ts";
import { tinyLog, tinyWorld } from "../test-support/tiny-world.ts";
import { ANCHORS, GAME_UNITS, PLAIN_GAME } from "../world/game.ts";
import type { Game } from "../world/game.ts";
import { guessPlacing, roomsCalled } from "./guess-placing.ts";

const world = tinyWorld(["S......", ".......", "..#....", "......."], {
  gait: "roam",
  body: { kind: "box", box: [3, 4, 8, 10], flush: "free" },
  roam: { speedX: 2, speedY: 3 },
});
const rules = world.rules[0]!;
const log = tinyLog("20 R, 12 D, 9 L, 6 ., 5 U");
const { rows } = run(compile(world), log, { rows: true });
const columns: Game["columns"] = { frame: "t", x: "x", y: "y", room: null, keys: null };

/** What a game would write whose walker goes as ours does. */
function written(game: Game, first: number) {
  const scale = game.unit === "px" ? 256 : game.unit === "units" ? 1 : 4096;
  const [left, top, right, bottom] = game.anchor.startsWith("body") ? [3, 4, 11, 14] : [0, 0, 16, 16];
  const centred = game.anchor.endsWith("centre");
  const table = [];
  for (let frame = first; frame < rows!.count; frame++) {
    const x = rows!.x[frame]! / 256 + left + (centred ? (right - left) / 2 : 0);
    const fromTop = rows!.y[frame]! / 256 + top + (centred ? (bottom - top) / 2 : game.yUp ? bottom - top : 0);
    const y = game.yUp ? 4 * 16 - fromTop : fromTop;
    table.push([String(frame - first), String((x * 256) / scale), String((y * 256) / scale)]);
  }
  return { columns: ["t", "x", "y"], rows: table };
}

describe("what a game's places mean", () => {
  it("is guessed from a run of the same keys: units, y up or down, all anchors, the first frame", () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...GAME_UNITS),
        fc.boolean(),
        fc.constantFrom(...ANCHORS),
        fc.constantFrom(0, 1),
        (unit, yUp, anchor, first) => {
          const wrote: Game = { ...PLAIN_GAME, id: "g", name: "G", columns, unit, yUp, anchor };
          const table = written(wrote, first);
          const guessed = guessPlacing(
            table,
            { ...PLAIN_GAME, id: "g", name: "G", columns },
            world,
            rules,
            () => rows!,
          );
          const trace = gameTrace(table, guessed, world, rules);
          // Another reading that gives the same places is as good.
          for (let i = 0; i < trace.count; i++) {
            const frame = trace.frames[i]!;
            expect([trace.x[i], trace.y[i]]).toEqual([rows!.x[frame], rows!.y[frame]]);
          }
          expect(guessed.frameOffset).toBe(first);
        },
      ),
      FIXED,
    );
  });

  it("is what the first frames agree with, however near another reading comes once the game goes its own way", () => {
    const blank: Game = { ...PLAIN_GAME, id: "g", name: "G", columns };
    const own = written({ ...blank, unit: "px", anchor: "corner" }, 0);
    const mirrored = written({ ...blank, unit: "px", anchor: "corner", yUp: true }, 0);
    // Rounded by three quarters of a px; from the tenth frame on its places are those of the other reading, exactly.
    const rows = own.rows.map((row, i) =>
      i < 10 ? [row[0]!, String(Number(row[1]) + 0.75), row[2]!] : mirrored.rows[i]!,
    );
    const guessed = guessPlacing(
      { ...own, rows },
      blank,
      world,
      rules,
      () => run(compile(world), log, { rows: true }).rows!,
    );
    expect(guessed).toMatchObject({ yUp: false, unit: "px", anchor: "corner", frameOffset: 0 });
  });

  it("leaves a game without places as it is", () => {
    const game: Game = { ...PLAIN_GAME, id: "g", name: "G", columns: { ...columns, x: null, y: null } };
    expect(guessPlacing({ columns: ["t"], rows: [["1"]] }, game, world, rules, () => rows!)).toBe(game);
  });

  it("finds rooms by name, by id and by number", () => {
    const house = {
      ...world,
      rooms: ["Intake hall", "Loft"].map((name, i) => ({ ...world.rooms[0]!, id: `r-${i}`, name })),
    };
    const start = { ...house.start, room: "r-0" };
    const table = {
      columns: ["x", "y", "room"],
      rows: ["intake_hall", "1", "r-0", "nowhere"].map((room) => ["0", "0", room]),
    };
    const game: Game = {
      ...PLAIN_GAME,
      id: "g",
      name: "G",
      columns: { frame: null, x: "x", y: "y", room: "room", keys: null },
    };
    const still = run(compile({ ...house, start }), EMPTY_LOG, { rows: true }).rows!;
    const guessed = guessPlacing(table, game, { ...house, start }, rules, () => still);
    expect(guessed.rooms).toEqual({ intake_hall: "r-0", "1": "r-1" });
    expect(roomsCalled(table, game)).toEqual(["intake_hall", "1", "r-0", "nowhere"]);
    expect(roomsCalled(table, { columns })).toEqual([]);
  });
});
