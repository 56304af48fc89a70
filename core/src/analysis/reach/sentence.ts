import { allFixtures } from "../../world/queries.ts";
import type { World } from "../../world/world.ts";
import type { ReachAnswer } from "./answer.ts";
import { NEVER, UNDECIDED } from "./answer.ts";

/** What a search came to, in one sentence to paste into a message. */
export function reachSentence(world: World, answer: ReachAnswer): string {
  return `${[things(world, answer), goal(answer), stuck(answer), lost(answer), aligned(answer)].filter((part) => part !== "").join("; ")}.`;
}

const count = (n: number, one: string, many = `${one}s`): string => `${n} ${n === 1 ? one : many}`;
const counted = (n: number, unit: ReachAnswer["unit"]): string => count(n, unit.slice(0, -1));

function things(world: World, { fixtures }: ReachAnswer): string {
  const all = allFixtures(world);
  if (all.length === 0) return "There is nothing to reach";
  const never = all.filter((_, i) => fixtures[i] === NEVER);
  const open = all.filter((_, i) => fixtures[i] === UNDECIDED);
  if (never.length === 0 && open.length === 0)
    return all.length === 1 ? "The one thing can be reached" : `All ${all.length} things can be reached`;
  return [
    ...(never.length > 0
      ? [`${count(never.length, "thing")} of ${all.length} can never be reached: ${named(never.map(({ id }) => id))}`]
      : []),
    ...(open.length > 0 ? [`of ${count(open.length, "thing")} it is open: ${named(open.map(({ id }) => id))}`] : []),
  ].join("; ");
}

/** The first few of some names. */
const named = (ids: readonly string[]): string =>
  ids.length <= 3 ? ids.join(", ") : `${ids.slice(0, 2).join(", ")} and ${ids.length - 2} more`;

function goal({ goal: n, unit }: ReachAnswer): string {
  if (n === null) return "there is no goal";
  if (n === NEVER) return "the goal can never be reached";
  return n === UNDECIDED ? "whether the goal can be reached is open" : `the goal in ${counted(n, unit)}`;
}

function stuck({ goal: n, stuck: found, exhaustive, losable }: ReachAnswer): string {
  if (n === null || found === null || n < 0) return "";
  const [nearest] = found.classes;
  if (nearest !== undefined)
    return `one can get stuck in ${count(found.classes.length, "way")}, first after ${counted(nearest.moves, "moves")}`;
  return exhaustive && losable !== null ? "nobody can get stuck" : "whether one can get stuck is open";
}

function lost({ losable }: ReachAnswer): string {
  if (losable === null || losable.length === 0) return "";
  return `${named(losable.map(({ fixture }) => fixture))} can be lost for good`;
}

function aligned({ alignment: { verdict, way } }: ReachAnswer): string {
  if (verdict === "proved") return "always on the grid at rest";
  return verdict === "broken"
    ? `off the grid at rest after ${counted(way!.moves, "frames")}`
    : "whether it always rests on the grid is open";
}
