// Random walks over 20 worlds by seed, each with a fault: how long until it is found and shrunk, and to how many frames.
import { takeRandomWalks, randomWalkTasks } from "@keen-pebble/core/analyse";
import { compile } from "@keen-pebble/core/simulate";
import { readWorld } from "@keen-pebble/core/reading";
import { say, sized } from "./measure.mjs";
import { numbersFrom, worldOf } from "./worlds.mjs";

const WORLDS = sized(20, 1);
const WIDTH = 16;
const HEIGHT = 12;

/** A room with a wall round it and some blocks in it, the walker at its top left. */
function roomOf(seed) {
  const any = numbersFrom(seed);
  const base = worldOf(WIDTH, HEIGHT);
  const isEdge = (x, y) => x === 0 || y === 0 || x === WIDTH - 1 || y === HEIGHT - 1;
  const cells = base.rooms[0].cells.map((_, i) => {
    const [x, y] = [i % WIDTH, Math.floor(i / WIDTH)];
    return isEdge(x, y) || (any(9) === 0 && x + y > 3) ? 1 : 0;
  });
  return { any, world: { ...base, start: { room: "room-0", cell: [1, 1] }, rooms: [{ ...base.rooms[0], cells }] } };
}

/** Whether a walker of one cell's size can come from the start to a cell. */
function reaches(world, x, y) {
  const { cells } = world.rooms[0];
  const seen = new Set([WIDTH + 1]);
  for (const cell of seen) for (const by of [1, -1, WIDTH, -WIDTH]) if (cells[cell + by] === 0) seen.add(cell + by);
  return seen.has(y * WIDTH + x);
}

const withRules = (world, rules) => ({ ...world, rules: [{ ...world.rules[0], ...rules }] });

const FAULTS = {
  "undo-both that sticks": (seed) => {
    const { any, world } = roomOf(seed);
    return withRules(world, {
      gait: "roam",
      input: { ways: 8 },
      roam: { speedX: 1 + any(3), speedY: 1 + any(3), response: "undo-both" },
    });
  },
  "equal that runs off": (seed) => {
    const { any, world } = roomOf(seed);
    return withRules(world, { gait: "glide", glide: { speed: [3, 5, 6, 7][any(4)], arrive: "equal" } });
  },
  "a gap in the wall of a closed room": (seed) => {
    const { any, world } = roomOf(seed);
    // A wall from top to bottom with one gap in it: nobody may be beyond.
    const column = 4 + any(3);
    const gap = 2 + any(HEIGHT - 4);
    const cells = world.rooms[0].cells.map((tile, i) => {
      const [x, y] = [i % WIDTH, Math.floor(i / WIDTH)];
      if (x === column) return y === gap ? 0 : 1;
      return y === gap && x < column && x > column - 3 ? 0 : tile;
    });
    const closed = {
      ...world,
      rooms: [
        {
          ...world.rooms[0],
          cells: cells.map((tile, i) => (i % WIDTH === column + 1 && Math.floor(i / WIDTH) === gap ? 0 : tile)),
        },
      ],
    };
    // Blocks may shut the gap off: another room then.
    if (!reaches(closed, column + 1, gap)) return FAULTS["a gap in the wall of a closed room"](seed + 1000);
    const laws = Array.from({ length: HEIGHT }, (_, y) => `never cell ${column + 1} ${y}`);
    return { ...withRules(closed, { gait: "glide", glide: { speed: 4 } }), laws };
  },
};

for (const [fault, make] of Object.entries(FAULTS)) {
  const times = [];
  const frames = [];
  for (let seed = 1; seed <= WORLDS; seed++) {
    const c = compile(readWorld(JSON.stringify(make(seed))));
    const began = performance.now();
    let found = [];
    for (const task of randomWalkTasks({ seed: 1, runs: 100_000, frames: 1200 })) {
      found = takeRandomWalks(c, task);
      if (found.length > 0 || performance.now() - began > 10_000) break;
    }
    times.push(found.length > 0 ? performance.now() - began : Infinity);
    frames.push(found.length > 0 ? Math.min(...found.map(({ frame }) => frame)) : Infinity);
  }
  const sorted = (list) => [...list].sort((a, b) => a - b);
  say(
    `random walks find and shrink ${fault}: the longest of all`,
    `${WORLDS} worlds of ${WIDTH}x${HEIGHT}`,
    sorted(times).at(-1),
    "ms",
    0,
    sorted(times)[0],
  );
  say(
    `frames of the log that shows ${fault}: the longest of all`,
    `${WORLDS} worlds of ${WIDTH}x${HEIGHT}`,
    sorted(frames).at(-1),
    "frames",
    0,
    sorted(frames)[0],
  );
}
