import { quoted } from "../base/quoted.ts";
import { RefusedError } from "../base/refused-error.ts";
import { UNITS_PER_PX } from "../base/units.ts";
import { wholeNumber } from "../checks/words.ts";
import { PLAIN_GAME } from "../world/game.ts";
import type { Game } from "../world/game.ts";
import type { Body, Rules, World } from "../world/world.ts";
import type { CsvTable } from "./csv-table.ts";

/** Nobody's position is further away than this, in px. */
const FARTHEST = 1_000_000;

/** Where a game's walker was: a row for each frame, or only where something changes. As in our own traces. */
export interface GameTrace {
  readonly count: number;
  /** In order; 0 is the start. */
  readonly frames: Int32Array;
  /** Numbers of rooms. */
  readonly rooms: Uint8Array;
  /** The corner of the frame-square in units of the room. */
  readonly x: Int32Array;
  readonly y: Int32Array;
}

/** Whether a game says where its walker is. */
export function hasPlaces({ columns }: Pick<Game, "columns">): boolean {
  return columns.x !== null && columns.y !== null;
}

/** Our own traces (formats.md section 3), as those of a game. */
export const OUR_TRACES: Game = {
  ...PLAIN_GAME,
  id: "keen-pebble",
  name: "Keen Pebble",
  columns: { frame: "frame", x: "x", y: "y", room: "room", keys: "keys" },
  unit: "units",
  tolerance: 0,
};

/** The game whose columns a table has, and that says where its walker is: the first of some, or our own; null for none. */
export function gameOfTrace(games: readonly Game[], table: Pick<CsvTable, "columns">): Game | null {
  const isOf = ({ columns }: Game): boolean =>
    [columns.frame, columns.x, columns.y, columns.room].every(
      (column) => column === null || table.columns.includes(column),
    );
  return [...games, OUR_TRACES].find((game) => hasPlaces(game) && isOf(game)) ?? null;
}

/**
 * Where a game's walker was, out of its table (formats.md section 9). With `yUp` a corner is the lower left one. Frames
 * before the start are left out.
 * @param rules whose body the position may name
 * @throws {RefusedError} with the line, the column and what was expected
 */
export function gameTrace(table: CsvTable, game: Game, world: World, rules: Rules, name = "the trace"): GameTrace {
  const refuse = (line: number, place: string, message: string): never => {
    throw new RefusedError(name, [{ place, line, column: null, message }]);
  };
  const { columns } = game;
  const at = (column: string | null): number => (column === null ? -1 : table.columns.indexOf(column));
  for (const column of [columns.frame, columns.x, columns.y, columns.room])
    if (column !== null && at(column) < 0) refuse(1, "header", `lacks the column ${quoted(column)}`);
  if (!hasPlaces(game)) refuse(1, "header", "has no columns that say where the walker is");
  if (table.rows.length === 0) refuse(1, "", "expected a row for at least one frame");
  const [frameAt, xAt, yAt, roomAt] = [at(columns.frame), at(columns.x), at(columns.y), at(columns.room)];
  const roomOf = roomsOf(world, game);
  const placed = placing(game, world, rules);
  const made = {
    frames: new Int32Array(table.rows.length),
    rooms: new Uint8Array(table.rows.length),
    x: new Int32Array(table.rows.length),
    y: new Int32Array(table.rows.length),
  };
  let count = 0;
  let last = -Infinity;
  table.rows.forEach((row, i) => {
    const line = i + 2;
    const number = frameAt < 0 ? i + 1 : wholeNumber(row[frameAt]!.trim());
    if (number === null) return refuse(line, columns.frame!, `expected a frame number, found ${quoted(row[frameAt]!)}`);
    if (number <= last) refuse(line, columns.frame ?? "frame", `frame ${number} is not after the row before`);
    last = number;
    const room = roomAt < 0 ? roomOf(null) : roomOf(row[roomAt]!.trim());
    if (room < 0) return refuse(line, columns.room!, `expected a room of the world, found ${quoted(row[roomAt]!)}`);
    const [x, y] = [numberIn(row[xAt]!), numberIn(row[yAt]!)];
    if (x === null) return refuse(line, columns.x!, `expected a number, found ${quoted(row[xAt]!)}`);
    if (y === null) return refuse(line, columns.y!, `expected a number, found ${quoted(row[yAt]!)}`);
    const [px, py] = placed(x, y, world.rooms[room]!.height * world.tileSize);
    for (const [at_, column] of [
      [px, columns.x!],
      [py, columns.y!],
    ] as const)
      if (Math.abs(at_) > FARTHEST) refuse(line, column, `expected a position within ${FARTHEST} px, found ${at_}`);
    if (number + game.frameOffset < 0) return;
    made.frames[count] = number + game.frameOffset;
    made.rooms[count] = room;
    made.x[count] = Math.round(px * UNITS_PER_PX);
    made.y[count] = Math.round(py * UNITS_PER_PX);
    count++;
  });
  const { frames, rooms, x, y } = made;
  const cut = {
    frames: frames.slice(0, count),
    rooms: rooms.slice(0, count),
    x: x.slice(0, count),
    y: y.slice(0, count),
  };
  return { count, ...cut };
}

/** A number as games write it; null where it is none. */
function numberIn(text: string): number | null {
  const plain = text.trim();
  return /^[-+]?(\d{1,12}(\.\d{0,20})?|\.\d{1,20})(e[-+]?\d{1,3})?$/i.test(plain) ? Number(plain) : null;
}

/** The number of a room by what the game calls it, or by its own name; -1 for none. Without names it is the start's. */
function roomsOf(world: World, game: Game): (called: string | null) => number {
  const ids = new Map(world.rooms.map(({ id }, i) => [id, i]));
  const named = new Map(Object.entries(game.rooms).map(([called, id]) => [called, ids.get(id) ?? -1]));
  return (called) => (called === null ? ids.get(world.start.room)! : (named.get(called) ?? ids.get(called) ?? -1));
}

/** What makes the corner of the frame-square in px out of a position in the file. */
function placing(
  { unit, origin, anchor, yUp }: Game,
  { tileSize }: World,
  { walker }: Rules,
): (x: number, y: number, height: number) => readonly [x: number, y: number] {
  const scale = unit === "px" ? 1 : unit === "units" ? 1 / UNITS_PER_PX : tileSize;
  const [left, top, width, height] = anchor.startsWith("body") ? boundsOf(walker.body) : [0, 0, tileSize, tileSize];
  const centred = anchor === "centre" || anchor === "body-centre";
  return (x, y, roomHeight) => {
    const [px, py] = [(x + origin[0]) * scale, (y + origin[1]) * scale];
    const fromLeft = left + (centred ? width / 2 : 0);
    // From below, a corner is the lower one.
    const fromTop = top + (centred ? height / 2 : yUp ? height : 0);
    return [px - fromLeft, (yUp ? roomHeight - py : py) - fromTop];
  };
}

/** The box round a body, in px of the frame-square. */
function boundsOf(body: Body): readonly [left: number, top: number, width: number, height: number] {
  if (body.kind === "box") return body.box;
  const [xs, ys] = [body.points.map(([x]) => x), body.points.map(([, y]) => y)];
  const [left, top] = [Math.min(...xs), Math.min(...ys)];
  return [left, top, Math.max(...xs) - left, Math.max(...ys) - top];
}
