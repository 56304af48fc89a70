import type { ConditionKind } from "../condition-kind.ts";
import { NEVER_HOLDS, NOTHING_MORE, PLAIN_CONDITION, aNumber } from "../condition-kind.ts";
import { wholeNumber } from "../words.ts";

/** So many lives are left. */
export interface LivesCondition {
  readonly kind: "lives";
  readonly lives: number;
}

export const lives: ConditionKind<LivesCondition> = {
  ...PLAIN_CONDITION,
  form: "lives N",
  parse: ([first = "", ...more]) => {
    const count = wholeNumber(first);
    return more.length === 0 && count !== null ? { kind: "lives", lives: count } : null;
  },
  text: (condition) => `lives ${condition.lives}`,
  expected: (_, { length }) => (length === 0 ? aNumber("how many") : NOTHING_MORE),
  compile: (c, condition) => (c.countsLives ? (s) => s.memory.lives === condition.lives : NEVER_HOLDS),
  seen: (c, _, s) => (c.countsLives ? `lives ${s.memory.lives}` : "lives are not counted"),
};
