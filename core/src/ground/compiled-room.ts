import type { EdgeRule, Room, Side, SideName, Span } from "../world/world.ts";
import { SIDES } from "../world/world.ts";

/** Numbers of the four sides in a compiled room, in the order of `SIDES`. */
export const NORTH = 0;
export const EAST = 1;
export const SOUTH = 2;
export const WEST = 3;

/** Numbers of the edge rules (semantics.md section 3); from `LINK` on they are the room's links, counted. */
export const WALL = 0;
export const WRAP = 1;
export const LINK = 2;

/** A room as the simulation reads it: one number a cell, and what lies beyond each side. */
export interface CompiledRoom {
  readonly id: string;
  readonly width: number;
  readonly height: number;
  /** Width and height in units. */
  readonly unitsAcross: number;
  readonly unitsDown: number;
  /** What is solid for this walker, cell by cell: `NOTHING`, `FULL` or a shape's number. Doors are not in it. */
  readonly solid: Uint16Array;
  /** By side: the one rule that holds all along it, or -1 where `spans` says more. */
  readonly sideRule: Int16Array;
  /** By side: from, to, rule, three a span. A coordinate in none of them is a wall. */
  readonly spans: readonly Int32Array[];
  /** By link: number of the room that it leads to, and its offset in cells. */
  readonly linkRoom: Int32Array;
  readonly linkOffset: Int32Array;
  /** By cell: the first fixture that stands there, -1 for none; null in a room without fixtures. */
  readonly fixtureAt: Int32Array | null;
}

/** The rule of a side of the room at a row (west, east) or column (north, south), also beyond the side's ends. */
export function edgeRuleAt(room: CompiledRoom, side: number, along: number): number {
  const whole = room.sideRule[side]!;
  if (whole >= 0) return whole;
  const spans = room.spans[side]!;
  for (let i = 0; i < spans.length; i += 3) if (along >= spans[i]! && along <= spans[i + 1]!) return spans[i + 2]!;
  return WALL;
}

/**
 * A room made ready for the simulation.
 * @param solidByTile what is solid for this walker, by tile number
 * @param roomNumber number of the room with an id
 * @param fixtureAt by cell the first fixture that stands there; null for a room without fixtures
 */
export function compileRoom(
  room: Room,
  solidByTile: Uint16Array,
  tileUnits: number,
  roomNumber: (id: string) => number,
  fixtureAt: Int32Array | null,
): CompiledRoom {
  const { width, height, cells } = room;
  const solid = new Uint16Array(cells.length);
  for (let i = 0; i < cells.length; i++) solid[i] = solidByTile[cells[i]!]!;
  const links: { room: number; offset: number }[] = [];
  const number = (rule: EdgeRule): number => {
    if (rule.kind !== "link") return rule.kind === "wrap" ? WRAP : WALL;
    return LINK + links.push({ room: roomNumber(rule.room), offset: rule.offset }) - 1;
  };
  const sides = SIDES.map((name: SideName) => compileSide(room.edges[name], number));
  return {
    id: room.id,
    width,
    height,
    unitsAcross: width * tileUnits,
    unitsDown: height * tileUnits,
    solid,
    sideRule: Int16Array.from(sides, (side) => side.whole),
    spans: sides.map((side) => side.spans),
    linkRoom: Int32Array.from(links, (link) => link.room),
    linkOffset: Int32Array.from(links, (link) => link.offset),
    fixtureAt,
  };
}

function compileSide(side: Side, number: (rule: EdgeRule) => number): { whole: number; spans: Int32Array } {
  if (!isSpans(side)) return { whole: number(side), spans: new Int32Array(0) };
  return { whole: -1, spans: Int32Array.from(side.flatMap((span) => [span.from, span.to, number(span)])) };
}

function isSpans(side: Side): side is readonly Span[] {
  return Array.isArray(side);
}
