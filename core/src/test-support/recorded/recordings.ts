import fc from "fast-check";
import { guessPlacing, roomsCalled } from "../../analysis/guess-placing.ts";
import { gameOf } from "../../formats/game-log.ts";
import { readGameTable } from "../../formats/game-table.ts";
import { gameTrace } from "../../formats/game-trace.ts";
import { guessGame, keysIn } from "../../formats/guess-game.ts";
import { logOfTable, readRecording } from "../../formats/read-recording.ts";
import { run } from "../../replay/run.ts";
import type { Compiled } from "../../compiled/compiled.ts";
import type { InputLog } from "../../logs/input-log.ts";
import type { TraceRows } from "../../simulation/trace.ts";
import { ANCHORS, GAME_UNITS, PLAIN_GAME } from "../../world/game.ts";
import type { Game } from "../../world/game.ts";
import { keysText } from "../../world/keys.ts";
import type { Questions } from "./given.ts";
import { SEED, answered, eachLog } from "./given.ts";

/** What games of other people would have written of a run's first frames: each in a way of its own. */
function writtenBy(c: Compiled, log: InputLog): { readonly rows: TraceRows; readonly files: readonly string[] } {
  const rows = run(c, log, { rows: true }).rows!;
  const frames = Array.from({ length: Math.min(rows.count, 60) }, (_, frame) => frame);
  const side = c.world.tileSize * 256;
  const table = (header: string, by: string, rowOf: (frame: number) => readonly (string | number)[]): string =>
    [header.replaceAll(",", by), ...frames.map((frame) => rowOf(frame).join(by))].join("\n");
  const keysOf = (frame: number): string => keysText(rows.keys[frame]!);
  const roomOf = (frame: number) => c.world.rooms[rows.room[frame]!]!;
  const files = [
    table("frame,keys", ",", (frame) => [frame, keysOf(frame)]),
    table("Tick,room,pos_x,pos_y,held", ",", (frame) => [
      frame,
      roomOf(frame).name,
      rows.x[frame]! / 256,
      rows.y[frame]! / 256,
      [...keysOf(frame)]
        .filter((key) => key !== ".")
        .map((key) => `KEY_${key}`)
        .join("+"),
    ]),
    table("y,x,level,pad,t", ";", (frame) => [
      (roomOf(frame).height * side - rows.y[frame]!) / side,
      rows.x[frame]! / side,
      rows.room[frame]!,
      rows.keys[frame]!,
      frame + 1,
    ]),
    table("left,right,up,down,btn_a,x,y", "\t", (frame) => [
      ...[1, 2, 4, 8, 16].map((bit) => ((rows.keys[frame]! & bit) > 0 ? 1 : 0)),
      rows.x[frame]!,
      rows.y[frame]!,
    ]),
    frames
      .filter((frame) => frame > 0 && rows.keys[frame] !== rows.keys[frame - 1])
      .map((frame) => JSON.stringify({ frame, input: [...keysOf(frame)], area: roomOf(frame).id }))
      .join("\n"),
  ];
  return { rows, files };
}

/** A game that is guessed, what it reads and where it is told to be. */
function readAs(c: Compiled, rows: TraceRows, text: string): unknown {
  const table = readGameTable(text);
  const guessed = guessGame(table, "own", "Own");
  const placed = answered(() => guessPlacing(table, guessed, c.world, c.rules, () => rows)) as Game;
  return [
    guessed,
    placed,
    roomsCalled(table, guessed),
    table.columns.map((column) => keysIn(table, column)),
    gameOf([placed], table)?.id,
    answered(() => logOfTable(table, [placed], "it")),
    answered(() => gameTrace(table, placed, c.world, c.rules)),
  ];
}

/** Of recordings that games made. */
export const RECORDINGS: Questions = {
  "recordings of a game": (given) =>
    eachLog(given, (log, c) => {
      const { rows, files } = writtenBy(c, log);
      return files.map((text) => answered(() => readAs(c, rows, text)));
    }),
  "damaged recordings": (given) =>
    eachLog({ ...given, logs: given.logs.slice(0, 1) }, (log, c) => {
      const { rows, files } = writtenBy(c, log);
      return fc
        .sample(
          fc.tuple(
            fc.constantFrom(...files),
            fc.nat(400),
            fc.constantFrom("", "x", "9", " ", "\n", ",", ";", "-", ".", "{", '"', "[]", "999999999", "1e300"),
          ),
          { seed: SEED, numRuns: 12 },
        )
        .map(([file, at, put]) => file.slice(0, at % file.length) + put + file.slice((at % file.length) + 1))
        .map((text) => [answered(() => readRecording(text, [])), answered(() => readAs(c, rows, text))]);
    }),
  "what a place means": (given) =>
    eachLog(given, (log, c) => {
      const table = readGameTable(writtenBy(c, log).files[3]!);
      return ANCHORS.flatMap((anchor, i) =>
        [false, true].map((yUp) => {
          const columns = { frame: null, x: "x", y: "y", room: null, keys: null };
          const how = { ...PLAIN_GAME, id: "own", name: "Own", columns, anchor, yUp, unit: GAME_UNITS[i % 3]! };
          return answered(() => gameTrace(table, { ...how, origin: [i, 2 * i], frameOffset: -i }, c.world, c.rules));
        }),
      );
    }),
};
