import { UNITS_PER_PX } from "../base/units.ts";
import type { Explanation } from "../simulation/explain.ts";
import type { World } from "../world/world.ts";
import type { Divergence, Spot } from "./conform.ts";

/**
 * What happens in the frame in which a game diverges from ours, in words: what ours did, and what the game's did.
 * @param before where the game's walker was a frame earlier; null where that is not known
 * @param explanation of that frame of ours
 */
export function divergenceText(
  world: World,
  { ours, theirs }: Divergence,
  before: Spot | null,
  explanation: Explanation,
): string {
  if (ours.room !== theirs.room)
    return `ours: in ${world.rooms[ours.room]!.name}; yours: in ${world.rooms[theirs.room]!.name}`;
  return `ours: ${oursText(world, explanation)}; yours: ${theirsText(before, theirs)}, ${apartText(ours, theirs)}`;
}

function oursText(world: World, { stoppedBy, pieces }: Explanation): string {
  const [dx, dy] = pieces.reduce(([x, y], piece) => [x + piece.dx, y + piece.dy], [0, 0]);
  const moved = movedText(dx, dy);
  if (stoppedBy === null) return moved;
  const { cx, cy, tile, door } = stoppedBy;
  const what = door ?? (tile < 0 ? "the edge" : world.tiles[tile]!.name);
  return `${dx === 0 && dy === 0 ? "" : `${moved}, `}stopped by ${cx},${cy} ${what}`;
}

function theirsText(before: Spot | null, now: Spot): string {
  if (before === null) return "stands there";
  return before.room === now.room ? movedText(now.x - before.x, now.y - before.y) : "came into the room";
}

function movedText(dx: number, dy: number): string {
  const parts = [
    ...(dx === 0 ? [] : [`${px(dx)} ${dx < 0 ? "left" : "right"}`]),
    ...(dy === 0 ? [] : [`${px(dy)} ${dy < 0 ? "up" : "down"}`]),
  ];
  return parts.length === 0 ? "stood still" : `moved ${parts.join(" and ")}`;
}

function apartText(ours: Spot, theirs: Spot): string {
  const [dx, dy] = [theirs.x - ours.x, theirs.y - ours.y];
  const parts = [
    ...(dx === 0 ? [] : [`${px(dx)} further ${dx < 0 ? "left" : "right"}`]),
    ...(dy === 0 ? [] : [`${px(dy)} further ${dy < 0 ? "up" : "down"}`]),
  ];
  return `which is ${parts.join(" and ")}`;
}

/** A length without its sign, in px. */
function px(units: number): string {
  return `${Math.round((Math.abs(units) / UNITS_PER_PX) * 100) / 100} px`;
}
