import type { ConditionKind } from "../condition-kind.ts";
import { NEVER_HOLDS, NOTHING_MORE, PLAIN_CONDITION, aNumber, oneOf } from "../condition-kind.ts";
import { missing } from "../named-things.ts";
import { isId, wholeNumber } from "../words.ts";

/** The walker holds so many of an item, or more; one where no number is written (null). */
export interface HoldsCondition {
  readonly kind: "holds";
  readonly item: string;
  readonly count: number | null;
}

export const holds: ConditionKind<HoldsCondition> = {
  ...PLAIN_CONDITION,
  form: "holds ITEM [N]",
  parse: (words) => {
    const [item = "", second = ""] = words;
    if (words.length === 1) return isId(item) ? { kind: "holds", item, count: null } : null;
    const count = wholeNumber(second);
    return words.length === 2 && isId(item) && count !== null && count >= 1 ? { kind: "holds", item, count } : null;
  },
  text: ({ item, count }) => (count === null ? `holds ${item}` : `holds ${item} ${count}`),
  expected: (world, { length }) =>
    length === 0
      ? oneOf(
          "an item",
          world.items.map(({ id }) => id),
        )
      : length === 1
        ? aNumber("how many", "whole", 1)
        : NOTHING_MORE,
  dangling: (world, { item }) => (world.items.some(({ id }) => id === item) ? null : missing("item", item)),
  compile: (c, condition) => {
    const item = c.world.items.findIndex(({ id }) => id === condition.item);
    const count = condition.count ?? 1;
    return item < 0 ? NEVER_HOLDS : (s) => s.memory.bag[item]! >= count;
  },
  seen: (c, condition, s) => {
    const item = c.world.items.findIndex(({ id }) => id === condition.item);
    return item < 0 ? missing("item", condition.item) : `holds ${s.memory.bag[item]!}`;
  },
  trueIn: (c, s) =>
    c.world.items.flatMap(({ id }, i): HoldsCondition[] =>
      s.memory.bag[i]! > 0 ? [{ kind: "holds", item: id, count: s.memory.bag[i]! > 1 ? s.memory.bag[i]! : null }] : [],
    ),
};
