// A stand-in for somebody's own game: a naive mover with units and names of its own. It knows nothing of Keen Pebble.
//   node mover.js < held.txt > trace.csv
// A line of held.txt is a number of ticks and the keys that are held in them: `12 EAST NORTH`.
// The trace has a row a tick: the middle of the mover in px, y up from the floor of the map, and the keys.
import { readFileSync } from "node:fs";

const MAP = [
  "################",
  "#..............#",
  "#..##......##..#",
  "#..##......##..#",
  "#......##......#",
  "#......##......#",
  "#..##......##..#",
  "#..............#",
  "################",
];
const CELL = 16;
const SPEED = 2;
const HALF = 6;
const MISTAKE = process.argv.includes("--both-back");

/** Whether a square round a point is clear of walls; y is counted from the top here. */
function isClear(x, y) {
  for (const [dx, dy] of [
    [-HALF, -HALF],
    [HALF - 1, -HALF],
    [-HALF, HALF - 1],
    [HALF - 1, HALF - 1],
  ])
    if (MAP[Math.floor((y + dy) / CELL)]?.[Math.floor((x + dx) / CELL)] !== ".") return false;
  return true;
}

/** Goes px by px along one axis until something is in the way. */
function slide(x, y, dx, dy) {
  let [atX, atY] = [x, y];
  for (let i = 0; i < Math.abs(dx + dy); i++) {
    const [nextX, nextY] = [atX + Math.sign(dx), atY + Math.sign(dy)];
    if (!isClear(nextX, nextY)) break;
    [atX, atY] = [nextX, nextY];
  }
  return [atX, atY];
}

function tick(x, y, held) {
  const dx = (held.has("EAST") ? SPEED : 0) - (held.has("WEST") ? SPEED : 0);
  const dy = (held.has("SOUTH") ? SPEED : 0) - (held.has("NORTH") ? SPEED : 0);
  // The mistake that a first version often makes: what does not fit is taken back on both axes.
  if (MISTAKE) return isClear(x + dx, y + dy) ? [x + dx, y + dy] : [x, y];
  const [movedX, movedY] = slide(x, y, dx, 0);
  return slide(movedX, movedY, 0, dy);
}

let [x, y] = [2.5 * CELL, 7.5 * CELL];
let now = 0;
const floor = MAP.length * CELL;
const row = (keys) => process.stdout.write(`${now},${x},${floor - y},${keys}\n`);
process.stdout.write("tick,px,py,pad\n");
row("");
for (const line of readFileSync(0, "utf8").split("\n")) {
  const [ticks, ...keys] = line.trim().split(/\s+/);
  for (let i = 0; i < Number(ticks); i++) {
    [x, y] = tick(x, y, new Set(keys));
    now++;
    row(keys.join(" "));
  }
}
