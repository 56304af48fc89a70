import type { Fixture } from "../world/fixtures.ts";
import { kindOfFixture } from "../world/fixtures.ts";
import type { SetUp } from "../world/fixture-kind.ts";
import type { RunStart, WithLine } from "./run-start.ts";
import type { Start, World } from "../world/world.ts";

/** Why a log cannot begin in a world: its start is no place there, or it sets up what is not there or cannot be so. */
export interface StartFault {
  readonly code: "no-such-place" | "no-such-thing";
  readonly message: string;
}

/** Says why a start and what is set up before row 0 do not fit a world, or null where they do (formats.md section 2). */
export function startFault(world: World, start: Start, lines: readonly WithLine[]): StartFault | null {
  const room = world.rooms.find((each) => each.id === start.room);
  if (!room)
    return { code: "no-such-place", message: `the start names room ${start.room}, which this world does not have` };
  const [cx, cy] = start.cell;
  if (cx < 0 || cy < 0 || cx >= room.width || cy >= room.height) {
    return {
      code: "no-such-place",
      message: `the start names cell ${cx} ${cy}, which lies outside room ${start.room} (${room.width}x${room.height})`,
    };
  }
  for (const line of lines) {
    const message = withFault(world, line);
    if (message !== null) return { code: "no-such-thing", message };
  }
  return null;
}

/** As `startFault`, for a log: one without a start of its own begins at the world's. */
export function logStartFault(world: World, log: RunStart): StartFault | null {
  return startFault(world, log.start ?? world.start, log.with);
}

function withFault(world: World, line: WithLine): string | null {
  const missing = (what: string, id: string): string =>
    `\`with ${line.kind}\` in a log names ${what} ${id}, which this world does not have`;
  const fixture = (id: string, wanted: string, fits: (fixture: Fixture) => boolean): string | null => {
    const found = world.rooms.flatMap((room) => room.fixtures).find((each) => each.id === id);
    if (!found) return missing("fixture", id);
    return fits(found) ? null : `\`with ${line.kind}\` in a log names ${id}, which is not ${wanted}`;
  };
  switch (line.kind) {
    case "holds":
      return world.items.some(({ id }) => id === line.item) ? null : missing("item", line.item);
    case "taken":
      return fixture(line.fixture, "an item", (each) => setUp(each) === line.kind);
    case "open":
      return fixture(
        line.fixture,
        "a door that is not locked by a circuit or by what is collected",
        (each) => setUp(each) === line.kind,
      );
    case "circuit":
      return world.circuits.includes(line.circuit) ? null : missing("circuit", line.circuit);
    case "lives":
      return world.lives === null ? "`with lives` in a log, but this world counts no lives" : null;
    case "respawn":
      return fixture(line.fixture, "a checkpoint", (each) => setUp(each) === line.kind);
    case "actor": {
      const room = world.rooms.find(({ actors }) => actors.some(({ id }) => id === line.actor));
      if (room === undefined) return missing("actor", line.actor);
      const [x, y] = line.cell;
      if (x < room.width && y < room.height) return null;
      return `\`with actor\` in a log puts ${line.actor} on ${x} ${y}, which lies outside room ${room.id} (${room.width}x${room.height})`;
    }
  }
}

/** What of a fixture a log can set up. */
const setUp = (fixture: Fixture): SetUp | null => kindOfFixture(fixture.kind).setUp(fixture);
