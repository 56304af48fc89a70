import { CoreError } from "../base/core-error.ts";
import { follow } from "../rooms/doors.ts";
import { touchPortals } from "../rooms/place-walker.ts";
import type { WithLine } from "./run-start.ts";
import { FACINGS } from "../world/facing.ts";
import type { Start } from "../world/world.ts";
import type { Compiled } from "../compiled/compiled.ts";
import { startFault } from "./start-fault.ts";
import { SimState } from "../compiled/state.ts";

/**
 * The state of row 0: the walker stands still at a start (semantics.md section 6).
 * @param start where; the world's own start where it is left out
 * @param lines what is set up before row 0 (formats.md section 2)
 * @param seed what chance begins with; the world's where it is left out
 * @throws {CoreError} `no-such-place` where the world has no such room, or the room no such cell; `no-such-thing` where
 *   a line names what the world does not have, or what cannot be so
 */
export function startState(
  c: Compiled,
  start: Start = c.world.start,
  lines: readonly WithLine[] = [],
  seed: number = c.world.seed,
): SimState {
  const fault = startFault(c.world, start, lines);
  if (fault !== null) throw new CoreError(fault.code, fault.message, start);
  const state = new SimState(c);
  const room = c.world.rooms.findIndex((r) => r.id === start.room);
  const [cx, cy] = start.cell;
  state.seed = seed;
  state.room = room;
  state.x = cx * c.tileUnits;
  state.y = cy * c.tileUnits;
  state.previousRoom = room;
  state.previousX = state.x;
  state.previousY = state.y;
  state.facing = FACINGS.indexOf(start.facing);
  state.pose = c.rules.pose.idleImage;
  const { memory } = state;
  memory.startRoom = room;
  memory.startX = state.x;
  memory.startY = state.y;
  memory.lives = c.world.lives ?? 0;
  for (const line of lines) setUp(c, state, line);
  follow(c, state, false);
  memory.hold();
  touchPortals(c, state);
  return state;
}

/** Sets one thing up before row 0; that it is there `startFault` has looked at. */
function setUp(c: Compiled, { memory }: SimState, line: WithLine): void {
  const fixture = (id: string): number => c.fixtures.all.findIndex((each) => each.id === id);
  switch (line.kind) {
    case "holds":
      memory.bag[c.world.items.findIndex(({ id }) => id === line.item)] = line.count;
      return;
    case "taken":
      memory.take(fixture(line.fixture), true);
      return;
    case "open":
      memory.setOpen(fixture(line.fixture), true);
      return;
    case "circuit":
      memory.setCircuit(c.world.circuits.indexOf(line.circuit), true);
      return;
    case "lives":
      memory.lives = line.lives;
      return;
    case "respawn":
      memory.checkpoint = fixture(line.fixture);
      return;
    case "actor": {
      // Where actors are left out there is nobody to be put.
      const actor = c.actors?.all.find(({ id }) => id === line.actor);
      if (actor === undefined) return;
      const facing = line.facing === null ? actor.facing : FACINGS.indexOf(line.facing);
      memory.actors!.place(actor.number, line.cell[0], line.cell[1], facing);
      return;
    }
  }
}
