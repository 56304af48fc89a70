import type { FixtureKindName } from "./fixtures.ts";
import { FIXTURE_KINDS, kindOfFixture } from "./fixtures.ts";

/** Status of a run. Only `PLAYING` goes on (semantics.md section 6). */
export const PLAYING = 0;

export const WON = 1;

export const LOST = 2;

export const ESCAPED = 3;

export const STATUS_NAMES = ["playing", "won", "lost", "escaped"] as const;

/** Events of a frame, by number; the names are those of the trace (formats.md section 3). */
export const EVENT_NAMES = [
  "bump",
  "arrive",
  "wrap",
  "leave",
  "enter",
  "take",
  "hurt",
  "respawn",
  "checkpoint",
  "switch",
  "portal",
  "marker",
  "open",
  "close",
  "refused",
  "win",
  "lose",
  "escape",
  "meet",
] as const;

export type EventName = (typeof EVENT_NAMES)[number];

/** What an event names: a room, an actor, a fixture of one kind (`hurt` an actor too), or nothing. */
export const EVENT_SUBJECTS: ReadonlyMap<EventName, FixtureKindName | "room" | "actor"> = new Map([
  ["leave", "room"],
  ["enter", "room"],
  ["meet", "actor"],
  ...FIXTURE_KINDS.flatMap((kind) => kindOfFixture(kind).events.map((event) => [event as EventName, kind] as const)),
]);

export const BUMP = 0;

export const ARRIVE = 1;

export const WRAPPED = 2;

export const LEAVE = 3;

export const ENTER = 4;

export const TAKE = 5;

export const HURT = 6;

export const RESPAWN = 7;

export const CHECKPOINT_TOUCHED = 8;

export const SWITCHED = 9;

export const PORTAL_TAKEN = 10;

export const MARKER_TOUCHED = 11;

export const OPEN = 12;

export const CLOSE = 13;

export const REFUSED = 14;

export const WIN = 15;

export const LOSE = 16;

export const ESCAPE = 17;

export const MEET = 18;
