import type { Compiled } from "../compiled/compiled.ts";
import type { SimState } from "../compiled/state.ts";
import { ENTER, LEAVE, RESPAWN } from "../world/vocabulary.ts";
import { NO_BUTTON } from "../compiled/state.ts";
import { NO_ROOM } from "../compiled/memory.ts";
import { isTouched } from "./is-touched.ts";
import type { CompiledFixture } from "../compiled/compiled-fixture.ts";
import { KEEPS_LIFE, KEEPS_VISIT } from "../compiled/compiled-fixture.ts";

/** Goes from one room into another, or into the same one again: touches end, what keeps for a visit returns. */
export function changeRoom(c: Compiled, s: SimState, room: number): void {
  s.emit(LEAVE, s.room);
  s.memory.letGo();
  s.memory.resetFixtures(c.fixtures.visit[s.room]!);
  s.memory.actors?.resetKept(KEEPS_VISIT, s.room);
  s.room = room;
  s.emit(ENTER, room);
}

/** Puts the walker on a portal's target (semantics.md section 7). The event `portal` is written already. */
export function goThrough(c: Compiled, s: SimState, portal: CompiledFixture): void {
  if (portal.toFacing >= 0) s.facing = portal.toFacing;
  place(c, s, portal.toRoom, portal.toX * c.tileUnits, portal.toY * c.tileUnits);
}

/** Puts the walker on its respawn place (semantics.md section 7). */
export function respawn(c: Compiled, s: SimState): void {
  const { memory } = s;
  if (memory.held === null) {
    memory.resetFixtures(c.fixtures.life);
    memory.actors?.resetKept(KEEPS_LIFE);
  } else memory.giveBack(memory.held);
  s.emit(RESPAWN);
  s.bufferedButton = NO_BUTTON;
  s.bufferedAge = 0;
  s.keepX = 0;
  s.keepY = 0;
  const checkpoint = memory.checkpoint < 0 ? null : c.fixtures.all[memory.checkpoint]!;
  if (checkpoint === null) place(c, s, memory.startRoom, memory.startX, memory.startY);
  else place(c, s, checkpoint.room, checkpoint.cx * c.tileUnits, checkpoint.cy * c.tileUnits);
}

function place(c: Compiled, s: SimState, room: number, x: number, y: number): void {
  s.x = x;
  s.y = y;
  s.vx = 0;
  s.vy = 0;
  s.legX = 0;
  s.legY = 0;
  s.legProgress = 0;
  // What counts as touched there is looked at anew, wherever the next frame leads.
  s.memory.nearRoom = NO_ROOM;
  if (room !== s.room) changeRoom(c, s, room);
  touchPortals(c, s);
}

/** Portals that the walker touches where it is put count as already touched; other kinds do not. */
export function touchPortals(c: Compiled, s: SimState): void {
  if (!c.fixtures.hasPortals) return;
  const { all } = c.fixtures;
  for (let i = 0; i < all.length; i++)
    if (all[i]!.leads && all[i]!.room === s.room && isTouched(c, s, all[i]!)) s.memory.setTouched(i, true);
}
