import { xoroshiro128plus } from "pure-rand/generator/xoroshiro128plus";
import { uniformInt } from "pure-rand/distribution/uniformInt";

/** Whole numbers from a seed, the same on every machine. */
export function numbersFrom(seed) {
  const rng = xoroshiro128plus(seed);
  return (most) => uniformInt(rng, 0, most - 1);
}

const tile = (id, flags, shape = { kind: "full" }) => ({ id, name: id, flags, shape, look: { fill: "#8d7f6f" } });

/** A world of rooms of one size under glide; a wall in every eighth cell, none round the start. */
export function worldOf(width, height, { rooms = 1, tiles = 2, fixtures = 0, speed = 2, edges = {} } = {}) {
  const any = numbersFrom(width * 1000 + height);
  const cells = () => Array.from({ length: width * height }, (_, i) => (i > 2 * width && any(8) === 0 ? 1 : 0));
  const places = Array.from({ length: fixtures }, (_, i) => ({ id: `lamp-${i}`, kind: "checkpoint", cell: [i % width, Math.floor(i / width) % height] }));
  return {
    format: "keen-pebble-world",
    version: 1,
    id: "speed",
    name: "Speed",
    tileSize: 16,
    flags: ["solid"],
    tiles: [tile("empty", []), tile("wall", ["solid"]), ...Array.from({ length: tiles - 2 }, (_, i) => tile(`t-${i}`, i % 2 ? ["solid"] : []))],
    rules: [{ id: "main", name: "Main", gait: "glide", glide: { speed, bufferFrames: 8 } }],
    activeRules: "main",
    start: { room: "room-0", cell: [0, 0] },
    rooms: Array.from({ length: rooms }, (_, i) => ({ id: `room-${i}`, name: `Room ${i}`, width, height, edges, cells: cells(), fixtures: i === 0 ? places : [] })),
  };
}

/** A log that presses all directions, some of them together, for that many frames. */
export function logOf(frames, seed = 7) {
  const any = numbersFrom(seed);
  const lines = [];
  for (let left = frames; left > 0; ) {
    const count = Math.min(left, 4 + any(60));
    lines.push({ kind: "keys", count, keys: any(16), pointer: null, until: null });
    left -= count;
  }
  return lines;
}
