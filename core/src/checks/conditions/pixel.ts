import { unitsFromPx } from "../../base/units.ts";
import type { ConditionKind } from "../condition-kind.ts";
import { NOTHING_MORE, PLAIN_CONDITION, aNumber } from "../condition-kind.ts";
import { positionText } from "../seen-place.ts";
import { decimal } from "../words.ts";

/** The frame-square's corner is at a position in px. */
export interface PixelCondition {
  readonly kind: "pixel";
  readonly x: number;
  readonly y: number;
}

export const pixel: ConditionKind<PixelCondition> = {
  ...PLAIN_CONDITION,
  form: "pixel X Y",
  parse: (words) => {
    const [a = "", b = ""] = words;
    const x = decimal(a);
    const y = decimal(b);
    return words.length === 2 && x !== null && y !== null ? { kind: "pixel", x, y } : null;
  },
  text: ({ x, y }) => `pixel ${x} ${y}`,
  expected: (_, { length }) => (length < 2 ? aNumber("px", "decimal") : NOTHING_MORE),
  follow: (condition, change) => {
    const [x, y] = change.pixel([condition.x, condition.y]);
    return x === condition.x && y === condition.y ? condition : { kind: "pixel", x, y };
  },
  compile: (_, condition) => {
    const x = unitsFromPx(condition.x);
    const y = unitsFromPx(condition.y);
    return (s) => s.x === x && s.y === y;
  },
  seen: (_c, _, s) => positionText(s),
};
