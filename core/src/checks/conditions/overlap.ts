import { isFree } from "../../ground/free.ts";
import type { ConditionKind } from "../condition-kind.ts";
import { PLAIN_CONDITION } from "../condition-kind.ts";
import { positionText } from "../seen-place.ts";

/** The body overlaps what blocks it. */
export interface OverlapCondition {
  readonly kind: "overlap";
}

export const overlap: ConditionKind<OverlapCondition> = {
  ...PLAIN_CONDITION,
  form: "overlap",
  parse: (words) => (words.length === 0 ? { kind: "overlap" } : null),
  text: () => "overlap",
  compile: () => (s) => !isFree(s.ground, s.room, s.x, s.y),
  seen: (_c, _, s) =>
    isFree(s.ground, s.room, s.x, s.y) ? `free at ${positionText(s)}` : `overlaps at ${positionText(s)}`,
  trueIn: () => [{ kind: "overlap" }],
  offeredWhen: "never",
};
