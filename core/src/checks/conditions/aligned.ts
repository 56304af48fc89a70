import { pxText } from "../../base/units.ts";
import type { ConditionKind } from "../condition-kind.ts";
import { NOTHING_MORE, PLAIN_CONDITION, oneOf } from "../condition-kind.ts";
import { gridDistance, isOnGrid } from "../grid.ts";
import { positionText } from "../seen-place.ts";

/** The walker is on the grid, or on a leg between two cells or, in free gaits, moving; strictly: on the grid. */
export interface AlignedCondition {
  readonly kind: "aligned";
  readonly strictly: boolean;
}

export const aligned: ConditionKind<AlignedCondition> = {
  ...PLAIN_CONDITION,
  form: "aligned [strictly]",
  parse: ([word, ...more]) =>
    more.length > 0 || (word !== undefined && word !== "strictly")
      ? null
      : { kind: "aligned", strictly: word === "strictly" },
  text: ({ strictly }) => (strictly ? "aligned strictly" : "aligned"),
  expected: (_, { length }) => (length === 0 ? oneOf("`strictly`", ["strictly"]) : NOTHING_MORE),
  compile: (c, { strictly }) => {
    const t = c.tileUnits;
    if (strictly) return (s) => isOnGrid(t, s);
    if (!c.onGrid)
      return (s) => isOnGrid(t, s) || s.room !== s.previousRoom || s.x !== s.previousX || s.y !== s.previousY;
    return (s) => isOnGrid(t, s) || ((s.legX !== 0 || s.legY !== 0) && s.legProgress < t);
  },
  seen: (c, _, s) => {
    if (isOnGrid(c.tileUnits, s)) return "on the grid";
    const off = `${pxText(gridDistance(c.tileUnits, s.x, s.y))} px off the grid at ${positionText(s)}`;
    return (s.legX !== 0 || s.legY !== 0) && s.legProgress > c.tileUnits
      ? `${off}, the leg runs on at ${pxText(s.legProgress)} px`
      : off;
  },
  trueIn: () => [{ kind: "aligned", strictly: false }],
  offeredWhen: "always",
};
