import type { ConditionKind } from "../condition-kind.ts";
import { NOTHING_MORE, PLAIN_CONDITION, oneOf } from "../condition-kind.ts";
import { missingRoom, roomIds, roomNumber } from "../named-things.ts";
import { isId } from "../words.ts";

/** The walker is in a room. */
export interface RoomCondition {
  readonly kind: "room";
  readonly room: string;
}

export const room: ConditionKind<RoomCondition> = {
  ...PLAIN_CONDITION,
  form: "room ID",
  parse: ([id = "", ...more]) => (more.length === 0 && isId(id) ? { kind: "room", room: id } : null),
  text: (condition) => `room ${condition.room}`,
  expected: (world, words) => (words.length === 0 ? oneOf("a room", roomIds(world)) : NOTHING_MORE),
  dangling: (world, condition) => missingRoom(world, condition.room),
  follow: (condition, change) => {
    const to = change.room(condition.room);
    return to === null ? null : to === condition.room ? condition : { ...condition, room: to };
  },
  compile: (c, condition) => {
    const number = roomNumber(c, condition.room);
    return (s) => s.room === number;
  },
  seen: (c, _, s) => `room ${c.rooms[s.room]!.id}`,
  ofEvent: ({ event, subject }) => (event === "enter" ? { kind: "room", room: subject! } : null),
};
