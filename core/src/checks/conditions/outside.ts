import { isOutside } from "../../rooms/crossing.ts";
import type { ConditionKind } from "../condition-kind.ts";
import { PLAIN_CONDITION } from "../condition-kind.ts";
import { positionText } from "../seen-place.ts";

/** The frame-square is partly past a side that is a wall. */
export interface OutsideCondition {
  readonly kind: "outside";
}

export const outside: ConditionKind<OutsideCondition> = {
  ...PLAIN_CONDITION,
  form: "outside",
  parse: (words) => (words.length === 0 ? { kind: "outside" } : null),
  text: () => "outside",
  compile: (c) => (s) => isOutside(c, s.room, s.x, s.y),
  seen: (c, _, s) => `${isOutside(c, s.room, s.x, s.y) ? "outside" : "inside"} at ${positionText(s)}`,
  trueIn: () => [{ kind: "outside" }],
  offeredWhen: "never",
};
