import { judgeReach } from "@keen-pebble/core/analyse";
import type { ReachRuling } from "@keen-pebble/core/check";
import type { World } from "@keen-pebble/core/world";

/** Others wait for the desk: a world with more states than this has its checks open. */
const MOST_STATES = 200_000;

/** What the world's reach checks come to, as JUnit XML is made of it; nothing where it has none. */
export function reachReports(world: World): { readonly reach: true; readonly checks: readonly ReachRuling[] }[] {
  return world.reachChecks.length === 0 ? [] : [{ reach: true, checks: judgeReach(world, MOST_STATES) }];
}
