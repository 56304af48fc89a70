import { bodyMeetsCell, cellsOfBody } from "../ground/free.ts";
import { WALL, WEST, EAST, NORTH, SOUTH, edgeRuleAt } from "../ground/compiled-room.ts";
import type { Account, TestedPlace } from "../movement/account.ts";
import { newAccount } from "../movement/account.ts";
import type { Compiled } from "./compiled.ts";
import { eventName } from "./event-text.ts";
import type { SimState } from "./state.ts";
import { STATUS_NAMES } from "./state.ts";
import { step } from "./step.ts";

/** One cell that a tested place covers, and what it said. */
export interface TestedCell {
  readonly cx: number;
  readonly cy: number;
  /** Number of the tile that stands there, -1 for what lies beyond a wall side. */
  readonly tile: number;
  readonly blocks: boolean;
}

export interface ExplainedPlace extends TestedPlace {
  readonly cells: readonly TestedCell[];
}

/** What each stage of one frame saw and decided, as plain data (interface.md, frame anatomy). */
export interface Explanation {
  readonly frame: number;
  readonly room: number;
  readonly held: number;
  readonly pressed: number;
  readonly hasPointer: boolean;
  readonly raw: readonly [number, number];
  readonly intent: readonly [number, number];
  readonly second: readonly [number, number];
  /** Position before and after the frame, in units. */
  readonly from: readonly [number, number];
  readonly to: readonly [number, number];
  readonly leg: readonly [number, number];
  readonly gone: number;
  /** Progress of the leg that ended in this frame, or null. */
  readonly arrivedAfter: number | null;
  readonly reverse: { readonly place: ExplainedPlace; readonly turned: boolean } | null;
  readonly choices: readonly (readonly { readonly source: string; readonly dx: number; readonly dy: number; readonly taken: boolean; readonly places: readonly ExplainedPlace[] }[])[];
  /** What a free movement wanted and travelled along each axis, in units; null for the gaits of the grid. */
  readonly free: Account["free"];
  /** The first cell that blocked: of the first candidate of a choice in which nothing was free, or of a free movement; or null. */
  readonly stoppedBy: TestedCell | null;
  readonly bumping: boolean;
  readonly events: readonly string[];
  readonly facing: number;
  readonly pose: number;
  readonly moving: boolean;
  readonly status: (typeof STATUS_NAMES)[number];
}

/**
 * Explains one frame: steps the state with the very code of the simulation and says what each stage saw and decided.
 * @param state the state before the frame; it is stepped
 * @param held buttons held in the frame
 */
export function explain(c: Compiled, state: SimState, held: number): Explanation {
  const account = newAccount();
  const room = state.room;
  const from = [state.x, state.y] as const;
  step(c, state, held, account);
  return { ...describe(c, state), from, ...accountOf(c, room, account) };
}

/** Explains row 0, in which nothing has moved yet. */
export function explainStart(c: Compiled, state: SimState): Explanation {
  return { ...describe(c, state), from: [state.x, state.y], arrivedAfter: null, reverse: null, choices: [], free: null, stoppedBy: null };
}

function describe(c: Compiled, s: SimState) {
  const events: string[] = [];
  for (let i = 0; i < s.eventCount; i++) events.push(eventName(c, s.eventKinds[i]!, s.eventSubjects[i]!));
  return {
    frame: s.frame,
    room: s.room,
    held: s.held,
    pressed: s.pressed,
    hasPointer: s.hasPointer,
    raw: [s.rawX, s.rawY],
    intent: [s.intentX, s.intentY],
    second: [s.secondX, s.secondY],
    to: [s.x, s.y],
    leg: [s.legX, s.legY],
    gone: s.gone,
    bumping: s.bumping,
    events,
    facing: s.facing,
    pose: s.pose,
    moving: s.moving,
    status: STATUS_NAMES[s.status]!,
  } as const;
}

function accountOf(c: Compiled, room: number, account: Account) {
  const choices = account.choices.map((candidates) =>
    candidates.map(({ source, dx, dy, taken, places }) => ({ source, dx, dy, taken, places: places.map((place) => explainPlace(c, room, place)) })),
  );
  const failed = choices.find((candidates) => candidates.length > 0 && candidates.every((candidate) => !candidate.taken));
  const stop = account.free?.stop ?? null;
  const ended = account.advances.find((advance) => advance.ended);
  return {
    arrivedAfter: ended ? ended.gone : null,
    reverse: account.reverse && { place: explainPlace(c, room, account.reverse.place), turned: account.reverse.turned },
    choices,
    free: account.free,
    stoppedBy: failed?.[0]?.places.flatMap((place) => place.cells).find((cell) => cell.blocks) ?? (stop ? { ...stop, tile: tileAt(c, room, stop.cx, stop.cy), blocks: true } : null),
  };
}

function explainPlace(c: Compiled, room: number, place: TestedPlace): ExplainedPlace {
  const cells = cellsOfBody(c, place.x, place.y).map(({ cx, cy }) => ({
    cx,
    cy,
    tile: tileAt(c, room, cx, cy),
    blocks: bodyMeetsCell(c, room, place.x, place.y, cx, cy),
  }));
  return { ...place, cells };
}

/** The tile at a cell as seen from a room, -1 where a wall side stands before it. */
function tileAt(c: Compiled, roomNumber: number, cellX: number, cellY: number): number {
  const room = c.rooms[roomNumber]!;
  let cx = cellX;
  let cy = cellY;
  if (cx < 0 || cx >= room.width) {
    if (edgeRuleAt(room, cx < 0 ? WEST : EAST, cy) === WALL) return -1;
    cx += cx < 0 ? room.width : -room.width;
  }
  if (cy < 0 || cy >= room.height) {
    if (edgeRuleAt(room, cy < 0 ? NORTH : SOUTH, cx) === WALL) return -1;
    cy += cy < 0 ? room.height : -room.height;
  }
  return c.world.rooms[roomNumber]!.cells[cy * room.width + cx] ?? -1;
}
