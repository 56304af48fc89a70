import type { ConditionKind } from "../condition-kind.ts";
import { NEVER_HOLDS } from "../condition-kind.ts";
import { aboutFixture } from "../fixture-condition.ts";
import { fixtureNumber, missingFixture } from "../named-things.ts";

/** An item is gone from the floor. */
export interface TakenCondition {
  readonly kind: "taken";
  readonly fixture: string;
}

export const taken: ConditionKind<TakenCondition> = {
  ...aboutFixture("taken", "an item on the floor", "item"),
  compile: (c, condition) => {
    const number = fixtureNumber(c, condition.fixture);
    return number < 0 ? NEVER_HOLDS : (s) => s.memory.taken[number] === 1;
  },
  seen: (c, condition, s) =>
    missingFixture(c.world, condition.fixture) ??
    (s.memory.taken[fixtureNumber(c, condition.fixture)] === 1 ? "taken" : "there"),
  ofEvent: ({ event, subject }) => (event === "take" ? { kind: "taken", fixture: subject! } : null),
};
