import { isFree } from "../ground/free.ts";
import { floorModulo, unitsFromPx } from "../integers/units.ts";
import { isOutside } from "../rooms/crossing.ts";
import { occupiedX, occupiedY } from "../rooms/occupied.ts";
import type { Compiled } from "../simulation/compiled.ts";
import type { SimState } from "../simulation/state.ts";
import { ENTER, EVENT_NAMES, LEAVE, STATUS_NAMES } from "../simulation/state.ts";
import { eventText } from "../simulation/event-text.ts";
import { FACINGS } from "../world/facing.ts";
import type { What } from "./what.ts";

/** Answers for the row that a state stands for. Allocates nothing. */
export type Holds = (s: SimState) => boolean;

const NEVER: Holds = () => false;

/**
 * Makes the question that a WHAT asks of every row (formats.md section 2).
 */
export function compileWhat(c: Compiled, what: What): Holds {
  const t = c.tileUnits;
  switch (what.kind) {
    case "room": {
      const room = roomNumber(c, what.room);
      return (s) => s.room === room;
    }
    case "cell": {
      const room = what.room === null ? -1 : roomNumber(c, what.room);
      if (what.room !== null && room < 0) return NEVER;
      return (s) => occupiedX(t, s.x) === what.x && occupiedY(t, s.y) === what.y && (room < 0 || s.room === room);
    }
    case "aligned":
      if (what.strictly) return (s) => isOnGrid(t, s);
      if (c.rules.gait === "roam" || c.rules.gait === "drift") return (s) => isOnGrid(t, s) || s.room !== s.rowRoom || s.x !== s.rowX || s.y !== s.rowY;
      return (s) => isOnGrid(t, s) || ((s.legX !== 0 || s.legY !== 0) && s.gone < t);
    case "still":
      return (s) => s.room === s.rowRoom && s.x === s.rowX && s.y === s.rowY;
    case "facing": {
      const facing = FACINGS.indexOf(what.facing);
      return (s) => s.facing === facing;
    }
    case "status": {
      const status = STATUS_NAMES.indexOf(what.status);
      return (s) => s.status === status;
    }
    case "event":
      return eventHolds(c, what.event, what.subject);
    case "overlap":
      return (s) => !isFree(s.ground, s.room, s.x, s.y);
    case "outside":
      return (s) => isOutside(c, s.room, s.x, s.y);
    case "pixel": {
      const x = unitsFromPx(what.x);
      const y = unitsFromPx(what.y);
      return (s) => s.x === x && s.y === y;
    }
    case "circuit": {
      const circuit = c.world.circuits.indexOf(what.circuit);
      return circuit < 0 ? NEVER : (s) => (s.memory.on[circuit] === 1) === what.on;
    }
    case "holds": {
      const item = c.world.items.findIndex(({ id }) => id === what.item);
      return item < 0 ? NEVER : (s) => s.memory.bag[item]! >= (what.count ?? 1);
    }
    case "on": {
      const fixture = c.fixtures.all[fixtureNumber(c, what.fixture)];
      return fixture === undefined ? NEVER : (s) => s.room === fixture.room && occupiedX(t, s.x) === fixture.cx && occupiedY(t, s.y) === fixture.cy;
    }
    case "taken": {
      const fixture = fixtureNumber(c, what.fixture);
      return fixture < 0 ? NEVER : (s) => s.memory.taken[fixture] === 1;
    }
    case "open": {
      const fixture = fixtureNumber(c, what.fixture);
      return fixture < 0 ? NEVER : (s) => s.memory.open[fixture] === 1;
    }
    case "lives":
      return c.countsLives ? (s) => s.memory.lives === what.lives : NEVER;
  }
}

function fixtureNumber(c: Compiled, id: string): number {
  return c.fixtures.all.findIndex((fixture) => fixture.id === id);
}

function eventHolds(c: Compiled, name: (typeof EVENT_NAMES)[number], subject: string | null): Holds {
  const kind = EVENT_NAMES.indexOf(name);
  // Leaving and entering name a room, most others a fixture; bump, arrive and the like name nothing.
  const number = subject === null ? -1 : kind === LEAVE || kind === ENTER ? roomNumber(c, subject) : fixtureNumber(c, subject);
  if (subject !== null && number < 0) return NEVER;
  return (s) => {
    for (let i = 0; i < s.eventCount; i++) {
      if (s.eventKinds[i] === kind && (subject === null || s.eventSubjects[i] === number)) return true;
    }
    return false;
  };
}

