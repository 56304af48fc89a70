import type { Actor } from "../world/actors.ts";
import type { Fixture } from "../world/fixtures.ts";
import { GAIT_NAMES } from "../world/gaits.ts";
import { fieldsOf } from "../world/fixtures.ts";
import type { Field, Fields } from "../world/field.ts";
import { FACINGS } from "../world/facing.ts";
import { SETTINGS } from "../world/settings.ts";
import type { Game } from "../world/game.ts";
import type { Figure, Look, Room, Rules, Side, Tile, World } from "../world/world.ts";
import { WORLD_FORMAT } from "./world-format.ts";

/**
 * The world as a file's text in its canonical form (formats.md section 1): keys in the format's order, every default
 * written, a room's cells one row a line, LF. Reading and writing it again gives the same bytes.
 */
export function writeWorld(world: World): string {
  const lines = [
    "{",
    `  "format": "${WORLD_FORMAT}",`,
    `  "version": 1,`,
    ...(["id", "name", "tileSize", "frameRate", "seed"] as const).map(
      (key) => `  "${key}": ${JSON.stringify(world[key])},`,
    ),
    ...list(
      "sheets",
      world.sheets.map((s) => inline(ordered(KEYS.sheet, s))),
    ),
    `  "flags": ${inline(world.flags)},`,
    ...list(
      "tiles",
      world.tiles.map((t) => inline(tile(t))),
    ),
    ...list(
      "items",
      world.items.map((i) => inline(ordered(KEYS.item, i))),
    ),
    `  "circuits": ${inline(world.circuits)},`,
    `  "lives": ${inline(world.lives)},`,
    `  "respawnRestores": ${inline(world.respawnRestores)},`,
    `  "rules": [`,
    ...joined(world.rules.map(rulesText)),
    "  ],",
    `  "activeRules": ${inline(world.activeRules)},`,
    `  "camera": ${inline(ordered(KEYS.camera, world.camera))},`,
    `  "figure": ${inline(world.figure && figure(world.figure))},`,
    `  "start": ${inline(ordered(KEYS.place, world.start))},`,
    `  "goal": ${inline(world.goal && ordered(KEYS.goal, world.goal))},`,
    `  "laws": ${inline(world.laws)},`,
    `  "reachChecks": ${inline(world.reachChecks)},`,
    ...list(
      "games",
      world.games.map((each) => inline(game(each))),
    ),
    `  "rooms": [`,
    ...joined(world.rooms.map(roomText)),
    "  ]",
    "}",
  ];
  return `${lines.join("\n")}\n`;
}

// Values may come from a file with its keys in any order; each kind of object is written with its own, and a key that
// an object does not have is left out.
const KEYS = {
  sheet: ["id", "file", "tile", "margin", "spacing"],
  item: ["id", "name", "role", "colour"],
  shape: ["kind", "boxes", "points"],
  look: ["fill", "pattern", "sheet", "at"],
  body: ["kind", "box", "points", "flush"],
  place: ["room", "cell", "facing"],
  camera: ["mode", "width", "height", "margin", "ease"],
  goal: ["kind", "fixture", "item"],
  edge: ["from", "to", "kind", "room", "offset"],
  images: FACINGS,
  actor: ["id", "name", "cell", "facing", "speed", "blockedBy", "doors", "turnsBack", "touch", "body", "keeps"],
  phase: ["frames", "do", "then", "cells"],
  game: ["id", "name", "columns", "unit", "yUp", "anchor", "origin", "frameOffset", "tolerance", "rooms", "keys"],
  columns: ["frame", "x", "y", "room", "keys"],
} as const;

function ordered(keys: readonly string[], value: object): Record<string, unknown> {
  const source = value as Record<string, unknown>;
  return Object.fromEntries(keys.filter((key) => source[key] !== undefined).map((key) => [key, source[key]]));
}

function orderedFields(fields: Fields, values: Record<string, unknown>): Record<string, unknown> {
  // What is left out is what it is anyway.
  return Object.fromEntries(
    Object.entries(fields).flatMap(([name, field]) =>
      values[name] === undefined ? [] : [[name, orderedField(field, values[name])]],
    ),
  );
}

function orderedField(field: Field, value: unknown): unknown {
  if (field.type === "place") return ordered(KEYS.place, value as object);
  if (field.type !== "kinds") return value;
  const values = value as { readonly kind: string } & Record<string, unknown>;
  return { kind: values.kind, ...orderedFields(field.kinds[values.kind]!, values) };
}

