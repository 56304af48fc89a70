import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { BUTTONS, PLAIN_GAME } from "../world/game.ts";
import type { Button, Game } from "../world/game.ts";
import { keysText } from "../world/keys.ts";
import { writeLog } from "../logs/write-log.ts";
import { tinyWorld } from "../test-support/tiny-world.ts";
import { guessGame } from "./guess-game.ts";
import { gameLog } from "./game-log.ts";
import { readGameTable } from "./game-table.ts";
import { readRecording } from "./read-recording.ts";
import { readWorld } from "./read-world.ts";
import { writeWorld } from "./write-world.ts";

const game = (part: Partial<Game>): Game => ({
  ...PLAIN_GAME,
  id: "own",
  name: "Own game",
  columns: { frame: "tick", x: null, y: null, room: null, keys: "pad" },
  ...part,
});
const linesOf = (text: string, as: Game): string =>
  writeLog(gameLog(readGameTable(text), as))
    .split("---\n")[1]!
    .trim()
    .replaceAll("\n", ",");
const guessed = (text: string): string => {
  const table = readGameTable(text);
  return linesOf(text, guessGame(table, "own", "Own"));
};

describe("what a game wrote down is a log", () => {
  it.each([
    ["names of keys, parted in any way", 'tick,pad\n1,LEFT\n3,"LEFT+FIRE"\n4,UP|menu\n5,\n', "2 L,1 LA,1 U,1 ."],
    ["frames that are counted from anywhere", "tick,pad\n7,LEFT\n9,UP\n10,\n", "2 L,1 U,1 ."],
    ["frames that are counted from 0", "tick,pad\n0,LEFT\n2,UP\n3,\n", "2 L,1 U,1 ."],
    ["numbers whose bits are keys, of which one is ever pressed", "tick,pad\n1,1\n3,0\n", "2 L,1 ."],
    ["semicolons, and a row a frame", "pad;score\nright;0\nright down;1\n.;1\n", "1 R,1 RD,1 ."],
    ["tabs, beginning at frame 0", "frame\tkeys held\tinput\n0\t\tKEY_UP\n2\t\tKEY_UP KEY_RIGHT\n", "2 U,1 RU"],
    ["bits of a number, hexadecimal too", "n,buttons\n10,1\n11,0x12\n12,0\n", "1 L,1 RA,1 ."],
    ["a column a key", "frame,left,right,up,down,fire,x\n1,1,0,0,0,0,12.5\n2,true,false,,no,yes,14\n", "1 L,1 LA"],
    ["an object a line", '{"tick":1,"keys":["ArrowLeft","Space"]}\n\n{"tick":4,"keys":[]}\n', "3 LA,1 ."],
    ["letters of ours", "frame,keys\n1,L\n2,R\n", "1 L,1 R"],
  ])("%s", (_what, text, lines) => expect(guessed(text)).toBe(lines));

  it("as a world's own game says, names in any case; what has no button presses none", () => {
    const own = game({ keys: { go_w: "L", go_e: "R", Jump: "A" }, frameOffset: -99 });
    expect(linesOf("tick,pad,extra\n99,go_e,1\n100,GO_E jump,1\n103,dance,2\n", own)).toBe("3 RA,1 .");
    const bits = game({ keys: { "0x100": "U", "1": "D" } });
    expect(linesOf("tick,pad\n1,257\n2,256\n3,2\n", bits)).toBe("1 UD,1 U,1 .");
  });

  it.each([
    ["tick,pad\n1,a\n1,b\n", "line 3: tick: frame 1 is not after the row before"],
    ["tick,pad\nx,a\n", 'line 2: tick: expected a frame number, found "x"'],
    ["tick,pad\n", "line 1: expected a row for at least one frame"],
    ["tick,keys\n1,a\n", 'line 1: header: lacks the column "pad"'],
    ["tick,pad\n20000001,a\n", "is too late: a log has at most"],
    ["tick,pad\n1\n", "line 2: expected 2 fields as in the header, found 1"],
    ['{"tick":1,"pad":{}}', "line 1: pad: expected a text, a number or a list of them"],
    ['{"tick":1}\n[1]\n', "line 2: expected an object"],
    ['{"tick":1}\n{"tick":\n', "line 2: is no JSON"],
  ])("%j is refused with its place", (text, message) =>
    expect(() => gameLog(readGameTable(text), game({}))).toThrow(message),
  );

  it("is refused where a column a key, or a number, holds something else", () => {
    const columns = { frame: null, x: null, y: null, room: null, keys: { up: "U" as const } };
    expect(() => gameLog(readGameTable("up,down\n0,0\nmaybe,0\n"), game({ columns }))).toThrow(
      'line 3: keys: up: expected 0 or 1, found "maybe"',
    );
    expect(() => gameLog(readGameTable("tick,pad\n1,high\n"), game({ keys: { "1": "L" } }))).toThrow(
      'expected a number, found "high"',
    );
  });
});

