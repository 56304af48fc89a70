import type { Compiled } from "../../compiled/compiled.ts";

/**
 * The same rules with legs that take one frame, where that comes to the same: the walker is told apart only by the cell
 * that it occupies, and a portal, which waits for the leg's end, stands alone in its cell. For straight legs from a cell
 * in which nothing stands, with nothing touched. Other worlds are given back as they are; that the two agree is tested.
 */
export function withLegsAtOnce(c: Compiled): Compiled {
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
  return sharesPortal ? c : { ...c, glide: { ...c.glide, speed: c.tileUnits } };
}
