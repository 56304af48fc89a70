import { xoroshiro128plus } from "pure-rand/generator/xoroshiro128plus";
import { uniformInt } from "pure-rand/distribution/uniformInt";

/** Whole numbers from a seed, the same on every machine. */
export function numbersFrom(seed) {
  const rng = xoroshiro128plus(seed);
  return (max) => uniformInt(rng, 0, max - 1);
}

const tile = (id, flags, shape = { kind: "full" }) => ({ id, name: id, flags, shape, look: { fill: "#8d7f6f" } });

/** A world of rooms of one size under glide; a wall in every eighth cell, none round the start. */
export function worldOf(width, height, { rooms = 1, tiles = 2, fixtures = 0, speed = 2, edges = {} } = {}) {
  const upTo = numbersFrom(width * 1000 + height);
  const cells = () => Array.from({ length: width * height }, (_, i) => (i > 2 * width && upTo(8) === 0 ? 1 : 0));
  const places = Array.from({ length: fixtures }, (_, i) => ({
    id: `lamp-${i}`,
    kind: "checkpoint",
    cell: [i % width, Math.floor(i / width) % height],
  }));
  return {
    format: "keen-pebble-world",
    version: 1,
    id: "speed",
    name: "Speed",
    tileSize: 16,
    flags: ["solid"],
    tiles: [
      tile("empty", []),
      tile("wall", ["solid"]),
      ...Array.from({ length: tiles - 2 }, (_, i) => tile(`t-${i}`, i % 2 ? ["solid"] : [])),
    ],
    rules: [{ id: "main", name: "Main", gait: "glide", glide: { speed, bufferFrames: 8 } }],
    activeRules: "main",
    start: { room: "room-0", cell: [0, 0] },
    rooms: Array.from({ length: rooms }, (_, i) => ({
      id: `room-${i}`,
      name: `Room ${i}`,
      width,
      height,
      edges,
      cells: cells(),
      fixtures: i === 0 ? places : [],
    })),
  };
}

/** A world of one room with walls, slopes and ledges all over, under a gait. */
export function mixedWorld(width, height, gait, edges = {}) {
  const upTo = numbersFrom(width + height);
  const base = worldOf(width, height, { edges });
  const shapes = [
    { kind: "full" },
    {
      kind: "poly",
      points: [
        [16, 0],
        [16, 16],
        [0, 16],
      ],
    },
    {
      kind: "poly",
      points: [
        [0, 0],
        [16, 16],
        [0, 16],
      ],
    },
    {
      kind: "boxes",
      boxes: [
        [0, 10, 16, 6],
        [4, 0, 4, 4],
      ],
    },
  ];
  const tiles = [base.tiles[0], ...shapes.map((shape, i) => tile(`shape-${i}`, ["solid"], shape))];
  const cells = base.rooms[0].cells.map((_, i) => (i > 2 * width && upTo(10) === 0 ? 1 + upTo(4) : 0));
  const rules = {
    ...base.rules[0],
    gait,
    walker: { body: { kind: "box", box: [2, 2, 12, 12] } },
    hop: { repeatAfter: 8, repeatEvery: 4 },
    roam: { speedX: 1.5, speedY: 1.5 },
    drift: { maxSpeed: 2 },
  };
  return { ...base, tiles, rules: [rules], rooms: [{ ...base.rooms[0], cells }] };
}

/** A log that presses all directions, some of them together, for that many frames. */
export function logOf(frames, seed = 7) {
  const upTo = numbersFrom(seed);
  const lines = [];
  for (let left = frames; left > 0;) {
    const count = Math.min(left, 4 + upTo(60));
    lines.push(/** @type {const} */ ({ kind: "keys", count, keys: upTo(16), pointer: null, until: null }));
    left -= count;
  }
  return lines;
}
