import { doorIn } from "../compiled/door-in-cell.ts";
import type { Ground } from "../ground/ground.ts";
import { DOOR, resolveCell, resolved, solidAt } from "../ground/ground.ts";
import type { PlacedShape } from "../ground/cell-shapes.ts";
import { bodyMeets, shapesOfCell } from "../ground/cell-shapes.ts";
import { cellsOfBody } from "../ground/free.ts";
import type { Account, AxisMove, Nudge, TestedPlace } from "../compiled/account.ts";
import { newAccount } from "../compiled/account.ts";
import type { Gaps } from "../movement/gaps.ts";
import { gapsAround } from "../movement/gaps.ts";
import type { Compiled } from "../compiled/compiled.ts";
import type { ExplainedActor } from "../actors/explain-actors.ts";
import { explainedActors, placesOfActors } from "../actors/explain-actors.ts";
import { eventName } from "./event-text.ts";
import { SimState } from "../compiled/state.ts";
import { follow } from "../rooms/doors.ts";
import { respawn } from "../rooms/place-walker.ts";
import { STATUS_NAMES } from "../world/vocabulary.ts";
import { step } from "./step.ts";
import { tileAt } from "./tile-at.ts";

/** The side of the body on which something lies that blocked it. */
export type BodySide = "left" | "right" | "top" | "bottom" | "corner" | "inside";

/** One cell that a tested place or way covers, and what it said. */
export interface TestedCell {
  readonly cx: number;
  readonly cy: number;
  /** Number of the tile that stands there, -1 for what lies beyond a wall side. */
  readonly tile: number;
  readonly blocks: boolean;
  /** Where what blocked lies, as seen from the body before it moved; null where nothing blocked. */
  readonly side: BodySide | null;
  /** Id of the closed door that stands there, if one does. */
  readonly door: string | null;
}

/** What the run remembers after a frame: numbers by item, circuit and fixture of the world, in the order of the file. */
export interface Remembered {
  readonly bag: readonly number[];
  /** 1 where it is on, taken, open. */
  readonly on: readonly number[];
  readonly taken: readonly number[];
  readonly open: readonly number[];
  /** null where the world counts none. */
  readonly lives: number | null;
  /** Number of the checkpoint that is the respawn place, -1 for the start. */
  readonly checkpoint: number;
  /** Of each actor the cell that it is nearest to, and its facing. */
  readonly actors: readonly { readonly cell: readonly [number, number]; readonly facing: number }[];
}

export interface ExplainedPlace extends TestedPlace {
  readonly cells: readonly TestedCell[];
}

/** One axis of a free movement with the cells of its way, or of the one place that was tested. */
export interface ExplainedAxis extends AxisMove {
  readonly cells: readonly TestedCell[];
}

/** One piece of a frame's movement, in units. */
export interface Piece {
  readonly what: "hop" | "leg" | "x" | "y" | "both" | "slope" | "nudge" | "crossing";
  readonly dx: number;
  readonly dy: number;
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
  readonly legProgress: number;
  /** Progress of the leg that ended in this frame, or null. */
  readonly arrivedAfter: number | null;
  readonly reverse: { readonly place: ExplainedPlace; readonly turned: boolean } | null;
  readonly choices: readonly (readonly {
    readonly source: string;
    readonly dx: number;
    readonly dy: number;
    readonly taken: boolean;
    readonly places: readonly ExplainedPlace[];
  }[])[];
  /** The axes of a free movement in the order in which they moved; empty for the gaits of the grid. */
  readonly axes: readonly ExplainedAxis[];
  readonly nudge: Nudge | null;
  /** The frame's movement in the order in which it was made: `from` and all of them together give `to`. */
  readonly pieces: readonly Piece[];
  /** Velocity after the frame, in units a frame: what `drift` keeps, else what was moved. */
  readonly velocity: readonly [number, number];
  /** How the body lies to what blocks it after the frame. */
  readonly gaps: Gaps;
  /** Every tested cell once, those that blocked first. */
  readonly tested: readonly TestedCell[];
  /** The first cell that blocked: of a choice in which nothing was free, or of an axis that was stopped; or null. */
  readonly stoppedBy: TestedCell | null;
  readonly bumping: boolean;
  readonly events: readonly string[];
  /** The actors of the walker's room after the frame, in file order, and what each chose in it. */
  readonly actors: readonly ExplainedActor[];
  readonly remembered: Remembered;
  /** What it would remember had the walker died in this frame. */
  readonly afterRespawn: Remembered;
  readonly facing: number;
  readonly pose: number;
  readonly moving: boolean;
  /** Frames in a row without moving, this one included. */
  readonly stillFrames: number;
  readonly status: (typeof STATUS_NAMES)[number];
}

/**
 * Explains one frame: steps the state with the very code of the simulation and says what each stage saw and decided.
 * @param state the state before the frame; it is stepped
 * @param held buttons held in the frame
 */
