import type { Actor, Phase } from "./actors.ts";
import type { Pair } from "./world.ts";

/**
 * An actor of a room whose cells are moved: its path goes along without the cells that are cut off. None where its own
 * cell is; both are told.
 */
export function movedActor(
  actor: Actor,
  moved: (cell: Pair) => Pair,
  inside: (cell: Pair) => boolean,
  fellAway: string[],
): Actor[] {
  const cell = moved(actor.cell);
  if (!inside(cell)) {
    fellAway.push(`${actor.id}, which stood in what was cut off`);
    return [];
  }
  const plan = actor.plan.map((phase): Phase => {
    if (phase.do !== "path") return phase;
    const cells = phase.cells.map(moved).filter(inside);
    if (cells.length < phase.cells.length) fellAway.push(`cells of the path of ${actor.id} that were cut off`);
    return cells.length === 0 ? { frames: phase.frames, do: "stand" } : { ...phase, cells };
  });
  return [{ ...actor, cell, plan }];
}
