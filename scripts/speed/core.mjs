import { readFileSync } from "node:fs";
import { EMPTY_LOG, flatLog, overSeeds, parseCheck, readLog } from "@keen-pebble/core/check";
import { writeWorld } from "@keen-pebble/core/formats";
import { SimState, compile, run, sameSituation, situationHash, stateAt } from "@keen-pebble/core/simulate";
import { readWorld } from "@keen-pebble/core/reading";
import { measure, say, sized } from "./measure.mjs";
import { logOf, mixedWorld, worldOf } from "./worlds.mjs";

const FRAMES = sized(1_000_000, 10_000);
const world = (width, height, more) => readWorld(JSON.stringify(worldOf(width, height, more)));
const walkIn = (made) => {
  const compiled = compile(made);
  const log = { ...EMPTY_LOG, lines: logOf(FRAMES) };
  return () => run(compiled, log);
};

// Replay.
const small = world(64, 64);
const replay = await measure(walkIn(small), 25);
say(
  "replay of glide, frames a second",
  "64x64, 1,000,000 frames",
  FRAMES / (replay.median / 1000),
  "frames/s",
  replay.spread,
  FRAMES / (replay.best / 1000),
);

for (const gait of ["hop", "glide", "roam", "drift"]) {
  const { median, best, spread } = await measure(walkIn(readWorld(JSON.stringify(mixedWorld(96, 72, gait)))), 9);
  say(
    `replay of ${gait}, frames a second`,
    "96x72 with mixed shapes",
    FRAMES / (median / 1000),
    "frames/s",
    spread,
    FRAMES / (best / 1000),
  );
}

// Actors: 64 of them that come nearer, wander and walk paths; and what a world without any pays for there being such.
const moving = (actors) => {
  const base = worldOf(64, 64, {});
  const plans = [
    [{ do: "toward" }],
    [{ do: "wander" }],
    [
      {
        frames: 60,
        do: "path",
        then: "back",
        cells: [
          [0, 0],
          [20, 20],
        ],
      },
      { frames: 60, do: "away" },
    ],
  ];
  const made = Array.from({ length: actors }, (_, i) => ({
    id: `actor-${i}`,
    cell: [i % 60, i % 2],
    speed: 2,
    plan: plans[i % 3],
  }));
  return readWorld(JSON.stringify({ ...base, rooms: [{ ...base.rooms[0], actors: made }] }));
};
for (const actors of [1, 64]) {
  const { median, best, spread } = await measure(walkIn(moving(actors)), 9);
  say(
    `cost of a frame, ${actors} ${actors === 1 ? "actor" : "actors"}`,
    "64x64",
    (median * 1e6) / FRAMES,
    "ns",
    spread,
    (best * 1e6) / FRAMES,
  );
}

// A log of 1,200 frames over seeds, its check asked in each.
const wandering = compile(moving(3));
const overs = sized(10_000, 10);
const never = parseCheck(["never", "meets", "actor-1"]);
if (!("check" in never)) throw new Error("no check");
const seeded = { ...EMPTY_LOG, lines: logOf(1200), checks: [never.check] };
const seeds = await measure(() => overSeeds(wandering, seeded, 0, overs), 1);
say(
  "a log over seeds, on one core",
  `${overs} seeds, 1,200 frames`,
  seeds.median / 1000,
  "s",
  seeds.spread,
  seeds.best / 1000,
);

// What a frame leaves behind: the difference between a long and a short log of few lines.
const compiled = compile(small);
const leftBy = (frames) => {
  const lines = [2, 8, 1, 4].flatMap((keys) => [
    /** @type {const} */ ({ kind: "keys", count: frames / 4, keys, pointer: null, until: null }),
  ]);
  globalThis.gc?.();
  const before = process.memoryUsage().heapUsed;
  run(compiled, { ...EMPTY_LOG, lines });
  return process.memoryUsage().heapUsed - before;
};
leftBy(FRAMES);
const left = (leftBy(4 * FRAMES) - leftBy(FRAMES)) / (3 * FRAMES);
say("heap that a frame leaves behind", "4,000,000 frames less 1,000,000", left, "bytes", 0);

// The cost of a frame does not grow with the room: both walk all over, through wrapped sides.
const edges = Object.fromEntries(["north", "east", "south", "west"].map((side) => [side, { kind: "wrap" }]));
const sizes = [];
for (const side of [32, 512]) {
  const { median, best, spread } = await measure(walkIn(world(side, side, { speed: 8, edges })), 15);
  sizes.push({ median, best });
  say("cost of a frame of glide", `${side}x${side}`, (median * 1e6) / FRAMES, "ns", spread, (best * 1e6) / FRAMES);
}
say(
  "cost of a frame, 512x512 against 32x32",
  "1,000,000 frames",
  sizes[1].median / sizes[0].median,
  "ratio",
  0,
  sizes[1].best / sizes[0].best,
);

