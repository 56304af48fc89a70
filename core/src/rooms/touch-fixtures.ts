import { PLAYING } from "../world/vocabulary.ts";
import { occupiedX, occupiedY } from "../ground/occupied.ts";
import type { Compiled } from "../compiled/compiled.ts";
import type { SimState } from "../compiled/state.ts";
import { isBodyIn, isCellIn } from "./is-touched.ts";

/**
 * Step 5 of a frame: the fixtures of the walker's room that it touches, in file order (semantics.md section 8).
 * @returns whether a portal or a respawn has moved the walker
 */
export function touchFixtures(c: Compiled, s: SimState): boolean {
  const { memory } = s;
  s.goalTouched = false;
  // In most frames the walker is still in the same cell, and mostly in one with nothing in it.
  const same =
    s.room === memory.nearRoom &&
    s.x >= memory.sameLeft &&
    s.x < memory.sameRight &&
    s.y >= memory.sameTop &&
    s.y < memory.sameBottom;
  if (same && memory.nearCount === 0) return false;
  const ox = same ? memory.nearLeft : occupiedX(c.tileUnits, s.x);
  const oy = same ? memory.nearTop : occupiedY(c.tileUnits, s.y);
  if (!same) lookRound(c, s, ox, oy);
  const { near, nearCount } = memory;
  for (let i = 0; i < nearCount; i++) {
    const number = near[i]!;
    const fixture = c.fixtures.all[number]!;
    if (memory.taken[number] === 1 || !(fixture.touchBody ? isBodyIn(c, s, fixture) : isCellIn(fixture, ox, oy))) {
      memory.setTouched(number, false);
      continue;
    }
    if (number === c.goalFixture) s.goalTouched = true;
    if (memory.touched[number] === 1) continue;
    // In hop and glide a portal waits until no leg is under way.
    if (fixture.leads && (s.legX !== 0 || s.legY !== 0)) continue;
    memory.setTouched(number, true);
    if (fixture.touch(c, s, number, fixture)) return s.status === PLAYING;
  }
  return false;
}

/** Has in `near` what stands in the cells of the body and in the occupied cell, and what was touched; in file order, each once. */
function lookRound(c: Compiled, s: SimState, ox: number, oy: number): void {
  const { memory } = s;
  const { body, tileUnits: t } = c;
  const room = c.rooms[s.room]!;
  let left = ox;
  let top = oy;
  let right = ox;
  let bottom = oy;
  if (c.fixtures.hasBodyTouch) {
    const last = body.kind === "box" ? 1 : 0;
    left = Math.min(left, Math.floor((s.x + body.left) / t));
    top = Math.min(top, Math.floor((s.y + body.top) / t));
    right = Math.max(right, Math.floor((s.x + body.right - last) / t));
    bottom = Math.max(bottom, Math.floor((s.y + body.bottom - last) / t));
  }
  if (
    memory.nearRoom === s.room &&
    memory.nearLeft === left &&
    memory.nearTop === top &&
    memory.nearRight === right &&
    memory.nearBottom === bottom
  )
    return;
  memory.nearRoom = s.room;
  // Where the occupied cell stays the same; a body that touches must be looked at anew wherever it goes.
  const half = c.fixtures.hasBodyTouch ? 0 : t / 2;
  memory.sameLeft = ox * t - half;
  memory.sameRight = ox * t + half;
  memory.sameTop = oy * t - half;
  memory.sameBottom = oy * t + half;
  memory.nearLeft = left;
  memory.nearTop = top;
  memory.nearRight = right;
  memory.nearBottom = bottom;
  memory.nearCount = 0;
  for (let i = 0; i < memory.touchedCount; i++) memory.near[memory.nearCount++] = memory.touchedList[i]!;
  if (room.fixtureAt === null) return;
  const wide = c.fixtures.wide[s.room]!;
  if (wide !== null)
    for (let i = 0; i < wide.length; i++) {
      const { cx, cy, across, down } = c.fixtures.all[wide[i]!]!;
      if (cx <= right && cx + across > left && cy <= bottom && cy + down > top) memory.comeNear(wide[i]!);
    }
  for (let cy = Math.max(top, 0); cy <= bottom && cy < room.height; cy++) {
    for (let cx = Math.max(left, 0); cx <= right && cx < room.width; cx++) {
      for (let number = room.fixtureAt[cy * room.width + cx]!; number >= 0; number = c.fixtures.all[number]!.next) {
        if (!c.fixtures.all[number]!.blocks) memory.comeNear(number);
      }
    }
  }
}