const look = (value: Look) => ordered(KEYS.look, value);

function tile(value: Tile): object {
  const { id, name, flags, shape, joins, glyph } = value;
  const written = joins && { to: joins.to, looks: joins.looks.map(look) };
  return { id, name, flags, shape: ordered(KEYS.shape, shape), look: look(value.look), joins: written, glyph };
}

function figure({ sheet, offset, images }: Figure): object {
  return { sheet, offset, images: ordered(KEYS.images, images) };
}

function game(value: Game): object {
  return { ...ordered(KEYS.game, value), columns: ordered(KEYS.columns, value.columns) };
}

function side(value: Side): unknown {
  return "kind" in value ? ordered(KEYS.edge, value) : value.map((span) => ordered(KEYS.edge, span));
}

function fixture(value: Fixture): object {
  const { id, kind, cell, touch, keeps } = value;
  return {
    id,
    kind,
    cell,
    ...orderedFields(fieldsOf(kind), value as unknown as Record<string, unknown>),
    touch,
    keeps,
  };
}

function ruleGroup(rules: Rules, group: (typeof RULE_GROUPS)[number]): object {
  if (group === "walker") {
    const { blockedBy, body, crossesAt } = rules.walker;
    return { blockedBy, body: ordered(KEYS.body, body), crossesAt };
  }
  const keys = SETTINGS.filter((setting) => setting.path.startsWith(`${group}.`)).map((setting) =>
    setting.path.slice(group.length + 1),
  );
  return ordered(keys, rules[group]);
}

/** JSON on one line with a blank after `:` and `,` and inside braces, as in the format's example. */
function inline(value: unknown): string {
  if (Array.isArray(value)) return `[${value.map(inline).join(", ")}]`;
  if (value !== null && typeof value === "object") {
    const entries = Object.entries(value);
    return entries.length === 0
      ? "{}"
      : `{ ${entries.map(([k, v]) => `${JSON.stringify(k)}: ${inline(v)}`).join(", ")} }`;
  }
  return JSON.stringify(value);
}

function list(key: string, entries: readonly string[]): string[] {
  if (entries.length === 0) return [`  "${key}": [],`];
  return [`  "${key}": [`, ...joined(entries.map((entry) => `    ${entry}`)), "  ],"];
}

function joined(blocks: readonly string[]): string[] {
  return blocks.map((block, i) => (i < blocks.length - 1 ? `${block},` : block));
}

const RULE_GROUPS = ["input", "walker", ...GAIT_NAMES, "facing", "pose"] as const;

function rulesText(rules: Rules): string {
  const groups = RULE_GROUPS.map((key) => `      "${key}": ${inline(ruleGroup(rules, key))}`);
  return `    { "id": ${inline(rules.id)}, "name": ${inline(rules.name)}, "gait": ${inline(rules.gait)},\n${groups.join(",\n")} }`;
}

/** An actor on two lines, as in the format's example. */
function actorText(value: Actor): string {
  const settings = inline(ordered(KEYS.actor, value)).slice(0, -2);
  const plan = value.plan.map((each) => ordered(KEYS.phase, each));
  const drawn =
    value.look === undefined
      ? ""
      : `, "look": ${inline("images" in value.look ? figure(value.look) : look(value.look))}`;
  return `${settings},\n          "plan": ${inline(plan)}${drawn} }`;
}

function roomText(room: Room): string {
  const { north, east, south, west } = room.edges;
  const rows: string[] = [];
  for (let y = 0; y < room.height; y++)
    rows.push(`        ${room.cells.subarray(y * room.width, (y + 1) * room.width).join(",")}`);
  const fixtures =
    room.fixtures.length === 0
      ? "[]"
      : `[\n${joined(room.fixtures.map((f) => `        ${inline(fixture(f))}`)).join("\n")}\n      ]`;
  const actors =
    room.actors.length === 0
      ? "[]"
      : `[\n${joined(room.actors.map((each) => `        ${actorText(each)}`)).join("\n")}\n      ]`;
  return [
    `    { "id": ${inline(room.id)}, "name": ${inline(room.name)}, "width": ${room.width}, "height": ${room.height}, "plan": ${inline(room.plan)},`,
    `      "edges": ${inline({ north: side(north), east: side(east), south: side(south), west: side(west) })},`,
    `      "cells": [`,
    rows.join(",\n"),
    "      ],",
    `      "fixtures": ${fixtures},`,
    `      "actors": ${actors} }`,
  ].join("\n");
}
