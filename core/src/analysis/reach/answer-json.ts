import { EMPTY_LOG } from "../../logs/input-log.ts";
import { mergeLines, writeLog } from "../../logs/write-log.ts";
import type { World } from "../../world/world.ts";
import { allFixtures } from "../../world/queries.ts";
import type { ReachAnswer, Way } from "./answer.ts";

/** A reach answer as `reach --json` prints it (formats.md section 5). */
export function reachJson(world: World, rules: string, answer: ReachAnswer): object {
  const text = (way: Way | null): string | null => (way === null ? null : wayText(world, rules, way));
  const { gait, unit, exhaustive, shortest, states, losable, alignment, goal, stuck, unconfirmed } = answer;
  const fixtures = allFixtures(world).map(({ id }, i) => [id, answer.fixtures[i]!] as const);
  return {
    gait,
    unit,
    exhaustive,
    shortest,
    states,
    rooms: Object.fromEntries(
      world.rooms.map(({ id, width, height }, room) => [
        id,
        {
          first: Array.from({ length: height }, (_, y) =>
            Array.from(answer.first[room]!.subarray(y * width, (y + 1) * width)),
          ),
        },
      ]),
    ),
    fixtures: Object.fromEntries(fixtures),
    losable: losable && losable.map(({ fixture }) => fixture),
    alignment: { verdict: alignment.verdict, log: text(alignment.way) },
    goal,
    stuck: stuck && {
      states: stuck.states,
      classes: stuck.classes.map(({ taken, open, on, ...way }) => ({
        taken,
        open,
        on,
        moves: way.moves,
        log: text(way),
      })),
    },
    ...(unconfirmed.length === 0 ? {} : { unconfirmed }),
  };
}

/** The log that plays a way. */
export function wayText(world: World, rules: string, way: Way, title: string | null = null): string {
  return writeLog({ ...EMPTY_LOG, world: world.id, rules, title, lines: mergeLines(way.lines) });
}
