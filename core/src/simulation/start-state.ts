import { CoreError } from "../errors/core-error.ts";
import { FACINGS } from "../world/facing.ts";
import type { Start } from "../world/world.ts";
import type { Compiled } from "./compiled.ts";
import { SimState } from "./state.ts";

/**
 * The state of row 0: the walker stands still at a start (semantics.md section 6).
 * @param start where; the world's own start where it is left out
 * @throws {CoreError} `no-such-place` where the world has no such room, or the room no such cell
 */
export function startState(c: Compiled, start: Start = c.world.start): SimState {
  const state = new SimState();
  const room = c.world.rooms.findIndex((r) => r.id === start.room);
  const found = c.world.rooms[room];
  if (!found) throw new CoreError("no-such-place", `the start names room ${start.room}, which this world does not have`, start);
  const [cx, cy] = start.cell;
  if (cx < 0 || cy < 0 || cx >= found.width || cy >= found.height) {
    throw new CoreError("no-such-place", `the start names cell ${cx} ${cy}, which lies outside room ${start.room} (${found.width}x${found.height})`, start);
  }
  state.room = room;
  state.x = cx * c.tileUnits;
  state.y = cy * c.tileUnits;
  state.rowRoom = room;
  state.rowX = state.x;
  state.rowY = state.y;
  state.facing = FACINGS.indexOf(start.facing);
  state.pose = c.rules.pose.idleImage;
  return state;
}
