import type { Compiled } from "../../compiled/compiled.ts";
import type { SimState } from "../../compiled/state.ts";
import { ruleAt } from "../../edits/links.ts";
import { isFree } from "../../ground/free.ts";
import type { Room } from "../../world/world.ts";
import { GridSuperset } from "./grid-superset.ts";
import { carriesBetweenFrames, hasTurns } from "./turned-sides.ts";

/** What play can come to that the search does not see, which makes each move from rest to rest. */
export interface Unseen {
  /** More than any play can reach. What the search does not come to is never only where this does not come to it either. */
  readonly bound: GridSuperset;
  /** The walker may rest where, or with what, the search never sees it rest. */
  readonly rests: boolean;
}

/**
 * What the search does not see; null where it sees all.
 *
 * With `carry` a leg begins with what was left of a frame and ends its frames elsewhere. A slanting one, upwards to the
 * right or back, may be seen at its half, in the cell beside. Where one could stand there, that is no more than two
 * straight steps; not where a body touches, where nobody can stand, and where two sides of a corner lead on. And one that
 * begins beyond a side looks at the ground from the room that it comes out of.
 */
export function unseenFrames(c: Compiled, start: SimState): Unseen | null {
  if (!carriesBetweenFrames(c)) return null;
  const bound = new GridSuperset(c, start);
  const isReached = (room: number): boolean => bound.comes[room]!.includes(1);
  const rests = c.world.rooms.some((room, i) => isReached(i) && hasTurns(room));
  return rests || (c.rules.input.ways === 8 && slantsMatter(c, isReached)) ? { bound, rests } : null;
}

function slantsMatter(c: Compiled, isReached: (room: number) => boolean): boolean {
  const t = c.tileUnits;
  return (
    c.world.rooms.some((room, i) => isReached(i) && hasOpenCorner(room)) ||
    c.fixtures.all.some(
      ({ blocks, touchBody, room, cx, cy }) =>
        isReached(room) && !blocks && (touchBody || !isFree(c.ground, room, cx * t, cy * t)),
    )
  );
}

/** Whether both sides lead on at the upper right or the lower left corner of a room. */
function hasOpenCorner({ width, height, edges }: Room): boolean {
  const leads = (name: keyof Room["edges"], at: number): boolean => ruleAt(edges[name], at).kind !== "wall";
  return (leads("north", width - 1) && leads("east", 0)) || (leads("south", 0) && leads("west", height - 1));
}
