import type { Compiled } from "../compiled/compiled.ts";
import { compile } from "../simulation/compile.ts";
import { emptyWorld } from "../world/empty-world.ts";
import type { Rules, Tile, World } from "../world/world.ts";

const BLOCK: Tile = {
  id: "block",
  name: "Block",
  flags: [],
  shape: { kind: "full" },
  look: { fill: "#8d7f6f" },
  joins: null,
  glyph: "#",
};

/**
 * A room drawn as rows of characters in which a rule set is tried: `#` blocks it, if anything does; the walker starts
 * at `S`.
 * @param edges what its four sides are
 */
export function feelGround(rules: Rules, tileSize: number, rows: readonly string[], edges: "wall" | "wrap"): Compiled {
  const flag = rules.walker.blockedBy[0] ?? "solid";
  const base = emptyWorld("feel", "Feel", tileSize);
  const width = rows[0]!.length;
  const cells = Uint16Array.from(rows.join(""), (ch) => (ch === "#" ? 1 : 0));
  const at = rows.join("").indexOf("S");
  const side = { kind: edges } as const;
  const world: World = {
    ...base,
    flags: [flag],
    tiles: [base.tiles[0]!, { ...BLOCK, flags: [flag] }],
    rules: [rules],
    activeRules: rules.id,
    start: { room: "feel", cell: [at % width, Math.floor(at / width)], facing: "down" },
    laws: [],
    rooms: [
      {
        id: "feel",
        name: "Feel",
        width,
        height: rows.length,
        plan: [0, 0],
        edges: { north: side, east: side, south: side, west: side },
        cells,
        fixtures: [],
        actors: [],
      },
    ],
  };
  return compile(world, rules.id);
}
