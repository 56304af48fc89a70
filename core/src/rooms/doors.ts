import { doorIn } from "../compiled/door-in-cell.ts";
import { resolveCell, resolved } from "../ground/ground.ts";
import { occupiedX, occupiedY } from "../ground/occupied.ts";
import type { Compiled } from "../compiled/compiled.ts";
import type { SimState } from "../compiled/state.ts";
import { CLOSE, OPEN, REFUSED } from "../world/vocabulary.ts";
import { FACING_DX, FACING_DY } from "../world/facing.ts";
import { USE } from "../world/keys.ts";
import type { CompiledFixture } from "../compiled/compiled-fixture.ts";
import { LOCK_CIRCUIT, LOCK_ITEM } from "../compiled/compiled-fixture.ts";
import { bodyIn } from "../compiled/body-in-cell.ts";

/** Step 6 of a frame (semantics.md section 8). After a respawn or a portal nothing is pushed or used. */
export function moveDoors(c: Compiled, s: SimState, wasMoved: boolean): void {
  const { memory } = s;
  if (memory.behindCount > 0) closeBehind(c, s);
  if (memory.changed) follow(c, s, true);
  if (wasMoved) return;
  const used = (s.pressed & USE) !== 0 ? doorBeside(c, s) : -1;
  if (memory.pushedCount === 0 && used < 0) return;
  askDoors(c, s, used);
}

/** Doors that close behind, once the body was in their cell and is not any more. */
function closeBehind(c: Compiled, s: SimState): void {
  const { memory } = s;
  for (let i = 0; i < memory.behindCount; i++) {
    const number = memory.behindList[i]!;
    if (isInCellOf(c, s, c.fixtures.all[number]!)) memory.passed[number] = 1;
    else if (memory.passed[number] === 1) {
      memory.setOpen(number, false);
      s.emit(CLOSE, number);
      // The list has moved up by one.
      i--;
    }
  }
}

/** Whether the body's interior is in a fixture's cell, also as seen through a seam. */
function isInCellOf(c: Compiled, s: SimState, fixture: CompiledFixture): boolean {
  const { body, tileUnits: t } = c;
  const right = body.kind === "box" ? body.right - 1 : body.right;
  const bottom = body.kind === "box" ? body.bottom - 1 : body.bottom;
  const [lastX, lastY] = [Math.floor((s.x + right) / t), Math.floor((s.y + bottom) / t)];
  for (let cy = Math.floor((s.y + body.top) / t); cy <= lastY; cy++) {
    for (let cx = Math.floor((s.x + body.left) / t); cx <= lastX; cx++) {
      if (!resolveCell(s.ground, s.room, cx, cy) || resolved.room !== fixture.room || resolved.cell !== fixture.cell)
        continue;
      if (bodyIn(c, s.x - cx * t, s.y - cy * t)) return true;
    }
  }
  return false;
}

/**
 * Circuit and collected doors follow their condition, both ways.
 * @param told whether events are written: not in row 0
 */
export function follow(c: Compiled, s: SimState, told: boolean): void {
  const { memory } = s;
  const { following, all, giving } = c.fixtures;
  memory.changed = false;
  for (let i = 0; i < following.length; i++) {
    const number = following[i]!;
    const { lock, circuit, openWhileOn, item } = all[number]!;
    const open =
      lock === LOCK_CIRCUIT ? (memory.on[circuit] === 1) === openWhileOn : giving[item]! > 0 && memory.left[item] === 0;
    if ((memory.open[number] === 1) === open) continue;
    memory.setOpen(number, open);
    if (told) s.emit(open ? OPEN : CLOSE, number);
  }
}

/** The closed use door in the neighbour of the occupied cell that the walker faces, also through a seam; -1 for none. */
function doorBeside(c: Compiled, s: SimState): number {
  const cx = occupiedX(c.tileUnits, s.x) + FACING_DX[s.facing]!;
  const cy = occupiedY(c.tileUnits, s.y) + FACING_DY[s.facing]!;
  if (!resolveCell(s.ground, s.room, cx, cy)) return -1;
  const door = doorIn(c, resolved.room, resolved.cell);
  return door >= 0 && c.fixtures.all[door]!.opensOnUse ? door : -1;
}

/** Asks the doors that were pushed, and the one that is used, in file order: they open, or refuse. */
function askDoors(c: Compiled, s: SimState, used: number): void {
  const { memory } = s;
  let last = -1;
  for (;;) {
    let next = used > last ? used : Infinity;
    for (let i = 0; i < memory.pushedCount; i++) {
      const number = memory.pushed[i]!;
      if (number > last && number < next && !c.fixtures.all[number]!.opensOnUse) next = number;
    }
    if (next === Infinity) return;
    last = next;
    ask(c, s, next, next === used);
  }
}

function ask(c: Compiled, s: SimState, number: number, isUse: boolean): void {
  const { memory } = s;
  const { lock, item, count, spends } = c.fixtures.all[number]!;
  if (memory.open[number] === 1 || lock > LOCK_ITEM) return;
  if (lock === LOCK_ITEM && memory.bag[item]! < count) {
    if (isUse || !memory.wasPushedBefore(number)) s.emit(REFUSED, number);
    return;
  }
  if (lock === LOCK_ITEM && spends) memory.bag[item]! -= count;
  memory.setOpen(number, true);
  s.emit(OPEN, number);
}
