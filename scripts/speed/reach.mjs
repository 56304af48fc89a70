// What can be reached: the demo, states a second, many cells with locks, and many things to collect.
import { readFileSync } from "node:fs";
import { Reach } from "@keen-pebble/core/analyse";
import { readWorld } from "@keen-pebble/core/reading";
import { measure, say, sized } from "./measure.mjs";
import { numbersFrom, worldOf } from "./worlds.mjs";

const HOP = { id: "main", name: "Main", gait: "hop", hop: { slide: false } };

/** Rooms side by side, each open to the next one through one cell. */
function rowOfRooms(side, rooms, fixtures, more = {}) {
  const base = worldOf(side, side, { rooms });
  const middle = side >> 1;
  return {
    ...base,
    rules: [HOP],
    items: [
      { id: "key", name: "Key", role: "key", colour: "#c89b3c" },
      { id: "bead", name: "Bead", role: "treasure", colour: "#5fb7a5" },
    ],
    rooms: base.rooms.map((room, i) => {
      const cells = room.cells.map((tile, at) => {
        const [x, y] = [at % side, Math.floor(at / side)];
        const isWay = Math.abs(y - middle) <= 1 || Math.abs(x - middle) <= 1;
        return isWay || (x === 0 && y === 0) ? 0 : tile;
      });
      const link = (to) => [{ kind: "link", room: `room-${to}`, from: middle, to: middle }];
      const edges = { ...(i > 0 ? { west: link(i - 1) } : {}), ...(i < rooms - 1 ? { east: link(i + 1) } : {}) };
      return { ...room, cells, edges, fixtures: fixtures(i, middle) };
    }),
    ...more,
  };
}

/** Keys beside the start of each room, doors before its end: all of them are asked for, none is lost. */
const locked =
  (locks, rooms, side, spends = false) =>
  (room, middle) =>
    Array.from({ length: Math.ceil(locks / rooms) }, (_, n) => n)
      .filter((n) => room * Math.ceil(locks / rooms) + n < locks)
      .flatMap((n) => [
        { id: `key-${room}-${n}`, kind: "item", cell: [middle + 2 + n, middle], give: "key" },
        {
          id: `door-${room}-${n}`,
          kind: "door",
          cell: [side - 1 - n, middle],
          lock: { kind: "item", item: "key", count: spends ? 1 : room * Math.ceil(locks / rooms) + n + 1, spends },
        },
      ]);

const beads = (each, side) => (room) => {
  const any = numbersFrom(room + 1);
  const cells = new Set();
  while (cells.size < each) cells.add(1 + any(side - 1) + (1 + any(side - 1)) * side);
  return [...cells].map((at, n) => ({
    id: `bead-${room}-${n}`,
    kind: "item",
    cell: [at % side, Math.floor(at / side)],
    give: "bead",
  }));
};

const world = (plain) => readWorld(JSON.stringify(plain), "speed");

async function time(what, size, made, limit, rounds = 3) {
  const ask = () => new Reach(made, limit === undefined ? {} : { limit }).answer();
  const { median, spread, best } = await measure(ask, rounds);
  say(what, size, median, "ms", spread, best);
  const answer = ask();
  return { answer, best };
}

const demo = readWorld(readFileSync("demo/saltglass-cistern/saltglass-cistern.world.json", "utf8"), "demo");
const began = performance.now();
new Reach(demo).answer();
say(
  "all that can be reached, asked once in a new process",
  "the demo's five rooms",
  performance.now() - began,
  "ms",
  0,
);
// Asked again with each change that is painted.
const { answer } = await time("all that can be reached", "the demo's five rooms", demo, undefined, 25);
say("states of all play", "the demo's five rooms", answer.states, "states", 0);

const hops = world(rowOfRooms(64, 1, locked(8, 1, 64, true)));
const limit = sized(1_000_000, 20_000);
const searched = await time("states looked at", `64 x 64, 8 locks, ${limit} one by one`, hops, limit);
say("states a second", "hop, 64 x 64, 8 locks", (searched.answer.states / searched.best) * 1000, "states/s", 0);

const times = [];
for (const side of sized([128, 256], [16, 32])) {
  const many = await time(
    "all that can be reached",
    `8 rooms of ${side} x ${side}, 12 locks`,
    world(rowOfRooms(side, 8, locked(12, 8, side))),
  );
  times.push(many.best);
  say("open", `8 rooms of ${side} x ${side}, 12 locks`, many.answer.exhaustive ? 0 : 1, "0 or 1", 0);
}
say("four times the cells", "8 rooms, 12 locks", times[1] / times[0], "times as long", 0);

const collected = world(rowOfRooms(64, 4, beads(sized(100, 10), 64), { goal: { kind: "collect", item: "bead" } }));
const all = await time("all that can be reached", "400 beads in 4 rooms of 64 x 64", collected);
say("open", "400 beads in 4 rooms of 64 x 64", all.answer.exhaustive ? 0 : 1, "0 or 1", 0);
say("memory of the process", "after all of them", process.memoryUsage.rss() / 2 ** 20, "MiB", 0);
