import type { Compiled } from "../../compiled/compiled.ts";
import { doorIn } from "../../compiled/door-in-cell.ts";
import { isFree } from "../../ground/free.ts";
import { compile } from "../../simulation/compile.ts";
import { startState } from "../../simulation/start-state.ts";
import type { Pair, World } from "../../world/world.ts";
import type { Finding } from "./finding.ts";

const BESIDE = [
  [1, 0],
  [0, 1],
  [-1, 0],
  [0, -1],
] as const;

/** That the walker cannot begin: its start is in what blocks it, or nothing beside it is free. Null where it can. */
export function startFinding(world: World, c: Compiled = compile(world)): Finding | null {
  const { room, ground } = startState(c);
  const { width, height, fixtures } = world.rooms[room]!;
  const t = c.tileUnits;
  const faultAt = ([x, y]: Pair): string | null => {
    if (!isFree(ground, room, x * t, y * t)) return "inside something that blocks it";
    const hasWay = BESIDE.some(([dx, dy]) => {
      const [cx, cy] = [x + dx, y + dy];
      if (isFree(ground, room, cx * t, cy * t)) return true;
      // A door is a way that may open.
      return cx >= 0 && cy >= 0 && cx < width && cy < height && doorIn(c, room, cy * width + cx) >= 0;
    });
    const leads = fixtures.some(({ kind, cell }) => kind === "portal" && cell[0] === x && cell[1] === y);
    return hasWay || leads ? null : "shut in, with nothing free beside it";
  };
  const fault = faultAt(world.start.cell);
  if (fault === null) return null;
  const better = nearestTo(world.start.cell, width, height, (cell) => faultAt(cell) === null);
  const where = better === null ? "no other cell of the room is better" : `cell ${better.join(",")} is free`;
  return {
    place: "start.cell",
    message: `the walker starts ${fault}: ${where}`,
    ...(better === null ? {} : { start: { room: world.start.room, cell: better } }),
  };
}

/** The cell nearest to another one that fits; of equally near ones the first in reading order. */
function nearestTo([fromX, fromY]: Pair, width: number, height: number, fits: (cell: Pair) => boolean): Pair | null {
  const cells = Array.from({ length: width * height }, (_, i): Pair => [i % width, Math.floor(i / width)]);
  const far = ([x, y]: Pair): number => Math.abs(x - fromX) + Math.abs(y - fromY);
  return cells.sort((a, b) => far(a) - far(b)).find(fits) ?? null;
}
