import type { Fixture } from "../world/fixtures.ts";
import type { ConditionKind } from "./condition-kind.ts";
import { NOTHING_MORE, PLAIN_CONDITION, oneOf } from "./condition-kind.ts";
import { fixtureIds, missingFixture } from "./named-things.ts";
import { isId } from "./words.ts";

/** A condition that names one fixture and nothing else. */
interface FixtureCondition<K extends string> {
  readonly kind: K;
  readonly fixture: string;
}

/**
 * What conditions about one fixture share.
 * @param name what is expected there: `a door`
 * @param offered the kind of fixtures that are offered; null: all
 */
export function aboutFixture<K extends string>(
  kind: K,
  name: string,
  offered: Fixture["kind"] | null,
): Omit<ConditionKind<FixtureCondition<K>>, "compile" | "seen"> {
  return {
    ...PLAIN_CONDITION,
    form: `${kind} FIXTURE`,
    parse: ([id = "", ...more]) => (more.length === 0 && isId(id) ? { kind, fixture: id } : null),
    text: (condition) => `${kind} ${condition.fixture}`,
    expected: (world, words) => (words.length === 0 ? oneOf(name, fixtureIds(world, offered)) : NOTHING_MORE),
    dangling: (world, condition) => missingFixture(world, condition.fixture),
    follow: (condition, change) => {
      const to = change.fixture(condition.fixture);
      return to === null ? null : to === condition.fixture ? condition : { ...condition, fixture: to };
    },
  };
}
