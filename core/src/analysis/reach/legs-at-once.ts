import type { Compiled } from "../../compiled/compiled.ts";
import type { SimState } from "../../compiled/state.ts";
import { entersAtOnce, returnsBeside } from "./lasting-touch.ts";

/**
 * The same rules with legs that take one frame, where that comes to the same: the walker is told apart only by the cell
 * that it occupies, and a portal, which waits for the leg's end, stands alone in its cell. For straight legs from a cell
 * in which nothing stands, with nothing touched. Other worlds are given back as they are; that the two agree is tested.
 * @param start any state of the run: where it began
 */
export function withLegsAtOnce(c: Compiled, start: SimState): Compiled {
  if (c.rules.gait !== "glide" || c.fixtures.hasBodyTouch) return c;
  const { all, at } = c.fixtures;
  const sharesPortal = all.some(({ leads, room, cell }) => {
    if (!leads) return false;
    const first = at[room]![cell]!;
    const covered = all.some(
      (other) =>
        other.room === room &&
        other.across * other.down > 1 &&
        cell % c.rooms[room]!.width >= other.cx &&
        cell % c.rooms[room]!.width < other.cx + other.across &&
        Math.floor(cell / c.rooms[room]!.width) >= other.cy &&
        Math.floor(cell / c.rooms[room]!.width) < other.cy + other.down,
    );
    return covered || all[first]!.next >= 0;
  });
  // A whole leg enters the next cell in the frame after the one that put the walker there.
  const lasts = !entersAtOnce(c) && all.some((fixture) => returnsBeside(c, start, fixture));
  return sharesPortal || lasts ? c : { ...c, glide: { ...c.glide, speed: c.tileUnits } };
}
