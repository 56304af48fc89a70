import { reachJson, wayText } from "../../analysis/reach/answer-json.ts";
import { NEVER } from "../../analysis/reach/answer.ts";
import { FreeSuperset } from "../../analysis/reach/free-superset.ts";
import { GridSuperset } from "../../analysis/reach/grid-superset.ts";
import { judgeChecks } from "../../analysis/reach/judge.ts";
import { isLossless } from "../../analysis/reach/lossless.ts";
import { lossFixText, lossFixes, tryLossFix } from "../../analysis/reach/loss-fixes.ts";
import type { Target } from "../../analysis/reach/openings.ts";
import { openingChanges, tryOpening } from "../../analysis/reach/openings.ts";
import { Reach } from "../../analysis/reach/reach.ts";
import { reachSentence } from "../../analysis/reach/sentence.ts";
import { playWay } from "../../analysis/reach/way-steps.ts";
import { sturdyLines } from "../../analysis/reach/sturdy-way.ts";
import { untestedBy } from "../../analysis/reach/untested.ts";
import { WhyNot, reasonText } from "../../analysis/reach/why-not.ts";
import { changeText } from "../../analysis/fixes/single-change.ts";
import { compile } from "../../simulation/compile.ts";
import { startState } from "../../simulation/start-state.ts";
import { allFixtures, rulesById } from "../../world/queries.ts";
import type { World } from "../../world/world.ts";
import type { Given, Questions } from "./given.ts";
import { answered, playChecks } from "./given.ts";

/** So many states are looked at: enough for most of these worlds on the grid. */
const STATES = 600;

/** All that can be told of what can be reached in a world. */
function told({ world, logs }: Given, limit: number): unknown {
  const reach = new Reach(world, { limit });
  const answer = reach.answer();
  const ways = allFixtures(world).map((_, i) => reach.wayToFixture(i));
  return [
    answer,
    reachJson(world, world.activeRules, answer),
    reachSentence(world, answer),
    untestedBy(world, logs, answer),
    judgeChecks(world, reach, [...playChecks(world), "reachable nothing", "reachable cell 511 0 in a"]),
    ways,
    ways.slice(0, 4).map((way) => {
      if (way === null) return null;
      const played = playWay(world, world.activeRules, null, way);
      return [
        wayText(world, world.activeRules, way),
        played.steps,
        sturdyLines(world, world.activeRules, null, way, played),
      ];
    }),
    reach.wayToGoal(),
    answer.first.map((cells, room) =>
      [0, 7, 15].filter((cell) => cell < cells.length).map((cell) => reach.wayToCell(room, cell)),
    ),
  ];
}

/** What is never reached: two fixtures, and a cell of each room. */
function neverReached(reach: Reach): Target[] {
  const answer = reach.answer();
  const fixtures = [...answer.fixtures].flatMap((n, fixture) =>
    n === NEVER ? [{ kind: "fixture" as const, fixture }] : [],
  );
  const cells = answer.first.flatMap((numbers, room) =>
    [...numbers].flatMap((n, cell) => (n === NEVER ? [{ kind: "cell" as const, room, cell }] : [])).slice(0, 1),
  );
  return [...fixtures.slice(0, 2), ...cells];
}

/** Nothing can be lost where there is nothing. */
const hasNothing = (world: World): boolean => allFixtures(world).length === 0;

/** What can be reached. */
export const REACH: Questions = {
  "what can be reached": (given) => (given.name === "demo" ? null : answered(() => told(given, STATES))),
  "what can be reached, too much to be looked at whole": (given) =>
    given.name === "demo" ? null : answered(() => told(given, 15)),
  "more than can be reached": ({ world }) =>
    world.rules.map(({ id }) => {
      const c = { ...compile(world, id), actors: null };
      const start = startState(c);
      if (!c.onGrid) return FreeSuperset.applies(c) ? new FreeSuperset(c, start).comes : null;
      const superset = new GridSuperset(c, start);
      const { comes, fixtures, goal, rests, reversible } = superset;
      return [comes, fixtures, goal, rests, reversible, isLossless(c, superset)];
    }),
  "why not, and what would open the way": ({ world, name }) => {
    if (name === "demo") return null;
    const rules = rulesById(world, world.activeRules)!;
    const reach = new Reach(world, { limit: STATES });
    const whyNot = new WhyNot(world, world.activeRules, reach.answer());
    // To look at a changed world off the grid takes long.
    const tries = compile(world).onGrid ? 2 : 0;
    return neverReached(reach).map((target) => {
      const reason =
        target.kind === "fixture" ? whyNot.ofFixture(target.fixture) : whyNot.ofCell(target.room, target.cell);
      const changes = openingChanges(world, world.activeRules, whyNot, target);
      return [
        reasonText(reason),
        changes.map((change) => changeText(world, rules, change)),
        changes
          .slice(0, tries)
          .map((change) => answered(() => tryOpening(world, world.activeRules, undefined, target, change))),
      ];
    });
  },
  "what would mend a loss": ({ world, name }) => {
    if (hasNothing(world)) return null;
    const rules = rulesById(world, world.activeRules)!;
    const changes = lossFixes(world, world.activeRules);
    const { stuck } = name === "demo" ? { stuck: null } : new Reach(world, { limit: STATES }).answer();
    const classes = stuck?.classes.slice(0, 1) ?? [];
    return [
      changes.map((change) => changeText(world, rules, change)),
      classes.map(({ taken, open, on }) =>
        changes.slice(0, 4).map((change) => {
          const fix = answered(() =>
            tryLossFix(world, world.activeRules, undefined, { kind: "stuck", taken, open, on }, change),
          ) as ReturnType<typeof tryLossFix>;
          return fix && lossFixText(fix);
        }),
      ),
    ];
  },
};
