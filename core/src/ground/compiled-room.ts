import type { EdgeRule, Room, Side, SideName } from "../world/world.ts";
import { SIDES } from "../world/world.ts";

/** Numbers of the four sides in a compiled room, in the order of `SIDES`. */
export const NORTH = 0;
export const EAST = 1;
export const SOUTH = 2;
export const WEST = 3;

/** Numbers of the edge rules (semantics.md section 3). */
export const WALL = 0;
export const WRAP = 1;

/** A room as the simulation reads it: one number a cell, and what lies beyond each side. */
export interface CompiledRoom {
  readonly id: string;
  readonly width: number;
  readonly height: number;
  /** Width and height in units. */
  readonly unitsAcross: number;
  readonly unitsDown: number;
  /** What is solid for this walker, cell by cell: `NOTHING`, `FULL` or a shape's number. */
  readonly solid: Uint16Array;
  /** By side: the one rule that holds all along it, or -1 where `spans` says more. */
  readonly sideRule: Int8Array;
  /** By side: from, to, rule, three a span. A coordinate in none of them is a wall. */
  readonly spans: readonly Int32Array[];
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
 */
export function compileRoom(room: Room, solidByTile: Uint16Array, tileUnits: number): CompiledRoom {
  const { width, height, cells } = room;
  const solid = new Uint16Array(cells.length);
  for (let i = 0; i < cells.length; i++) solid[i] = solidByTile[cells[i]!]!;
  const rules = SIDES.map((name: SideName) => compileSide(room.edges[name]));
  return { id: room.id, width, height, unitsAcross: width * tileUnits, unitsDown: height * tileUnits, solid, sideRule: Int8Array.from(rules, (r) => r.whole), spans: rules.map((r) => r.spans) };
}

function compileSide(side: Side): { whole: number; spans: Int32Array } {
  if (!isSpans(side)) return { whole: ruleNumber(side), spans: new Int32Array(0) };
  return { whole: -1, spans: Int32Array.from(side.flatMap((span) => [span.from, span.to, ruleNumber(span)])) };
}

function isSpans(side: Side): side is Extract<Side, readonly unknown[]> {
  return Array.isArray(side);
}

// `compile` refuses worlds with links before it gets here.
function ruleNumber(rule: EdgeRule): number {
  return rule.kind === "wrap" ? WRAP : WALL;
}
