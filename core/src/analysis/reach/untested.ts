import type { InputLog } from "../../logs/input-log.ts";
import { occupiedX, occupiedY } from "../../ground/occupied.ts";
import { run } from "../../replay/run.ts";
import { CoreError } from "../../base/core-error.ts";
import { compile } from "../../simulation/compile.ts";
import { startState } from "../../simulation/start-state.ts";
import { allFixtures } from "../../world/queries.ts";
import type { Pair, World } from "../../world/world.ts";
import type { ReachAnswer } from "./answer.ts";
import { doingsOf } from "./doings.ts";

/** What can be reached and no row of any log reached. */
export interface Untested {
  /** By room, in the rooms' order. */
  readonly cells: readonly (readonly Pair[])[];
  readonly fixtures: readonly string[];
}

/** What of an answer no log reaches; logs that cannot be run reach nothing. */
export function untestedBy(world: World, logs: readonly InputLog[], answer: ReachAnswer): Untested {
  const walked = world.rooms.map(({ width, height }) => new Uint8Array(width * height));
  const done = new Uint8Array(allFixtures(world).length);
  for (const log of logs) walk(world, log, walked, done);
  return {
    cells: world.rooms.map(({ width }, room) =>
      [...answer.first[room]!].flatMap((n, cell): Pair[] =>
        n >= 0 && walked[room]![cell] === 0 ? [[cell % width, Math.floor(cell / width)]] : [],
      ),
    ),
    fixtures: allFixtures(world).flatMap(({ id }, i) => (answer.fixtures[i]! >= 0 && done[i] === 0 ? [id] : [])),
  };
}

function walk(world: World, log: InputLog, walked: readonly Uint8Array[], done: Uint8Array): void {
  try {
    const c = compile(world, log.rules ?? undefined);
    const { open } = startState(c, log.start ?? undefined, log.with).memory;
    for (let i = 0; i < done.length; i++) if (open[i] === 1) done[i] = 1;
    const rows = run(c, log, { rows: true }).rows!;
    for (let i = 0; i < rows.count; i++) {
      const { width, height } = c.rooms[rows.room[i]!]!;
      const [x, y] = [occupiedX(c.tileUnits, rows.x[i]!), occupiedY(c.tileUnits, rows.y[i]!)];
      if (x >= 0 && y >= 0 && x < width && y < height) walked[rows.room[i]!]![y * width + x] = 1;
    }
    for (const fixture of doingsOf(rows)) done[fixture] = 1;
  } catch (error) {
    if (!(error instanceof CoreError)) throw error;
  }
}
