import type { Fixture } from "./world.ts";

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
] as const;

export type EventName = (typeof EVENT_NAMES)[number];

/** What an event names: a room, a fixture of one kind, or nothing. */
export const EVENT_SUBJECTS: Readonly<Record<EventName, Fixture["kind"] | "room" | null>> = {
  bump: null,
  arrive: null,
  wrap: null,
  leave: "room",
  enter: "room",
  take: "item",
  hurt: "hazard",
  respawn: null,
  checkpoint: "checkpoint",
  switch: "switch",
  portal: "portal",
  marker: "marker",
  open: "door",
  close: "door",
  refused: "door",
  win: null,
  lose: null,
  escape: null,
};

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
