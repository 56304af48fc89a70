import { LEFT, RIGHT, DOWN, UP } from "../world/keys.ts";
import type { InputLog, LogLine } from "../logs/input-log.ts";
import { EMPTY_LOG } from "../logs/input-log.ts";
import { newRules } from "../world/new-rules.ts";
import type { Rules, Tile, World } from "../world/world.ts";

/** Settings of a tiny world that a test cares about; the rest are the defaults. */
export interface TinyOptions {
  readonly tileSize?: number;
  readonly gait?: Rules["gait"];
  readonly hop?: Partial<Rules["hop"]>;
  readonly glide?: Partial<Rules["glide"]>;
  readonly roam?: Partial<Rules["roam"]>;
  readonly drift?: Partial<Rules["drift"]>;
  readonly input?: Partial<Rules["input"]>;
  readonly facing?: Partial<Rules["facing"]>;
  readonly pose?: Partial<Rules["pose"]>;
  readonly body?: Rules["walker"]["body"];
  readonly blockedBy?: readonly string[];
  readonly edges?: "wall" | "wrap";
}

const full = { kind: "full" } as const;
const tile = (id: string, flags: string[], shape: Tile["shape"] = full): Tile => ({
  id,
  name: id,
  flags,
  shape,
  look: { fill: "#8d7f6f" },
  joins: null,
  glyph: null,
});

/** A triangle that leaves the cell's sides open. */
const roof = (t: number): Tile =>
  tile("roof", ["solid"], {
    kind: "poly",
    points: [
      [t / 2, t / 4],
      [(3 * t) / 4, (3 * t) / 4],
      [t / 4, (3 * t) / 4],
    ],
  });

/**
 * A world of one room drawn as rows of characters: `#` solid, `/` solid below the diagonal from bottom left to top
 * right, `^` a solid triangle within the cell, `=` solid in its lower half, anything else free. The walker starts at `S`, or at cell 0 0.
 */
export function tinyWorld(rows: readonly string[], options: TinyOptions = {}): World {
  const t = options.tileSize ?? 16;
  const width = rows[0]!.length;
  const cells = Uint16Array.from(rows.join(""), (ch) => ({ "#": 1, "/": 2, "=": 3, "^": 4 })[ch] ?? 0);
  const at = rows.join("").indexOf("S");
  const base = newRules("main", "Main", options.gait ?? "glide", t);
  const rules: Rules = {
    ...base,
    hop: { ...base.hop, ...options.hop },
    roam: { ...base.roam, ...options.roam },
    drift: { ...base.drift, ...options.drift },
    glide: { ...base.glide, ...options.glide },
    input: { ...base.input, ...options.input },
    facing: { ...base.facing, ...options.facing },
    pose: { ...base.pose, ...options.pose },
    walker: {
      ...base.walker,
      blockedBy: options.blockedBy ?? base.walker.blockedBy,
      body: options.body ?? base.walker.body,
    },
  };
  const side = { kind: options.edges ?? "wall" };
  return {
    id: "tiny",
    name: "Tiny",
    tileSize: t,
    frameRate: 60,
    seed: 1,
    sheets: [],
    flags: ["solid"],
    tiles: [
      tile("empty", []),
      tile("block", ["solid"]),
      tile("slope", ["solid"], {
        kind: "poly",
        points: [
          [t, 0],
          [t, t],
          [0, t],
        ],
      }),
      tile("ledge", ["solid"], { kind: "boxes", boxes: [[0, t / 2, t, t / 2]] }),
      ...(rows.some((row) => row.includes("^")) ? [roof(t)] : []),
    ],
    items: [],
    circuits: [],
    lives: null,
    respawnRestores: "keeps",
    rules: [rules],
    activeRules: "main",
    camera: { mode: "follow", width: 20, height: 12, margin: [6, 4], ease: 0 },
    figure: null,
    start: { room: "a", cell: at < 0 ? [0, 0] : [at % width, Math.floor(at / width)], facing: "down" },
    goal: null,
    laws: [],
    reachChecks: [],
    games: [],
    rooms: [
      {
        id: "a",
        name: "A",
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
}

const LETTERS: Readonly<Record<string, number>> = { L: LEFT, R: RIGHT, U: UP, D: DOWN };

/** A log of lines such as `5 R`, `3 RD`, `2 .`, parted by commas. */
export function tinyLog(lines: string, more: Partial<InputLog> = {}): InputLog {
  const parsed = lines.split(",").map((line): LogLine => {
    const [count, keys] = line.trim().split(" ");
    return {
      kind: "keys",
      count: Number(count),
      keys: [...keys!].reduce((bits, letter) => bits | (LETTERS[letter] ?? 0), 0),
      pointer: null,
      until: null,
    };
  });
  return { ...EMPTY_LOG, lines: parsed, ...more };
}
