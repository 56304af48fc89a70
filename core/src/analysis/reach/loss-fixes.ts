import { linksBack, singleChanges } from "../fixes/candidates.ts";
import type { SingleChange } from "../fixes/single-change.ts";
import { changedWorld } from "../fixes/single-change.ts";
import { rulesById } from "../../world/queries.ts";
import type { World } from "../../world/world.ts";
import type { ReachAnswer, StuckWay } from "./answer.ts";
import type { ReachQuestion } from "./reach.ts";
import { Reach } from "./reach.ts";

/** So many changes are tried, and so many states of each changed world are looked at. */
const MOST_TRIED = 80;
const MOST_STATES = 60_000;

/** What goes wrong for good: somebody gets stuck with what is taken, open and on, or an item fixture is lost. */
export type Loss =
  | ({ readonly kind: "stuck" } & Pick<StuckWay, "taken" | "open" | "on">)
  | { readonly kind: "lost"; readonly fixture: number; readonly id: string };

/** A change after which it does not go wrong any more, and how many ways to get stuck and items to lose there are then. */
export interface LossFix {
  readonly change: SingleChange;
  readonly stuck: number;
  readonly losable: number;
}

/** The single changes that might fix a loss: of ways that lead only there, of locks, of what returns, of how much there is. */
export function lossFixes(world: World, rulesId: string): SingleChange[] {
  const ofFixtures = singleChanges(world, rulesById(world, rulesId)!).filter(({ path }) => path === "fixture");
  return [...linksBack(world), ...ofFixtures].slice(0, MOST_TRIED);
}

/** Tries a change on a copy; null where the loss is still there, or the goal cannot be reached any more. */
export function tryLossFix(
  world: World,
  rules: string,
  from: ReachQuestion["from"],
  loss: Loss,
  change: SingleChange,
): LossFix | null {
  const changed = changedWorld(world, rules, change);
  const question = { rules, limit: MOST_STATES, ...(from === undefined ? {} : { from }) };
  const answer = new Reach(changed, question).answer();
  if (answer.losable === null || (answer.goal !== null && answer.goal < 0) || isThere(loss, answer)) return null;
  return { change, stuck: answer.stuck?.classes.length ?? 0, losable: answer.losable.length };
}

function isThere(loss: Loss, { fixtures, losable, stuck }: ReachAnswer): boolean {
  if (loss.kind === "lost") return fixtures[loss.fixture]! < 0 || losable!.some(({ fixture }) => fixture === loss.id);
  const same = (a: readonly string[], b: readonly string[]): boolean => a.join("\n") === b.join("\n");
  return (stuck?.classes ?? []).some(
    ({ taken, open, on }) => same(taken, loss.taken) && same(open, loss.open) && same(on, loss.on),
  );
}

/** What is left of losses after a change, in words. */
export function lossFixText({ stuck, losable }: LossFix): string {
  const parts = [
    ...(stuck > 0 ? [`${stuck} ${stuck === 1 ? "way" : "ways"} to get stuck`] : []),
    ...(losable > 0 ? [`${losable} ${losable === 1 ? "item" : "items"} to lose`] : []),
  ];
  return parts.length === 0 ? "then nobody can get stuck" : `then still ${parts.join(", ")}`;
}