const anyFrames = fc.array(fc.integer({ min: 0, max: 63 }), { minLength: 1, maxLength: 60 });

it("a recording in any notation is the frames that it was made from", () => {
  fc.assert(
    fc.property(
      anyFrames,
      fc.constantFrom("names", "bits", "columns", "lines"),
      fc.boolean(),
      (frames, how, sparse) => {
        const NAMES = ["left", "right", "up", "down", "fire", "cancel"];
        const names = (keys: number): string[] => NAMES.filter((_, i) => keys & (1 << i));
        const rows = frames.flatMap((keys, i) =>
          // The last row always stands: it ends the recording.
          sparse && i > 0 && i < frames.length - 1 && frames[i - 1] === keys ? [] : [[i + 1, keys] as const],
        );
        const text = {
          names: `tick,pad\n${rows.map(([n, keys]) => `${n},${names(keys).join(" ")}\n`).join("")}`,
          bits: `tick;pad\n${rows.map(([n, keys]) => `${n};${keys}\n`).join("")}`,
          columns: `tick,${NAMES.join()}\n${rows.map(([n, keys]) => `${n},${NAMES.map((_, i) => (keys >> i) & 1).join()}\n`).join("")}`,
          lines: rows.map(([n, keys]) => `${JSON.stringify({ tick: n, pad: names(keys) })}\n`).join(""),
        }[how];
        const table = readGameTable(text);
        const bits = Object.fromEntries(BUTTONS.map((button, i): [string, Button] => [String(1 << i), button]));
        const own = { ...guessGame(table, "own", "Own"), ...(how === "bits" ? { keys: bits } : {}) };
        const log = gameLog(table, own);
        const flat = log.lines.flatMap((line) =>
          line.kind === "keys" ? Array.from({ length: line.count }, () => keysText(line.keys)) : [],
        );
        expect(flat).toEqual(frames.map(keysText));
      },
    ),
    { seed: 7, numRuns: 300 },
  );
});

describe("a world that knows games", () => {
  const own = game({ keys: { LEFT: "L" }, rooms: { "0": "a" } });
  const world = { ...tinyWorld(["S."]), games: [own] };

  it("is written and read again, and reads their recordings beside our own", () => {
    expect(readWorld(writeWorld(world))).toEqual(world);
    expect(writeLog(readRecording("pad,tick\nLEFT,1\n,2\n", world.games))).toContain("1 L\n1 .\n");
    expect(writeLog(readRecording("keys,frame\nL,1\n", world.games))).toContain("1 L\n");
    expect(() => readRecording("a,b\n1,2\n", world.games)).toThrow(
      "expected the columns `frame,keys`, or those of Own game, found `a,b`",
    );
  });

  it.each([
    [
      '"keys": { "LEFT": "W" }',
      "games[0].keys: must have names of 1 to 80 characters and one of L, R, U, D, A, B for each; LEFT is",
    ],
    ['"keys": { "__proto__": "L" }', "for each; __proto__ is or has none"],
    ['"rooms": { "0": "No Room" }', "an id of a room for each; 0 is or has none"],
    ['"anchor": "middle"', "games[0].anchor"],
    ['"tolerance": -1', "games[0].tolerance"],
    ['"columns": { "frame": 1 }', "games[0].columns.frame"],
  ])("%s is refused", (part, place) => {
    const least = '{ "id": "own", "name": "Own", "columns": {}';
    const text = (more: string) => writeWorld(world).replace(/("games": \[)[^]*?(\n {2}\],)/, `$1 ${least}${more} }$2`);
    expect(readWorld(text("")).games[0]).toMatchObject({ unit: "px", tolerance: 0.5, columns: { keys: null } });
    expect(() =>
      readWorld(part.startsWith('"columns"') ? text("").replace('"columns": {}', part) : text(`, ${part}`)),
    ).toThrow(place);
  });
});
