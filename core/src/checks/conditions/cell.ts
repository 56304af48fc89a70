import type { Compiled } from "../../compiled/compiled.ts";
import type { SimState } from "../../compiled/state.ts";
import { occupiedX, occupiedY } from "../../ground/occupied.ts";
import type { ConditionKind } from "../condition-kind.ts";
import { NEVER_HOLDS, NOTHING_MORE, PLAIN_CONDITION, aNumber, oneOf } from "../condition-kind.ts";
import { missingRoom, roomIds, roomNumber } from "../named-things.ts";
import { cellText } from "../seen-place.ts";
import { isId, wholeNumber } from "../words.ts";

/** The walker occupies a cell, of a room or of whichever it is in (null). */
export interface CellCondition {
  readonly kind: "cell";
  readonly x: number;
  readonly y: number;
  readonly room: string | null;
}

export const cell: ConditionKind<CellCondition> = {
  ...PLAIN_CONDITION,
  form: "cell X Y [in ROOM]",
  parse: (words) => {
    const [a = "", b = "", joint = "", id = ""] = words;
    const x = wholeNumber(a);
    const y = wholeNumber(b);
    if (x === null || y === null || !(words.length === 2 || (words.length === 4 && joint === "in" && isId(id))))
      return null;
    return { kind: "cell", x, y, room: words.length === 4 ? id : null };
  },
  text: ({ x, y, room }) => `cell ${x} ${y}${room === null ? "" : ` in ${room}`}`,
  expected: (world, { length }) => {
    if (length < 2) return aNumber(length === 0 ? "a column" : "a row");
    return length === 2 ? oneOf("`in`", ["in"]) : length === 3 ? oneOf("a room", roomIds(world)) : NOTHING_MORE;
  },
  dangling: (world, { room }) => (room === null ? null : missingRoom(world, room)),
  follow: (condition, change) => {
    const room = condition.room === null ? null : change.room(condition.room);
    if (room === null && condition.room !== null) return null;
    const [x, y] = change.cell(condition.room, [condition.x, condition.y]);
    // A cell that is west or north of the room now cannot be written.
    if (x < 0 || y < 0) return null;
    return room === condition.room && x === condition.x && y === condition.y ? condition : { kind: "cell", x, y, room };
  },
  compile: (c, { x, y, room }) => {
    const t = c.tileUnits;
    const number = room === null ? -1 : roomNumber(c, room);
    if (room !== null && number < 0) return NEVER_HOLDS;
    return (s) => occupiedX(t, s.x) === x && occupiedY(t, s.y) === y && (number < 0 || s.room === number);
  },
  seen: (c, { room }, s) => (room === null ? cellText(c, s) : `${cellText(c, s)} in ${c.rooms[s.room]!.id}`),
  trueIn: (c, s) => [cellOf(c, s)],
};

/** The occupied cell, with its room where the world has several. */
export function cellOf(c: Compiled, s: SimState): CellCondition {
  return {
    kind: "cell",
    x: occupiedX(c.tileUnits, s.x),
    y: occupiedY(c.tileUnits, s.y),
    room: c.rooms.length > 1 ? c.rooms[s.room]!.id : null,
  };
}