// Fixtures are found by cell: a room full of them costs a frame no more than a few.
const filled = [];
for (const fixtures of [4, 4096]) {
  const { median, best, spread } = await measure(walkIn(world(96, 72, { fixtures, speed: 8, edges })), 15);
  filled.push({ median, best });
  say(
    "cost of a frame with fixtures",
    `${fixtures} in 96x72`,
    (median * 1e6) / FRAMES,
    "ns",
    spread,
    (best * 1e6) / FRAMES,
  );
}
say(
  "cost of a frame, 4,096 fixtures against 4",
  "1,000,000 frames",
  filled[1].median / filled[0].median,
  "ratio",
  0,
  filled[1].best / filled[0].best,
);

// A frame of the demo's five rooms against one of a bare room: the whole way, with its doors, keys and seams.
{
  const folder = new URL("../../demo/saltglass-cistern/", import.meta.url);
  const demo = readWorld(readFileSync(new URL("saltglass-cistern.world.json", folder), "utf8"));
  const until = readLog(readFileSync(new URL("logs/01-the-whole-way.inputs", folder), "utf8"));
  const bare = readWorld(JSON.stringify(worldOf(20, 16, { speed: 2, edges })));
  const compiled = [compile(demo), compile(bare)];
  // Pressed frame by frame, as the bare room's log is: what `until` asks of a row is not the rooms' cost.
  const { frames, lineEnds } = run(compiled[0], until);
  const way = { ...flatLog(until, lineEnds), checks: [] };
  const times = Math.ceil(FRAMES / frames / 4);
  // What a search does for every state that it meets: copy it, hash it, compare it.
  const [from, to] = [stateAt(compiled[0], until, 300), new SimState(compiled[0])];
  const COPIES = sized(1_000_000, 10_000);
  const many = (act) => () => {
    for (let i = 0; i < COPIES; i++) act();
  };
  for (const [what, act] of [
    ["copy of what a state carries", () => to.copyCarried(from)],
    ["hash of a situation", () => situationHash(compiled[0], from)],
    ["comparison of equal situations", () => sameSituation(compiled[0], from, to)],
  ]) {
    const { median, best, spread } = await measure(many(act), 9);
    say(what, "the demo", (median * 1e6) / COPIES, "ns", spread, (best * 1e6) / COPIES);
  }
  const again = (c, log) => () => {
    for (let i = 0; i < times; i++) run(c, log);
  };
  const lines = logOf(frames);
  const [five, one] = [
    await measure(again(compiled[0], way), 15),
    await measure(again(compiled[1], { ...EMPTY_LOG, lines }), 15),
  ];
  say(
    "cost of a frame in the demo's five rooms",
    `${frames} frames`,
    (five.median * 1e6) / times / frames,
    "ns",
    five.spread,
    (five.best * 1e6) / times / frames,
  );
  say(
    "cost of a frame, five rooms against a bare one",
    `${frames} frames`,
    five.median / one.median,
    "ratio",
    0,
    five.best / one.best,
  );
}

// The largest world: 2 million cells, 1,024 tiles, 4,096 fixtures.
const largest = world(sized(500, 60), sized(500, 60), { rooms: 8, tiles: 1024, fixtures: 4096 });
const text = writeWorld(largest);
const size = `2,000,000 cells, ${(text.length / 1024 / 1024).toFixed(1)} MiB`;
for (const [what, act] of [
  ["read the largest world", () => readWorld(text)],
  ["write the largest world", () => writeWorld(largest)],
]) {
  const { median, best, spread } = await measure(act, 7);
  say(what, size, median, "ms", spread, best);
}

// Hostile files: the slowest of them, and what the process had at its most.
const hostile = {
  "a million keys": `{${Array.from({ length: sized(1_000_000, 1000) }, (_, i) => `"k${i}":0`).join(",")}}`,
  "a million tiles that are none": JSON.stringify({ ...worldOf(4, 4), tiles: Array(sized(1_000_000, 1000)).fill(1) }),
  "sixteen MiB of brackets": "[".repeat(sized(16 * 1024, 1) * 1024),
  "seven million cells": JSON.stringify({
    ...worldOf(4, 4),
    rooms: [{ ...worldOf(4, 4).rooms[0], cells: Array(sized(7_000_000, 1000)).fill(0) }],
  }),
  "a broken end": text.slice(0, -3),
};
for (const [what, bad] of Object.entries(hostile)) {
  const { median, best, spread } = await measure(() => {
    try {
      readWorld(bad);
    } catch (error) {
      if (error.code !== "refused") throw error;
    }
  }, 3);
  say("refuse a hostile file", what, median, "ms", spread, best);
}
say("memory of the process at its most", "all of the above", process.resourceUsage().maxRSS / 1024, "MiB", 0);
