import type { Tile, World } from "./world.ts";
import { newRules } from "./new-rules.ts";

const FULL = { kind: "full" } as const;

const TILES: readonly Tile[] = [
  { id: "empty", name: "Empty", flags: [], shape: FULL, look: { fill: "#101418" }, joins: null, glyph: null },
  {
    id: "floor",
    name: "Floor",
    flags: [],
    shape: FULL,
    look: { fill: "#7f8f89", pattern: "flagstone" },
    joins: null,
    glyph: ".",
  },
  {
    id: "wall",
    name: "Wall",
    flags: ["solid"],
    shape: FULL,
    look: { fill: "#d9cfb4", pattern: "crust" },
    joins: null,
    glyph: "#",
  },
];

/**
 * A world to begin with: one empty room, the empty tile, a floor and a wall, and a walker that glides, in the middle.
 * @param tileSize px of a cell's side
 * @param size cells across and down
 */
export function emptyWorld(
  id: string,
  name: string,
  tileSize: number,
  [width, height]: readonly [number, number] = [20, 12],
): World {
  const rules = newRules("main", "Main", "glide", tileSize);
  const wall = { kind: "wall" } as const;
  return {
    id,
    name,
    tileSize,
    frameRate: 60,
    seed: 1,
    sheets: [],
    flags: ["solid"],
    tiles: TILES,
    items: [],
    circuits: [],
    lives: null,
    respawnRestores: "keeps",
    rules: [{ ...rules, glide: { ...rules.glide, speed: Math.max(1, Math.floor(tileSize / 8)), bufferFrames: 8 } }],
    activeRules: "main",
    camera: { mode: "follow", width: 20, height: 12, margin: [6, 4], ease: 0 },
    figure: null,
    start: { room: "room-1", cell: [width >> 1, height >> 1], facing: "down" },
    goal: null,
    laws: [],
    reachChecks: [],
    games: [],
    rooms: [
      {
        id: "room-1",
        name: "Room 1",
        width,
        height,
        plan: [0, 0],
        edges: { north: wall, east: wall, south: wall, west: wall },
        cells: new Uint16Array(width * height).fill(1),
        fixtures: [],
        actors: [],
      },
    ],
  };
}
