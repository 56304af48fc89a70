import type {
  Loss,
  PlayedWay,
  ReachAnswer,
  ReachQuestion,
  ReachVerdict,
  SingleChange,
  Target,
  Untested,
  Way,
} from "@keen-pebble/core/analyse";
import {
  NEVER,
  Reach,
  WhyNot,
  changeText,
  judgeChecks,
  lossFixText,
  lossFixes,
  openingChanges,
  playWay,
  reachSentence,
  reasonText,
  tryLossFix,
  tryOpening,
  untestedBy,
} from "@keen-pebble/core/analyse";
import { readLog } from "@keen-pebble/core/check";
import type { RunStart } from "@keen-pebble/core/simulate";
import type { World } from "@keen-pebble/core/world";
import { CoreError, allFixtures, rulesById } from "@keen-pebble/core/world";
import type { Refused } from "./simulation.ts";

/** What can be reached in a world, and all that the page shows of it. */
export interface ReachShown {
  readonly answer: ReachAnswer;
  readonly sentence: string;
  /** By fixture why it is never reached, in words; null where it is, or where that is open. */
  readonly reasons: readonly (string | null)[];
  readonly verdicts: readonly ReachVerdict[];
  readonly untested: Untested;
  readonly took: number;
}

/** Something whose way is asked for. */
export type WayTo =
  | { readonly kind: "cell"; readonly room: number; readonly cell: number }
  | { readonly kind: "fixture"; readonly fixture: number }
  | { readonly kind: "goal" }
  | { readonly kind: "way"; readonly way: Way };

/** A way with its rows, or why there is none. */
export type WayAnswer = { readonly way: Way; readonly played: PlayedWay } | { readonly never: string | null };

/** A single change that opens the way to something, or fixes a loss; in words, with what is so then. */
export interface ReachFix {
  readonly change: SingleChange;
  readonly text: string;
  readonly then: string;
}

const openedText = (opening: ReturnType<typeof tryOpening>): string | null => opening && `then in ${opening.moves}`;
const fixedText = (fix: ReturnType<typeof tryLossFix>): string | null => fix && lossFixText(fix);

let current = 0;
let asked: {
  readonly world: World;
  readonly rules: string;
  readonly from: RunStart | null;
  readonly reach: Reach;
  readonly whyNot: () => WhyNot;
} | null = null;

const breathe = (): Promise<void> => new Promise((go) => setTimeout(go, 0));

export const reach = {
  /** Takes back what is under way. */
  cancel(): void {
    current++;
  },

  /**
   * Searches a world; a later question takes this one's place.
   * @param tell told how many states were looked at
   * @returns null where it was taken back
   */
  async ask(
    world: World,
    logs: readonly string[],
    { rules = world.activeRules, from, ...question }: ReachQuestion,
    tell: (states: number) => void,
  ): Promise<ReachShown | Refused | null> {
    const mine = ++current;
    const began = performance.now();
    try {
      const search = new Reach(world, { rules, ...question, ...(from === undefined ? {} : { from }) });
      while (!search.work()) {
        tell(search.states);
        await breathe();
        if (mine !== current) return null;
      }
      const answer = search.answer();
      let known: WhyNot | null = null;
      const whyNot = (): WhyNot => (known ??= new WhyNot(world, rules, answer));
      asked = { world, rules, from: from ?? null, reach: search, whyNot };
      return {
        answer,
        sentence: reachSentence(world, answer),
        reasons: allFixtures(world).map((_, i) =>
          answer.fixtures[i] === NEVER ? reasonText(whyNot().ofFixture(i)) : null,
        ),
        verdicts: judgeChecks(world, search, world.reachChecks),
        untested: untestedBy(
          world,
          logs.map((text) => readLog(text)),
          answer,
        ),
        took: performance.now() - began,
      };
    } catch (error) {
      if (error instanceof CoreError) return { refused: error.message };
      throw error;
    }
  },

  /**
   * Tries single changes that would open the way to something which is never reached, or fix a loss.
   * @param tell told of each that does
   */
  async fixes(target: Target | Loss, tell: (fix: ReachFix) => void): Promise<void> {
    if (asked === null) return;
    const mine = current;
    const { world, rules, from, whyNot } = asked;
    const named = rulesById(world, rules)!;
    const isLoss = target.kind === "stuck" || target.kind === "lost";
    for (const change of isLoss ? lossFixes(world, rules) : openingChanges(world, rules, whyNot(), target)) {
      const then = isLoss
        ? fixedText(tryLossFix(world, rules, from ?? undefined, target, change))
        : openedText(tryOpening(world, rules, from ?? undefined, target, change));
      if (mine !== current) return;
      if (then !== null) tell({ change, text: changeText(world, named, change), then });
      await breathe();
    }
  },

  /** The nearest known way to something of the last answer. */
  way(to: WayTo): WayAnswer {
    if (asked === null) return { never: null };
    const { world, rules, from } = asked;
    const way = find(to);
    if (way !== null) return { way, played: playWay(world, rules, from, way) };
    if (to.kind === "cell") return { never: reasonText(asked.whyNot().ofCell(to.room, to.cell)) };
    return { never: to.kind === "fixture" ? reasonText(asked.whyNot().ofFixture(to.fixture)) : null };
  },
};

function find(to: WayTo): Way | null {
  const { reach: search } = asked!;
  switch (to.kind) {
    case "cell":
      return search.wayToCell(to.room, to.cell);
    case "fixture":
      return search.wayToFixture(to.fixture);
    case "goal":
      return search.wayToGoal();
    case "way":
      return to.way;
  }
}

export type ReachWorker = typeof reach;