export function explain(c: Compiled, state: SimState, held: number): Explanation {
  const account = newAccount();
  const before: Before = {
    room: state.room,
    x: state.x,
    y: state.y,
    ground: state.ground.withOwn(c.fixtures.doorRooms),
  };
  step(c, state, held, account);
  return {
    ...describe(c, state),
    from: [before.x, before.y],
    ...accountOf(c, before, account),
    actors: explainedActors(c, state, account),
  };
}

/** Where the walker was when the frame began, and what blocked it. */
interface Before {
  readonly room: number;
  readonly x: number;
  readonly y: number;
  /** What blocked: a door may have opened since. */
  readonly ground: Ground;
}

/** Explains row 0, in which nothing has moved yet. */
export function explainStart(c: Compiled, state: SimState): Explanation {
  return {
    ...describe(c, state),
    from: [state.x, state.y],
    ...accountOf(c, { room: state.room, x: state.x, y: state.y, ground: state.ground }, newAccount()),
    actors: explainedActors(c, state, newAccount()),
  };
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
    gaps: gapsAround(s.ground, s.room, s.x, s.y),
    leg: [s.legX, s.legY],
    legProgress: s.legProgress,
    bumping: s.bumping,
    events,
    remembered: rememberedIn(c, s),
    afterRespawn: afterRespawn(c, s),
    facing: s.facing,
    pose: s.pose,
    moving: s.moving,
    stillFrames: s.stillFrames,
    status: STATUS_NAMES[s.status]!,
  } as const;
}

/** What the run would remember after a respawn in this frame (semantics.md section 7). */
function afterRespawn(c: Compiled, s: SimState): Remembered {
  const after = new SimState(c);
  after.copyFrom(s);
  respawn(c, after);
  follow(c, after, false);
  return rememberedIn(c, after);
}

/** What a state remembers, as plain data. */
export function rememberedIn(c: Compiled, { memory }: SimState): Remembered {
  return {
    bag: [...memory.bag],
    on: [...memory.on],
    taken: [...memory.taken],
    open: [...memory.open],
    lives: c.countsLives ? memory.lives : null,
    checkpoint: memory.checkpoint,
    actors: placesOfActors(c, memory),
  };
}

/** Id of the closed door in a cell as seen from a room, or null. */
function doorAt(c: Compiled, { ground, room }: Before, cx: number, cy: number): string | null {
  if (solidAt(ground, room, cx, cy) < DOOR || !resolveCell(ground, room, cx, cy)) return null;
  return c.fixtures.all[doorIn(c, resolved.room, resolved.cell)]?.id ?? null;
}

function accountOf(c: Compiled, before: Before, account: Account) {
  const choices = account.choices.map((candidates) =>
    candidates.map(({ source, dx, dy, taken, places }) => ({
      source,
      dx,
      dy,
      taken,
      places: places.map((place) => explainPlace(c, before, place)),
    })),
  );
  const axes = account.axes.map((move) => explainAxis(c, before, move));
  const failed = choices.find(
    (candidates) => candidates.length > 0 && candidates.every((candidate) => !candidate.taken),
  );
  // What a slope made up for did not stop the walker.
  const slid = (move: AxisMove): number => move.slope.reduce((sum, { along }) => sum + along, 0);
  const stopped = axes.find(
    (move) =>
      move.movedX + move.movedY + slid(move) !== move.dx + move.dy || (move.axis === "both" && move.movedX !== move.dx),
  );
  const ended = account.advances.find((advance) => advance.ended);
  const cells = [
    ...choices.flat().flatMap((candidate) => candidate.places.flatMap((place) => place.cells)),
    ...axes.flatMap((move) => move.cells),
  ];
  const pieces = piecesOf(account);
  return {
    arrivedAfter: ended ? ended.progress : null,
    reverse: account.reverse && {
      place: explainPlace(c, before, account.reverse.place),
      turned: account.reverse.turned,
    },
    choices,
    axes,
    nudge: account.nudge,
    pieces,
    velocity: velocityOf(account, pieces),
    tested: onceEach(cells),
    stoppedBy:
      (failed?.[0]?.places.flatMap((place) => place.cells) ?? stopped?.cells ?? []).find((cell) => cell.blocks) ?? null,
  } as const;
}

function velocityOf(account: Account, pieces: readonly Piece[]): readonly [number, number] {
  if (account.velocity !== null) return account.velocity;
  const moved = pieces.filter((piece) => piece.what !== "crossing");
  return [moved.reduce((sum, { dx }) => sum + dx, 0), moved.reduce((sum, { dy }) => sum + dy, 0)];
}

