import { pxText } from "../../base/units.ts";
import type { SimState } from "../../compiled/state.ts";
import type { ConditionKind } from "../condition-kind.ts";
import { PLAIN_CONDITION } from "../condition-kind.ts";

/** The walker is where it was in the row before. */
export interface StillCondition {
  readonly kind: "still";
}

export const still: ConditionKind<StillCondition> = {
  ...PLAIN_CONDITION,
  form: "still",
  parse: (words) => (words.length === 0 ? { kind: "still" } : null),
  text: () => "still",
  compile: () => isStill,
  seen: (_c, _, s) => (isStill(s) ? "still" : `moved ${pxText(s.x - s.previousX)} ${pxText(s.y - s.previousY)} px`),
  trueIn: () => [{ kind: "still" }],
};

function isStill(s: SimState): boolean {
  return s.room === s.previousRoom && s.x === s.previousX && s.y === s.previousY;
}
