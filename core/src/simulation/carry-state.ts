import type { World } from "../world/world.ts";
import type { Compiled } from "../compiled/compiled.ts";
import { NO_BUTTON, SimState } from "../compiled/state.ts";

/**
 * Takes the state of a run over into its world as it is now, compiled anew: settings, tiles and rules may be others, and
 * count from the next frame on. Under another gait the walker stands where it is, on no leg and without speed.
 * @param c the world as it is now
 * @param before what the state belongs to
 * @returns null where rooms, fixtures, actors, items or circuits are not the same any more: nobody can say what the run then
 *   remembers, and it must be replayed
 */
export function carriedState(c: Compiled, before: Compiled, s: SimState): SimState | null {
  if (!sameThings(c.world, before.world)) return null;
  const carried = new SimState(c);
  carried.copyFrom(s);
  if (c.rules.gait !== before.rules.gait) {
    Object.assign(carried, {
      legX: 0,
      legY: 0,
      legProgress: 0,
      keepX: 0,
      keepY: 0,
      vx: 0,
      vy: 0,
      bufferedButton: NO_BUTTON,
      bufferedAge: 0,
      repeatAge: 0,
    });
  }
  return carried;
}

/** Whether what a state counts and numbers is the same in two worlds. */
function sameThings(one: World, other: World): boolean {
  return (
    one.tileSize === other.tileSize &&
    one.lives === other.lives &&
    one.respawnRestores === other.respawnRestores &&
    same(one.items, other.items) &&
    same(one.circuits, other.circuits) &&
    one.rooms.length === other.rooms.length &&
    one.rooms.every((room, i) => {
      const there = other.rooms[i]!;
      return (
        room.id === there.id &&
        room.width === there.width &&
        room.height === there.height &&
        same(room.fixtures, there.fixtures) &&
        same(room.actors, there.actors)
      );
    })
  );
}

const same = (one: readonly unknown[], other: readonly unknown[]): boolean =>
  one === other || JSON.stringify(one) === JSON.stringify(other);
