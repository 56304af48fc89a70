import { isFree } from "../../ground/free.ts";
import { pushDoors } from "../push.ts";
import type { ResponseMovement } from "../response-movement.ts";
import { wholeMove } from "../whole-move.ts";

/** `undo-both`: moves both axes, and both back where that is not free. */
export const undoBoth: ResponseMovement = (c, s, dx, dy, account) => {
  if (dx === 0 && dy === 0) return;
  const x = s.x + dx;
  const y = s.y + dy;
  const free = isFree(s.ground, s.room, x, y);
  if (account !== null) account.axes.push(wholeMove("both", s, dx, dy, { x, y, free }));
  s.bothUndone = !free;
  if (!free) {
    if (s.intentX * dx > 0 || s.intentY * dy > 0) pushDoors(c, s, x, y, true, 0, 0);
    return;
  }
  s.x = x;
  s.y = y;
  s.travelledX = Math.abs(dx);
  s.travelledY = Math.abs(dy);
};
