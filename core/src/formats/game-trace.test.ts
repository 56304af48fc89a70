import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { RefusedError } from "../base/refused-error.ts";
import { FIXED } from "../test-support/arbitraries.ts";
import { tinyWorld } from "../test-support/tiny-world.ts";
import { told } from "../test-support/told.ts";
import { ANCHORS, GAME_UNITS, PLAIN_GAME } from "../world/game.ts";
import type { Game } from "../world/game.ts";
import type { World } from "../world/world.ts";
import { readGameTable } from "./game-table.ts";
import { gameTrace } from "./game-trace.ts";

const BODY = { kind: "box", box: [2, 4, 12, 10], flush: "free" } as const;
const base = tinyWorld(["S...", "...."], { body: BODY });
const world: World = {
  ...base,
  rooms: [base.rooms[0]!, { ...base.rooms[0]!, id: "b", height: 1, cells: base.rooms[0]!.cells.slice(0, 4) }],
};
const rules = world.rules[0]!;
const T = world.tileSize;

/** Rows in quarters of a px, so that every unit writes them exactly. */
const anyRows = fc.uniqueArray(
  fc.record({
    frame: fc.nat(500),
    room: fc.constantFrom(0, 1),
    x: fc.integer({ min: -80, max: 400 }),
    y: fc.integer({ min: -80, max: 200 }),
  }),
  { minLength: 1, maxLength: 12, selector: ({ frame }) => frame },
);
const anyGame = fc.record({
  unit: fc.constantFrom(...GAME_UNITS),
  anchor: fc.constantFrom(...ANCHORS),
  yUp: fc.boolean(),
  origin: fc.constantFrom<readonly [number, number]>([0, 0], [8, -16], [1.5, 0.25]),
  frameOffset: fc.constantFrom(0, -1, -60),
  hasFrames: fc.boolean(),
  hasRooms: fc.boolean(),
  hasKeys: fc.boolean(),
});
const anyFile = fc.constantFrom("csv" as const, "semicolons" as const, "tabs" as const, "jsonl" as const);

type Written = (typeof anyGame extends fc.Arbitrary<infer G> ? G : never) & { readonly game: Game };

function gameFor(made: Omit<Written, "game">): Game {
  const { hasFrames, hasRooms, hasKeys, ...more } = made;
  return {
    ...PLAIN_GAME,
    ...more,
    id: "own",
    name: "Own",
    columns: {
      frame: hasFrames ? "tick" : null,
      x: "px",
      y: "py",
      room: hasRooms ? "level" : null,
      keys: hasKeys ? "pad" : null,
    },
    rooms: { "0": "a" },
    frameOffset: hasFrames ? more.frameOffset : -1,
  };
}

/** A position as another program has it: written from its rules in words, not from the reader's. */
function theirs({ unit, anchor, yUp, origin }: Game, room: number, x: number, y: number): readonly [number, number] {
  const box = anchor.startsWith("body") ? BODY.box : ([0, 0, T, T] as const);
  const middle = anchor.endsWith("centre");
  const px = x + box[0] + (middle ? box[2] / 2 : 0);
  const fromTop = y + box[1] + (middle ? box[3] / 2 : yUp ? box[3] : 0);
  const py = yUp ? world.rooms[room]!.height * T - fromTop : fromTop;
  const per = unit === "px" ? 1 : unit === "units" ? 1 / 256 : T;
  return [px / per - origin[0], py / per - origin[1]];
}

function fileOf(columns: readonly string[], rows: readonly (readonly string[])[], kind: string): string {
  if (kind === "jsonl")
    return rows.map((row) => JSON.stringify(Object.fromEntries(columns.map((name, i) => [name, row[i]])))).join("\n");
  const by = kind === "csv" ? "," : kind === "tabs" ? "\t" : ";";
  return [columns, ...rows].map((row) => row.join(by)).join("\r\n");
}

