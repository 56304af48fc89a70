import type { Facing } from "../../world/facing.ts";
import { FACINGS, isFacing } from "../../world/facing.ts";
import type { ConditionKind } from "../condition-kind.ts";
import { NOTHING_MORE, PLAIN_CONDITION, oneOf } from "../condition-kind.ts";

/** The walker faces that way. */
export interface FacingCondition {
  readonly kind: "facing";
  readonly facing: Facing;
}

export const facing: ConditionKind<FacingCondition> = {
  ...PLAIN_CONDITION,
  form: "facing DIR",
  parse: ([name = "", ...more]) => (more.length === 0 && isFacing(name) ? { kind: "facing", facing: name } : null),
  text: (condition) => `facing ${condition.facing}`,
  expected: (_, { length }) => (length === 0 ? oneOf("a direction", FACINGS) : NOTHING_MORE),
  compile: (_, condition) => {
    const number = FACINGS.indexOf(condition.facing);
    return (s) => s.facing === number;
  },
  seen: (_c, _, s) => `facing ${FACINGS[s.facing]!}`,
  trueIn: (_, s) => [{ kind: "facing", facing: FACINGS[s.facing]! }],
};
