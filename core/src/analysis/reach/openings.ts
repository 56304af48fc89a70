import { linksBack, singleChanges } from "../fixes/candidates.ts";
import type { SingleChange } from "../fixes/single-change.ts";
import { changedWorld } from "../fixes/single-change.ts";
import { allFixtures, rulesById } from "../../world/queries.ts";
import type { Fixture } from "../../world/fixtures.ts";
import type { World } from "../../world/world.ts";
import type { ReachQuestion } from "./reach.ts";
import { Reach } from "./reach.ts";
import type { WhyNot } from "./why-not.ts";

/** So many changes are tried, and so many states of each changed world are looked at. */
const MOST_TRIED = 24;
const MOST_STATES = 60_000;

/** Something that is never reached. */
export type Target =
  | { readonly kind: "cell"; readonly room: number; readonly cell: number }
  | { readonly kind: "fixture"; readonly fixture: number };

/** A change that opens the way to something, and the moves there then. */
export interface Opening {
  readonly change: SingleChange;
  readonly moves: number;
}

/** The single changes that might open a way: of the doors that are shut, what their locks ask for, and the cells between. */
export function openingChanges(world: World, rulesId: string, whyNot: WhyNot, target: Target): SingleChange[] {
  const rules = rulesById(world, rulesId)!;
  const all = allFixtures(world);
  const spot = spotOf(world, target);
  const reason = target.kind === "fixture" ? whyNot.ofFixture(target.fixture) : whyNot.ofCell(target.room, target.cell);
  const doors = new Set(
    reason.kind === "behind" ? reason.doors : target.kind === "fixture" ? [all[target.fixture]!.id] : [],
  );
  const items = new Set(
    all.flatMap((each) =>
      doors.has(each.id) && each.kind === "door" && each.lock.kind === "item" ? [each.lock.item] : [],
    ),
  );
  const matters = (fixture: Fixture): boolean =>
    doors.has(fixture.id) ||
    (fixture.kind === "item" && items.has(fixture.give)) ||
    (fixture.kind === "door" && fixture.lock.kind === "item" && items.has(fixture.lock.item));
  const blockers = whyNot.blockersOf(spot.room, spot.cell);
  return [...(reason.kind === "one way" ? linksBack(world) : []), ...singleChanges(world, rules, [], blockers)]
    .filter(
      (change) =>
        change.path === "cell" ||
        change.path === "link" ||
        (change.path === "fixture" && matters(change.value as Fixture)) ||
        (reason.kind === "does not fit" && change.path === "walker.body"),
    )
    .slice(0, MOST_TRIED);
}

/** Tries a change on a copy; null where it does not open the way. */
export function tryOpening(
  world: World,
  rules: string,
  from: ReachQuestion["from"],
  target: Target,
  change: SingleChange,
): Opening | null {
  const changed = changedWorld(world, rules, change);
  const reach = new Reach(changed, { rules, limit: MOST_STATES, ...(from === undefined ? {} : { from }) });
  const answer = reach.answer();
  const moves = target.kind === "fixture" ? answer.fixtures[target.fixture]! : answer.first[target.room]![target.cell]!;
  return moves >= 0 ? { change, moves } : null;
}

function spotOf(world: World, target: Target): { readonly room: number; readonly cell: number } {
  if (target.kind === "cell") return target;
  const fixture = allFixtures(world)[target.fixture]!;
  const room = world.rooms.findIndex(({ fixtures }) => fixtures.some(({ id }) => id === fixture.id));
  return { room, cell: fixture.cell[1] * world.rooms[room]!.width + fixture.cell[0] };
}
