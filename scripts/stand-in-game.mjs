// Makes the world and the traces of `demo/stand-in-game` anew: what the stand-in game walks, and our rules for it.
import { execFileSync } from "node:child_process";
import { readFileSync, writeFileSync } from "node:fs";
import { writeLog } from "@keen-pebble/core/check";
import { writeWorld } from "@keen-pebble/core/formats";
import { gameLog, readGameTable, readWorld } from "@keen-pebble/core/reading";

const folder = "demo/stand-in-game";
const mover = `${folder}/mover.js`;
const held = readFileSync(`${folder}/held.txt`, "utf8");
const trace = (...args) => execFileSync(process.execPath, [mover, ...args], { input: held, encoding: "utf8" });

// The map is the one that the game has in its source.
const rows = [...readFileSync(mover, "utf8").matchAll(/^ {2}"([#.]+)",$/gm)].map(([, row]) => row);
const wall = { kind: "wall" };
const world = readWorld(
  JSON.stringify({
    format: "keen-pebble-world",
    version: 1,
    id: "stand-in-game",
    name: "Stand-in game",
    tileSize: 16,
    frameRate: 60,
    seed: 1,
    flags: ["solid"],
    tiles: [
      { id: "floor", name: "Floor", flags: [], shape: { kind: "full" }, look: { fill: "#d9cfb8" } },
      { id: "wall", name: "Wall", flags: ["solid"], shape: { kind: "full" }, look: { fill: "#5a4a3f" } },
    ],
    rules: [
      {
        id: "main",
        name: "As the game",
        gait: "roam",
        input: { ways: 8 },
        roam: { speedX: 2, speedY: 2, diagonal: "full", response: "contact" },
        walker: { blockedBy: ["solid"], body: { kind: "box", box: [2, 2, 12, 12], flush: "free" } },
      },
    ],
    activeRules: "main",
    start: { room: "hall", cell: [2, 7], facing: "down" },
    games: [
      {
        id: "stand-in",
        name: "The stand-in",
        columns: { frame: "tick", x: "px", y: "py", room: null, keys: "pad" },
        unit: "px",
        yUp: true,
        anchor: "centre",
        origin: [0, 0],
        frameOffset: 0,
        tolerance: 0,
        rooms: {},
        keys: { WEST: "L", EAST: "R", NORTH: "U", SOUTH: "D" },
      },
    ],
    rooms: [
      {
        id: "hall",
        name: "Hall",
        width: rows[0].length,
        height: rows.length,
        plan: [0, 0],
        edges: { north: wall, east: wall, south: wall, west: wall },
        cells: rows.flatMap((row) => [...row].map((cell) => (cell === "#" ? 1 : 0))),
        fixtures: [],
      },
    ],
  }),
  "the stand-in's world",
);

writeFileSync(`${folder}/hall.world.json`, writeWorld(world));
const good = trace();
writeFileSync(`${folder}/trace.csv`, good);
writeFileSync(`${folder}/trace-both-back.csv`, trace("--both-back"));
const log = gameLog(readGameTable(good), world.games[0]);
writeFileSync(
  `${folder}/round-the-hall.inputs`,
  writeLog({ ...log, world: world.id, rules: "main", title: "Round the hall" }),
);