function roomNumber(c: Compiled, id: string): number {
  return c.world.rooms.findIndex((room) => room.id === id);
}

/** Whether the walker stands on the grid: both coordinates whole cells (semantics.md section 1). */
export function isOnGrid(tileUnits: number, s: SimState): boolean {
  return floorModulo(s.x, tileUnits) === 0 && floorModulo(s.y, tileUnits) === 0;
}

/** What there was in a row, in the words of the WHAT that was asked: the `seen` of a failed check. */
export function seenText(c: Compiled, what: What, s: SimState): string {
  const t = c.tileUnits;
  switch (what.kind) {
    case "room":
      return `room ${c.rooms[s.room]!.id}`;
    case "cell": {
      const cell = `cell ${occupiedX(t, s.x)} ${occupiedY(t, s.y)}`;
      return what.room === null ? cell : `${cell} in ${c.rooms[s.room]!.id}`;
    }
    case "aligned":
      return alignedText(c, s);
    case "still":
      return s.room === s.rowRoom && s.x === s.rowX && s.y === s.rowY ? "still" : `moved ${pxText(s.x - s.rowX)} ${pxText(s.y - s.rowY)} px`;
    case "facing":
      return `facing ${FACINGS[s.facing]!}`;
    case "status":
      return `status ${STATUS_NAMES[s.status]!}`;
    case "event":
      return s.eventCount === 0 ? "no event" : eventText(c, s);
    case "overlap":
      return isFree(s.ground, s.room, s.x, s.y) ? `free at ${placeText(s)}` : `overlaps at ${placeText(s)}`;
    case "outside":
      return `${isOutside(c, s.room, s.x, s.y) ? "outside" : "inside"} at ${placeText(s)}`;
    case "pixel":
      return placeText(s);
    case "circuit": {
      const circuit = c.world.circuits.indexOf(what.circuit);
      return circuit < 0 ? `no circuit ${what.circuit} in this world` : `circuit ${what.circuit} ${s.memory.on[circuit] === 1 ? "on" : "off"}`;
    }
    case "holds": {
      const item = c.world.items.findIndex(({ id }) => id === what.item);
      return item < 0 ? `no item ${what.item} in this world` : `holds ${s.memory.bag[item]!}`;
    }
    case "on":
      return fixtureNumber(c, what.fixture) < 0 ? missing(what.fixture) : `cell ${occupiedX(t, s.x)} ${occupiedY(t, s.y)} in ${c.rooms[s.room]!.id}`;
    case "taken": {
      const fixture = fixtureNumber(c, what.fixture);
      return fixture < 0 ? missing(what.fixture) : s.memory.taken[fixture] === 1 ? "taken" : "there";
    }
    case "open": {
      const fixture = fixtureNumber(c, what.fixture);
      return fixture < 0 ? missing(what.fixture) : s.memory.open[fixture] === 1 ? "open" : "closed";
    }
    case "lives":
      return c.countsLives ? `lives ${s.memory.lives}` : "lives are not counted";
  }
}

function missing(fixture: string): string {
  return `no fixture ${fixture} in this world`;
}

function alignedText(c: Compiled, s: SimState): string {
  if (isOnGrid(c.tileUnits, s)) return "on the grid";
  const off = `${pxText(gridDistance(c.tileUnits, s.x, s.y))} px off the grid at ${placeText(s)}`;
  return (s.legX !== 0 || s.legY !== 0) && s.gone > c.tileUnits ? `${off}, the leg runs on at ${pxText(s.gone)} px` : off;
}

/** The larger of the two axes' distances to the nearest cell, in units; 0 on the grid (interface.md, off-grid lane). */
export function gridDistance(tileUnits: number, x: number, y: number): number {
  const dx = floorModulo(x, tileUnits);
  const dy = floorModulo(y, tileUnits);
  return Math.max(Math.min(dx, tileUnits - dx), Math.min(dy, tileUnits - dy));
}

function placeText(s: SimState): string {
  return `${pxText(s.x)} ${pxText(s.y)}`;
}

/** Units as px, with as few decimals as say them exactly. */
export function pxText(units: number): string {
  return String(units / 256);
}