function written(made: Omit<Written, "game">, rows: readonly { frame: number; room: number; x: number; y: number }[]) {
  const game = gameFor(made);
  const columns = [
    ...(made.hasFrames ? ["tick"] : []),
    "py",
    ...(made.hasRooms ? ["level"] : []),
    "px",
    ...(made.hasKeys ? ["pad"] : []),
  ];
  const ordered = [...rows].sort((a, b) => a.frame - b.frame);
  const texts = ordered.map(({ frame, room, x, y }) => {
    const in_ = made.hasRooms ? room : 0;
    const [px, py] = theirs(game, in_, x / 4, y / 4);
    return [
      ...(made.hasFrames ? [String(frame - game.frameOffset)] : []),
      String(py),
      ...(made.hasRooms ? [in_ === 0 ? "0" : "b"] : []),
      String(px),
      ...(made.hasKeys ? ["LEFT FIRE"] : []),
    ];
  });
  return { game, columns, texts, ordered };
}

describe("a trace of one's own game", () => {
  it("is read as what it was, whatever its units, anchor, direction, columns and file", () => {
    const seen = { rows: 0, up: 0, cells: 0 };
    fc.assert(
      fc.property(anyGame, anyRows, anyFile, (made, rows, kind) => {
        const { game, columns, texts, ordered } = written(made, rows);
        const trace = gameTrace(readGameTable(fileOf(columns, texts, kind), "t"), game, world, rules);
        const wanted = ordered.map(({ frame, room, x, y }, i) => [
          made.hasFrames ? frame : i,
          made.hasRooms ? room : 0,
          x * 64,
          y * 64,
        ]);
        const got = Array.from({ length: trace.count }, (_, i) => [
          trace.frames[i],
          trace.rooms[i],
          trace.x[i],
          trace.y[i],
        ]);
        expect(got).toEqual(wanted);
        seen.rows += trace.count;
        if (game.yUp) seen.up++;
        if (game.unit === "cells") seen.cells++;
      }),
      { ...FIXED, numRuns: 2000 },
    );
    told("traces", seen);
    expect(Math.min(seen.up, seen.cells)).toBeGreaterThan(400);
  });

  it("that is damaged is refused with the line and the column, where it is not still in order", () => {
    const seen = { refused: 0, whole: 0 };
    const anyDamage = fc.record({
      row: fc.nat(11),
      column: fc.nat(4),
      text: fc.constantFrom("", "x", "1e999", "NaN", "1,5", "--1", "99999999", "2147483648", "nowhere", "0x10"),
    });
    fc.assert(
      fc.property(anyGame, anyRows, anyDamage, (made, rows, damage) => {
        const { game, columns, texts } = written(made, rows);
        const [row, column] = [damage.row % texts.length, damage.column % columns.length];
        const damaged = texts.map((each, i) =>
          i === row ? each.map((f, n) => (n === column ? damage.text : f)) : each,
        );
        try {
          gameTrace(readGameTable(fileOf(columns, damaged, "tabs"), "t"), game, world, rules);
          // What no column says is not looked at, and a frame or a place may be another one.
          expect(["pad", "tick", "px", "py"]).toContain(columns[column]);
          seen.whole++;
        } catch (error) {
          if (!(error instanceof RefusedError)) throw error;
          const [fault] = error.refusals;
          // A frame that is now too late is seen at the row after it.
          expect(fault!.line! - row - 2).toBeGreaterThanOrEqual(0);
          expect(fault!.line! - row - 2).toBeLessThanOrEqual(columns[column] === "tick" ? 1 : 0);
          expect(fault!.place).toBe(columns[column]);
          seen.refused++;
        }
      }),
      { ...FIXED, numRuns: 2000 },
    );
    told("damaged traces", seen);
    expect(seen.refused).toBeGreaterThan(1000);
  });

  it.each([
    ["tick,px\n1,2", 'lacks the column "py"'],
    ["tick,px,py", "expected a row for at least one frame"],
    ["tick,px,py\n5,1,1\n5,1,1", "line 3: tick: frame 5 is not after the row before"],
    ["tick,px,py\n5,1,2e9", "line 2: py: expected a position within 1000000 px"],
  ])("%j is refused", (text, message) => {
    const game = gameFor({
      unit: "px",
      anchor: "corner",
      yUp: false,
      origin: [0, 0],
      frameOffset: 0,
      hasFrames: true,
      hasRooms: false,
      hasKeys: false,
    });
    expect(() => gameTrace(readGameTable(text, "t"), game, world, rules)).toThrow(message);
  });
});
