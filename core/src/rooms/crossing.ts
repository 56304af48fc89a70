import { EAST, NORTH, SOUTH, WALL, WEST, WRAP, edgeRuleAt } from "../ground/compiled-room.ts";
import type { CompiledRoom } from "../ground/compiled-room.ts";
import type { Account } from "../movement/account.ts";
import type { Compiled } from "../simulation/compiled.ts";
import type { SimState } from "../simulation/state.ts";
import { ESCAPE, ESCAPED, WRAPPED } from "../simulation/state.ts";

/** Column of the cell that contains the centre of the frame-square (semantics.md section 1). */
export function occupiedX(tileUnits: number, x: number): number {
  return Math.floor((x + tileUnits / 2) / tileUnits);
}

/** Row of the cell that contains the centre of the frame-square. */
export function occupiedY(tileUnits: number, y: number): number {
  return Math.floor((y + tileUnits / 2) / tileUnits);
}

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
  s.happened(ESCAPE);
}

/** Takes the walker across sides that wrap, at most twice a frame (semantics.md section 7). */
export function cross(c: Compiled, s: SimState, account: Account | null): void {
  for (let times = 0; times < 2; times++) {
    const room = c.rooms[s.room]!;
    const { x, y } = s;
    if (!crossX(room, c.tileUnits, s) && !crossY(room, c.tileUnits, s)) return;
    if (account !== null) account.crossings.push({ dx: s.x - x, dy: s.y - y });
  }
}

function crossX(room: CompiledRoom, t: number, s: SimState): boolean {
  const cx = occupiedX(t, s.x);
  if (cx >= 0 && cx < room.width) return false;
  if (edgeRuleAt(room, cx < 0 ? WEST : EAST, occupiedY(t, s.y)) !== WRAP) return false;
  s.x += (cx < 0 ? room.width : -room.width) * t;
  s.happened(WRAPPED);
  return true;
}

function crossY(room: CompiledRoom, t: number, s: SimState): boolean {
  const cy = occupiedY(t, s.y);
  if (cy >= 0 && cy < room.height) return false;
  if (edgeRuleAt(room, cy < 0 ? NORTH : SOUTH, occupiedX(t, s.x)) !== WRAP) return false;
  s.y += (cy < 0 ? room.height : -room.height) * t;
  s.happened(WRAPPED);
  return true;
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
