import { FACINGS } from "../world/facing.ts";
import { SETTINGS } from "../world/settings.ts";
import type { Room, Rules, World } from "../world/world.ts";
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
    ...(["id", "name", "tileSize", "frameRate", "seed"] as const).map((key) => `  "${key}": ${JSON.stringify(world[key])},`),
    ...list("sheets", world.sheets.map((s) => inline({ id: s.id, file: s.file, tile: s.tile, margin: s.margin, spacing: s.spacing }))),
    `  "flags": ${inline(world.flags)},`,
    ...list(
      "tiles",
      world.tiles.map((t) => inline({ id: t.id, name: t.name, flags: t.flags, shape: t.shape, look: t.look, joins: t.joins, glyph: t.glyph })),
    ),
    ...list("items", world.items.map((i) => inline({ id: i.id, name: i.name, role: i.role, colour: i.colour }))),
    `  "circuits": ${inline(world.circuits)},`,
    `  "lives": ${inline(world.lives)},`,
    `  "rules": [`,
    ...joined(world.rules.map(rulesText)),
    "  ],",
    `  "activeRules": ${inline(world.activeRules)},`,
    `  "camera": ${inline(world.camera)},`,
    `  "figure": ${inline(world.figure)},`,
    `  "start": ${inline(world.start)},`,
    `  "goal": ${inline(world.goal)},`,
    `  "laws": ${inline(world.laws)},`,
    `  "rooms": [`,
    ...joined(world.rooms.map(roomText)),
    "  ]",
    "}",
  ];
  return `${lines.join("\n")}\n`;
}

// Values may come from a file with its keys in any order; these are the canonical ones. A key stands before another in
// every object that has both, but for spans, which begin with from and to.
const KEY_ORDER = [
  ...["id", "kind", "name", "mode", "role", "colour", "flags", "fill", "pattern", "sheet", "at", "boxes", "box", "points", "flush"],
  ...["room", "offset", "cell", "facing", "give", "fixture", "item", "count", "spends", "lock", "opensOn", "closes", "circuit", "open"],
  ...["to", "looks", "images", "width", "height", "margin", "ease", "blockedBy", "body", "touch", "keeps"],
  ...SETTINGS.map((setting) => setting.path.split(".")[1]!),
  ...FACINGS,
];
const RANK = new Map([...KEY_ORDER].reverse().map((key, i) => [key, KEY_ORDER.length - i]));
const SPAN_FIRST = new Set(["from", "to"]);

function ranked(value: object): [string, unknown][] {
  const span = "from" in value;
  const rank = (key: string) => (span && SPAN_FIRST.has(key) ? (key === "from" ? -2 : -1) : (RANK.get(key) ?? 0));
  return Object.entries(value).sort(([a], [b]) => rank(a) - rank(b));
}

/** JSON on one line with a blank after `:` and `,` and inside braces, as in the format's example. */
function inline(value: unknown): string {
  if (Array.isArray(value)) return `[${value.map(inline).join(", ")}]`;
  if (value !== null && typeof value === "object") {
    const entries = ranked(value).filter(([, v]) => v !== undefined);
    return entries.length === 0 ? "{}" : `{ ${entries.map(([k, v]) => `${JSON.stringify(k)}: ${inline(v)}`).join(", ")} }`;
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

const RULE_GROUPS = ["input", "walker", "hop", "glide", "roam", "drift", "facing", "pose"] as const;

function rulesText(rules: Rules): string {
  const groups = RULE_GROUPS.map((key) => `      "${key}": ${inline(rules[key])}`);
  return `    { "id": ${inline(rules.id)}, "name": ${inline(rules.name)}, "gait": ${inline(rules.gait)},\n${groups.join(",\n")} }`;
}

function roomText(room: Room): string {
  const { north, east, south, west } = room.edges;
  const rows: string[] = [];
  for (let y = 0; y < room.height; y++) rows.push(`        ${room.cells.subarray(y * room.width, (y + 1) * room.width).join(",")}`);
  const fixtures =
    room.fixtures.length === 0 ? "[]" : `[\n${joined(room.fixtures.map((f) => `        ${inline(f)}`)).join("\n")}\n      ]`;
  return [
    `    { "id": ${inline(room.id)}, "name": ${inline(room.name)}, "width": ${room.width}, "height": ${room.height}, "plan": ${inline(room.plan)},`,
    `      "edges": ${inline({ north, east, south, west })},`,
    `      "cells": [`,
    rows.join(",\n"),
    "      ],",
    `      "fixtures": ${fixtures},`,
    `      "actors": [] }`,
  ].join("\n");
}
