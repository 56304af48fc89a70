import { occupiedX, occupiedY } from "../../ground/occupied.ts";
import type { ConditionKind } from "../condition-kind.ts";
import { NEVER_HOLDS } from "../condition-kind.ts";
import { isCellIn } from "../../rooms/is-touched.ts";
import { aboutFixture } from "../fixture-condition.ts";
import { fixtureNumber, missingFixture } from "../named-things.ts";
import { cellText } from "../seen-place.ts";

/** The walker occupies one of a fixture's cells. */
export interface OnCondition {
  readonly kind: "on";
  readonly fixture: string;
}

export const on: ConditionKind<OnCondition> = {
  ...aboutFixture("on", "a fixture", null),
  compile: (c, condition) => {
    const t = c.tileUnits;
    const fixture = c.fixtures.all[fixtureNumber(c, condition.fixture)];
    return fixture === undefined
      ? NEVER_HOLDS
      : (s) => s.room === fixture.room && isCellIn(fixture, occupiedX(t, s.x), occupiedY(t, s.y));
  },
  seen: (c, condition, s) =>
    missingFixture(c.world, condition.fixture) ?? `${cellText(c, s)} in ${c.rooms[s.room]!.id}`,
  trueIn: (c, s) => {
    const [x, y] = [occupiedX(c.tileUnits, s.x), occupiedY(c.tileUnits, s.y)];
    return c.fixtures.all.flatMap((fixture): OnCondition[] =>
      fixture.room === s.room && isCellIn(fixture, x, y) ? [{ kind: "on", fixture: fixture.id }] : [],
    );
  },
  offeredWhen: "by",
  ofEvent: ({ event, subject }) => (event === "marker" ? { kind: "on", fixture: subject! } : null),
};
