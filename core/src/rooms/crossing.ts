import { changeRoom } from "./place-walker.ts";
import { EAST, LINK, NORTH, SOUTH, WALL, WEST, WRAP, edgeRuleAt } from "../ground/compiled-room.ts";
import type { CompiledRoom } from "../ground/compiled-room.ts";
import type { Account } from "../compiled/account.ts";
import type { Compiled } from "../compiled/compiled.ts";
import type { SimState } from "../compiled/state.ts";
import { ESCAPE, ESCAPED, WRAPPED } from "../world/vocabulary.ts";
import { occupiedX, occupiedY } from "../ground/occupied.ts";

/** Ends the run where the frame-square lies wholly beyond a wall side (semantics.md section 4.7). */
export function checkEscape(c: Compiled, s: SimState): void {
  const room = c.rooms[s.room]!;
  const t = c.tileUnits;
  const gone =
    (s.x + t <= 0 && edgeRuleAt(room, WEST, occupiedY(t, s.y)) === WALL) ||
    (s.x >= room.width * t && edgeRuleAt(room, EAST, occupiedY(t, s.y)) === WALL) ||
    (s.y + t <= 0 && edgeRuleAt(room, NORTH, occupiedX(t, s.x)) === WALL) ||
    (s.y >= room.height * t && edgeRuleAt(room, SOUTH, occupiedX(t, s.x)) === WALL);
  if (!gone) return;
  s.status = ESCAPED;
  s.emit(ESCAPE);
}

/** Takes the walker across sides that wrap or lead into a room, at most twice a frame (semantics.md section 7). */
export function cross(c: Compiled, s: SimState, account: Account | null): void {
  for (let times = 0; times < 2; times++) {
    const { x, y } = s;
    if (!crossX(c, s) && !crossY(c, s)) return;
    if (account !== null) account.crossings.push({ dx: s.x - x, dy: s.y - y });
  }
}

function crossX(c: Compiled, s: SimState): boolean {
  const here = c.rooms[s.room]!;
  const t = c.tileUnits;
  const beyond = beyondSide(c, s.x, here.unitsAcross);
  if (beyond === 0) return false;
  const rule = edgeRuleAt(here, beyond < 0 ? WEST : EAST, occupiedY(t, s.y));
  if (rule === WALL) return false;
  const there = enter(c, s, rule);
  s.x += beyond < 0 ? there.unitsAcross : -here.unitsAcross;
  if (rule !== WRAP) s.y += here.linkOffset[rule - LINK]! * t;
  return true;
}

function crossY(c: Compiled, s: SimState): boolean {
  const here = c.rooms[s.room]!;
  const t = c.tileUnits;
  const beyond = beyondSide(c, s.y, here.unitsDown);
  if (beyond === 0) return false;
  const rule = edgeRuleAt(here, beyond < 0 ? NORTH : SOUTH, occupiedX(t, s.x));
  if (rule === WALL) return false;
  const there = enter(c, s, rule);
  s.y += beyond < 0 ? there.unitsDown : -here.unitsDown;
  if (rule !== WRAP) s.x += here.linkOffset[rule - LINK]! * t;
  return true;
}

/**
 * Whether the walker lies beyond one of an axis's two sides, as `walker.crossesAt` says: its centre, or all of it.
 * @param at its place along the axis, `length` the room's, both in units
 * @returns -1 or 1, or 0 while it is in the room
 */
function beyondSide(c: Compiled, at: number, length: number): -1 | 0 | 1 {
  // A centre on the far side is beyond it, one on the near side is not.
  const margin = c.crossesWhole ? c.tileUnits : c.tileUnits / 2;
  if (c.crossesWhole ? at <= -margin : at < -margin) return -1;
  return at >= (c.crossesWhole ? length : length - margin) ? 1 : 0;
}

/** Goes where a side's rule leads: into another room, or round. Gives the room that is entered. */
function enter(c: Compiled, s: SimState, rule: number): CompiledRoom {
  if (rule === WRAP) s.emit(WRAPPED);
  else changeRoom(c, s, c.rooms[s.room]!.linkRoom[rule - LINK]!);
  return c.rooms[s.room]!;
}

/**
 * Whether some part of the frame-square is past a side that is a wall in any row or column that the square spans
 * there: the check `outside` (formats.md section 2).
 */
export function isOutside(c: Compiled, roomNumber: number, x: number, y: number): boolean {
  const room = c.rooms[roomNumber]!;
  const t = c.tileUnits;
  return (
    (x < 0 && wallAlong(room, WEST, y, t)) ||
    (x + t > room.width * t && wallAlong(room, EAST, y, t)) ||
    (y < 0 && wallAlong(room, NORTH, x, t)) ||
    (y + t > room.height * t && wallAlong(room, SOUTH, x, t))
  );
}

function wallAlong(room: CompiledRoom, side: number, at: number, t: number): boolean {
  const last = Math.floor((at + t - 1) / t);
  for (let along = Math.floor(at / t); along <= last; along++) if (edgeRuleAt(room, side, along) === WALL) return true;
  return false;
}