function piecesOf(account: Account): Piece[] {
  const pieces: Piece[] = account.advances.map(({ what, dx, dy }) => ({ what, dx, dy }));
  for (const move of account.axes) {
    if (move.movedX !== 0 || move.movedY !== 0) pieces.push({ what: move.axis, dx: move.movedX, dy: move.movedY });
    const along = move.slope.reduce((sum, step) => sum + step.along, 0);
    const aside = move.slope.reduce((sum, step) => sum + step.aside, 0);
    if (along !== 0)
      pieces.push(
        move.axis === "x" ? { what: "slope", dx: along, dy: aside } : { what: "slope", dx: aside, dy: along },
      );
  }
  const { nudge } = account;
  if (nudge !== null && nudge.moved !== 0)
    pieces.push({ what: "nudge", dx: nudge.axis === "x" ? nudge.moved : 0, dy: nudge.axis === "y" ? nudge.moved : 0 });
  for (const { dx, dy } of account.crossings) pieces.push({ what: "crossing", dx, dy });
  return pieces;
}

/** Each cell once, as it was tested first or where it blocked; those that blocked stand first. */
function onceEach(cells: readonly TestedCell[]): TestedCell[] {
  const once = new Map<string, TestedCell>();
  for (const cell of cells) {
    const key = `${cell.cx},${cell.cy}`;
    if (!once.has(key) || (cell.blocks && !once.get(key)!.blocks)) once.set(key, cell);
  }
  return [...once.values()].sort((a, b) => Number(b.blocks) - Number(a.blocks));
}

function explainPlace(c: Compiled, before: Before, place: TestedPlace): ExplainedPlace {
  return { ...place, cells: cellsAt(c, before, before.x, before.y, place) };
}

/** The cells of a place, and which of them block there; sides as seen from the body at `fromX`, `fromY`. */
function cellsAt(c: Compiled, before: Before, fromX: number, fromY: number, place: TestedPlace): TestedCell[] {
  const { room, ground } = before;
  return cellsOfBody(c, place.x, place.y).map(({ cx, cy }) => {
    const met = shapesOfCell(ground, room, cx, cy).find((shape) => bodyMeets(ground, place.x, place.y, shape));
    return {
      cx,
      cy,
      tile: tileAt(c, ground, room, cx, cy),
      blocks: met !== undefined,
      side: met === undefined ? null : sideOf(c, fromX, fromY, met, place.x - fromX, place.y - fromY),
      door: doorAt(c, before, cx, cy),
    };
  });
}

/** The cells of an axis: of its tested place, or of its way with what stopped it there. */
function explainAxis(c: Compiled, before: Before, move: AxisMove): ExplainedAxis {
  const { fromX, fromY, dx, dy, place, movedX, movedY } = move;
  const { room, ground } = before;
  if (place !== null) return { ...move, cells: cellsAt(c, before, fromX, fromY, place) };
  const short = movedX !== dx || movedY !== dy;
  const atX = dx === 0 ? movedX : move.stopAt;
  const atY = dy === 0 ? movedY : move.stopAt;
  const counts = move.shapes.filter(
    (shape) => !shape.inside && shape.ranges.some(({ lo, hi }) => lo <= atX + atY && atX + atY <= hi),
  );
  const cells = cellsOnWay(c, fromX, fromY, dx, dy).map(({ cx, cy }): TestedCell => {
    const blocks = short && counts.some((shape) => shape.cx === cx && shape.cy === cy);
    const met = blocks
      ? shapesOfCell(ground, room, cx, cy).find((shape) => bodyMeets(ground, fromX + atX, fromY + atY, shape))
      : undefined;
    return {
      cx,
      cy,
      tile: tileAt(c, ground, room, cx, cy),
      blocks,
      side: met === undefined ? null : sideOf(c, fromX + movedX, fromY + movedY, met, dx, dy),
      door: doorAt(c, before, cx, cy),
    };
  });
  return { ...move, cells };
}

/** Every cell that the body has to do with on a straight way, row by row. */
function cellsOnWay(c: Compiled, x: number, y: number, dx: number, dy: number): { cx: number; cy: number }[] {
  const cells = new Map<string, { cx: number; cy: number }>();
  const steps = Math.max(1, Math.ceil(Math.max(Math.abs(dx), Math.abs(dy)) / c.tileUnits));
  for (let i = 0; i <= steps; i++) {
    for (const cell of cellsOfBody(c, x + Math.trunc((dx * i) / steps), y + Math.trunc((dy * i) / steps)))
      cells.set(`${cell.cy},${cell.cx}`, cell);
  }
  return [...cells.values()].sort((a, b) => a.cy - b.cy || a.cx - b.cx);
}

/** On which side of the body at `(x, y)` a shape lies; where their boxes overlap already, the side that it was moved to. */
function sideOf(c: Compiled, x: number, y: number, shape: PlacedShape, dx: number, dy: number): BodySide {
  const { body } = c;
  const across = shape.left >= x + body.right ? "right" : shape.right <= x + body.left ? "left" : null;
  const along = shape.top >= y + body.bottom ? "bottom" : shape.bottom <= y + body.top ? "top" : null;
  if (across !== null && along !== null) return "corner";
  if (across !== null || along !== null) return across ?? along!;
  if (!shape.poly) return "inside";
  return dx > 0 ? "right" : dx < 0 ? "left" : dy > 0 ? "bottom" : "top";
}
