import { UNITS_PER_PX } from "../base/units.ts";
import { RefusedError } from "../base/refused-error.ts";
import type { CsvTable } from "../formats/csv-table.ts";
import type { GameTrace } from "../formats/game-trace.ts";
import { gameTrace, hasPlaces } from "../formats/game-trace.ts";
import type { TraceRows } from "../simulation/trace.ts";
import { ANCHORS, GAME_UNITS } from "../world/game.ts";
import type { Game } from "../world/game.ts";
import type { Rules, World } from "../world/world.ts";
import { framesOf } from "./conform.ts";

/** Rows that are looked at for a guess. */
const ROWS = 400;
/** A game's numbers may be rounded by so much, in px. */
const ROUNDED = 1;

/**
 * What a game's places mean, guessed by trying what they could be and comparing with a run of ours: unit, which way y
 * grows, what the position names, and which frame is the first. Nothing is changed where there are no places.
 * @param runOf the run of the same keys, if they are read by that game; or another one that begins where the game's does
 */
export function guessPlacing(
  table: CsvTable,
  game: Game,
  world: World,
  rules: Rules,
  runOf: (game: Game) => TraceRows,
): Game {
  if (!hasPlaces(game)) return game;
  const few = { ...table, rows: table.rows.slice(0, ROWS) };
  let best = withRooms(game, few, world);
  let bestScore: Score = { agreed: -1, far: Infinity };
  for (const later of game.columns.frame === null ? [0] : [0, -1, 1]) {
    const counted = { ...best, frameOffset: game.frameOffset + later };
    const ours = runOf(counted);
    for (const placed of placings(counted)) {
      const score = scoreOf(few, placed, world, rules, ours);
      // A first row that is the start stays it, where another count of frames would tell no more.
      const agreed = (score?.agreed ?? 0) - (placed.frameOffset === 0 ? 0 : 4);
      if (score === null || !isBetter({ ...score, agreed }, bestScore)) continue;
      bestScore = { ...score, agreed };
      best = placed;
    }
  }
  return best;
}

/** The game with all that its places may mean. */
function placings(game: Game): readonly Game[] {
  return [false, true].flatMap((yUp) =>
    GAME_UNITS.flatMap((unit) => ANCHORS.map((anchor): Game => ({ ...game, yUp, unit, anchor }))),
  );
}

/** Frames that agree from the first on, those that do so within half a px counted twice, and how far apart the walkers are in all. */
interface Score {
  readonly agreed: number;
  readonly far: number;
}

function isBetter(one: Score, other: Score): boolean {
  return one.agreed !== other.agreed ? one.agreed > other.agreed : one.far < other.far;
}

function scoreOf(table: CsvTable, game: Game, world: World, rules: Rules, ours: TraceRows): Score | null {
  const trace = readOrNull(table, game, world, rules);
  if (trace === null) return null;
  let agreed = 0;
  let far = 0;
  let [agrees, agreesWholly] = [true, true];
  for (const { frame, at } of framesOf(ours, trace)) {
    const off = Math.max(Math.abs(ours.x[frame]! - trace.x[at]!), Math.abs(ours.y[frame]! - trace.y[at]!));
    agrees &&= ours.room[frame] === trace.rooms[at] && off <= ROUNDED * UNITS_PER_PX;
    agreesWholly &&= agrees && off < UNITS_PER_PX / 2;
    agreed += (agrees ? 1 : 0) + (agreesWholly ? 1 : 0);
    far += off;
  }
  return { agreed, far };
}

function readOrNull(table: CsvTable, game: Game, world: World, rules: Rules): GameTrace | null {
  try {
    return gameTrace(table, game, world, rules);
  } catch (error) {
    if (error instanceof RefusedError) return null;
    throw error;
  }
}

/** What the column of rooms calls them, where it is not their ids: by name, or counted in the order of the world. */
function withRooms(game: Game, { columns, rows }: CsvTable, world: World): Game {
  const { room } = game.columns;
  if (room === null) return game;
  const at = columns.indexOf(room);
  const called = [...new Set(rows.map((row) => row[at]!.trim()))];
  const pairs = called.flatMap((name): (readonly [string, string])[] => {
    if (world.rooms.some(({ id }) => id === name)) return [];
    const plain = (text: string): string => text.toLowerCase().replace(/[^a-z0-9]/g, "");
    const found =
      world.rooms.find((each) => plain(each.name) === plain(name) || plain(each.id) === plain(name)) ??
      (/^\d{1,4}$/.test(name) ? world.rooms[Number(name)] : undefined);
    return found === undefined ? [] : [[name, found.id]];
  });
  return { ...game, rooms: { ...Object.fromEntries(pairs), ...game.rooms } };
}

/** What the column of rooms calls them, each once; none without such a column. */
export function roomsCalled(
  { columns, rows }: CsvTable,
  { columns: { room } }: Pick<Game, "columns">,
): readonly string[] {
  if (room === null) return [];
  const at = columns.indexOf(room);
  return [...new Set(rows.map((row) => row[at]!.trim()))];
}
