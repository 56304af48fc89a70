import type { ConditionKind } from "../condition-kind.ts";
import { NEVER_HOLDS } from "../condition-kind.ts";
import { aboutFixture } from "../fixture-condition.ts";
import { fixtureNumber, missingFixture } from "../named-things.ts";

/** A door is open. */
export interface OpenCondition {
  readonly kind: "open";
  readonly fixture: string;
}

export const open: ConditionKind<OpenCondition> = {
  ...aboutFixture("open", "a door", "door"),
  compile: (c, condition) => {
    const number = fixtureNumber(c, condition.fixture);
    return number < 0 ? NEVER_HOLDS : (s) => s.memory.open[number] === 1;
  },
  seen: (c, condition, s) =>
    missingFixture(c.world, condition.fixture) ??
    (s.memory.open[fixtureNumber(c, condition.fixture)] === 1 ? "open" : "closed"),
  ofEvent: ({ event, subject }) => (event === "open" ? { kind: "open", fixture: subject! } : null),
};
