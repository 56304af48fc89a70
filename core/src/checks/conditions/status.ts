import { PLAYING, STATUS_NAMES } from "../../world/vocabulary.ts";
import type { ConditionKind } from "../condition-kind.ts";
import { NOTHING_MORE, PLAIN_CONDITION, oneOf } from "../condition-kind.ts";

/** The run goes on, or has ended so. */
export interface StatusCondition {
  readonly kind: "status";
  readonly status: (typeof STATUS_NAMES)[number];
}

const ENDS: readonly string[] = ["win", "lose", "escape"];

export const status: ConditionKind<StatusCondition> = {
  ...PLAIN_CONDITION,
  form: "status won|lost|escaped|playing",
  parse: ([first = "", ...more]) => {
    const name = STATUS_NAMES.find((each) => each === first);
    return more.length === 0 && name !== undefined ? { kind: "status", status: name } : null;
  },
  text: (condition) => `status ${condition.status}`,
  expected: (_, { length }) => (length === 0 ? oneOf("a status", STATUS_NAMES) : NOTHING_MORE),
  compile: (_, condition) => {
    const number = STATUS_NAMES.indexOf(condition.status);
    return (s) => s.status === number;
  },
  seen: (_c, _, s) => `status ${STATUS_NAMES[s.status]!}`,
  trueIn: (_, s) => (s.status === PLAYING ? [] : [{ kind: "status", status: STATUS_NAMES[s.status]! }]),
  offeredWhen: "end",
  ofEvent: ({ event }, s) => (ENDS.includes(event) ? { kind: "status", status: STATUS_NAMES[s.status]! } : null),
};
