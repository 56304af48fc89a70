import { meets as areMeeting } from "../../actors/touch-actors.ts";
import type { ConditionKind } from "../condition-kind.ts";
import { NEVER_HOLDS, NOTHING_MORE, PLAIN_CONDITION, oneOf } from "../condition-kind.ts";
import { actorIds, compiledActor, missingActor } from "../named-things.ts";
import { positionText } from "../seen-place.ts";
import { isId } from "../words.ts";

/** The walker's body overlaps an actor's, in the walker's room. */
export interface MeetsCondition {
  readonly kind: "meets";
  readonly actor: string;
}

export const meets: ConditionKind<MeetsCondition> = {
  ...PLAIN_CONDITION,
  form: "meets ACTOR",
  parse: (words) => (words.length === 1 && isId(words[0]!) ? { kind: "meets", actor: words[0]! } : null),
  text: ({ actor }) => `meets ${actor}`,
  expected: (world, words) => (words.length === 0 ? oneOf("an actor", actorIds(world)) : NOTHING_MORE),
  dangling: (world, { actor }) => missingActor(world, actor),
  follow: (condition, change) => {
    const actor = change.fixture(condition.actor);
    return actor === null ? null : actor === condition.actor ? condition : { kind: "meets", actor };
  },
  compile: (c, condition) => {
    const actor = compiledActor(c, condition.actor);
    return actor === undefined ? NEVER_HOLDS : (s) => areMeeting(c, s, actor);
  },
  seen: (c, { actor }, s) => {
    const met = (c.actors?.all ?? []).filter((each) => areMeeting(c, s, each)).map(({ id }) => id);
    const where = `${positionText(s)} in ${c.rooms[s.room]!.id}`;
    const whom = met.length === 0 ? "nobody" : met.join(", ");
    return missingActor(c.world, actor) ?? `meets ${whom} at ${where}`;
  },
  trueIn: (c, s) =>
    (c.actors?.all ?? []).flatMap((actor): MeetsCondition[] =>
      areMeeting(c, s, actor) ? [{ kind: "meets", actor: actor.id }] : [],
    ),
  offeredWhen: "at",
  ofEvent: ({ event, subject }) => (event === "meet" ? { kind: "meets", actor: subject! } : null),
};
