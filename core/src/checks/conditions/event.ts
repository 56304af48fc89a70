import type { EventName } from "../../world/vocabulary.ts";
import { EVENT_NAMES, EVENT_SUBJECTS } from "../../world/vocabulary.ts";
import { allActors } from "../../world/queries.ts";
import type { World } from "../../world/world.ts";
import { eventText } from "../../simulation/event-text.ts";
import type { ConditionKind } from "../condition-kind.ts";
import { NEVER_HOLDS, NOTHING_MORE, PLAIN_CONDITION, oneOf } from "../condition-kind.ts";
import {
  fixtureIds,
  missingActor,
  subjectNumber,
  actorIds,
  missing,
  missingFixture,
  missingRoom,
  roomIds,
  roomNumber,
} from "../named-things.ts";
import { isId } from "../words.ts";

/** An event happened in the frame: of whatever (null), or of one fixture, room or actor. */
export interface EventCondition {
  readonly kind: "event";
  readonly event: EventName;
  readonly subject: string | null;
}

export const event: ConditionKind<EventCondition> = {
  ...PLAIN_CONDITION,
  form: "event NAME [FIXTURE, ROOM or ACTOR]",
  parse: (words) => {
    const [first = "", subject = ""] = words;
    const name = EVENT_NAMES.find((each) => each === first);
    if (name === undefined) return null;
    if (words.length === 1) return { kind: "event", event: name, subject: null };
    return words.length === 2 && isId(subject) ? { kind: "event", event: name, subject } : null;
  },
  text: (condition) =>
    condition.subject === null ? `event ${condition.event}` : `event ${condition.event} ${condition.subject}`,
  expected: (world, words) => {
    if (words.length === 0) return oneOf("an event", EVENT_NAMES);
    return words.length === 1 ? oneOf("what it is of", subjectsOf(world, words[0]!)) : NOTHING_MORE;
  },
  dangling: (world, { subject }) =>
    subject === null ||
    missingFixture(world, subject) === null ||
    missingRoom(world, subject) === null ||
    missingActor(world, subject) === null
      ? null
      : missing("fixture, room or actor", subject),
  follow: (condition, change) => {
    if (condition.subject === null) return condition;
    const to =
      EVENT_SUBJECTS.get(condition.event) === "room"
        ? change.room(condition.subject)
        : change.fixture(condition.subject);
    return to === null ? null : to === condition.subject ? condition : { ...condition, subject: to };
  },
  compile: (c, condition) => {
    const kind = EVENT_NAMES.indexOf(condition.event);
    const { subject } = condition;
    const number =
      subject === null
        ? -1
        : EVENT_SUBJECTS.get(condition.event) === "room"
          ? roomNumber(c, subject)
          : subjectNumber(c, subject);
    if (subject !== null && number < 0) return NEVER_HOLDS;
    return (s) => {
      for (let i = 0; i < s.eventCount; i++)
        if (s.eventKinds[i] === kind && (subject === null || s.eventSubjects[i] === number)) return true;
      return false;
    };
  },
  seen: (c, _, s) => (s.eventCount === 0 ? "no event" : eventText(c, s)),
  ofEvent: (happened) =>
    happened.event === "arrive" || happened.event === "leave" ? null : { kind: "event", ...happened },
};

/** What an event may be of: rooms, actors, or fixtures of the kind that writes it. */
function subjectsOf(world: World, name: string): string[] {
  const kind = EVENT_SUBJECTS.get(name as EventName);
  if (kind === undefined) return [];
  if (kind === "room") return roomIds(world);
  if (kind === "actor") return actorIds(world);
  const hurting = name === "hurt" ? allActors(world).filter(({ touch }) => touch === "hurt") : [];
  return [...fixtureIds(world, kind), ...hurting.map(({ id }) => id)];
}
