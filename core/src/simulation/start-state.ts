import { CoreError } from "../errors/core-error.ts";
import { LOCK_ITEM } from "../fixtures/compiled-fixture.ts";
import { follow } from "../fixtures/doors.ts";
import { touchPortals } from "../fixtures/place-walker.ts";
import type { WithLine } from "../logs/input-log.ts";
import { FACINGS } from "../world/facing.ts";
import type { Start } from "../world/world.ts";
import type { Compiled } from "./compiled.ts";
import { SimState } from "./state.ts";

/**
 * The state of row 0: the walker stands still at a start (semantics.md section 6).
 * @param start where; the world's own start where it is left out
 * @param lines what is set up before row 0 (formats.md section 2)
 * @throws {CoreError} `no-such-place` where the world has no such room, or the room no such cell; `no-such-thing` where
 *   a line names what the world does not have, or what cannot be so
 */
export function startState(c: Compiled, start: Start = c.world.start, lines: readonly WithLine[] = []): SimState {
  const state = new SimState(c);
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
  const { memory } = state;
  memory.startRoom = room;
  memory.startX = state.x;
  memory.startY = state.y;
  memory.lives = c.world.lives ?? 0;
  for (const line of lines) setUp(c, state, line);
  follow(c, state, false);
  touchPortals(c, state);
  return state;
}

/** Sets one thing up before row 0. */
function setUp(c: Compiled, { memory }: SimState, line: WithLine): void {
  switch (line.kind) {
    case "holds":
      memory.bag[numberOf(line, "item", line.item, c.world.items.findIndex(({ id }) => id === line.item))] = line.count;
      return;
    case "taken":
      memory.take(fixtureOf(c, line, line.fixture, "an item", ({ kind }) => kind === 0), true);
      return;
    case "open":
      memory.setOpen(fixtureOf(c, line, line.fixture, "a door that is not locked by a circuit or by what is collected", ({ lock }) => lock >= 0 && lock <= LOCK_ITEM), true);
      return;
    case "circuit":
      memory.setCircuit(numberOf(line, "circuit", line.circuit, c.world.circuits.indexOf(line.circuit)), true);
      return;
    case "lives":
      if (!c.countsLives) throw new CoreError("no-such-thing", "`with lives` in a log, but this world counts no lives", line);
      memory.lives = line.lives;
      return;
    case "respawn":
      memory.checkpoint = fixtureOf(c, line, line.fixture, "a checkpoint", ({ kind }) => kind === 3);
      return;
  }
}

function numberOf(line: WithLine, what: string, id: string, number: number): number {
  if (number < 0) throw new CoreError("no-such-thing", `\`with ${line.kind}\` in a log names ${what} ${id}, which this world does not have`, line);
  return number;
}

function fixtureOf(c: Compiled, line: WithLine, id: string, wanted: string, fits: (fixture: Compiled["fixtures"]["all"][number]) => boolean): number {
  const number = numberOf(line, "fixture", id, c.fixtures.all.findIndex((fixture) => fixture.id === id));
  if (!fits(c.fixtures.all[number]!)) throw new CoreError("no-such-thing", `\`with ${line.kind}\` in a log names ${id}, which is not ${wanted}`, line);
  return number;
}
