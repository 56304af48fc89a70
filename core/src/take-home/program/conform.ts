/** `conform.js`: holds the program, or a trace of another one, against `golden/` (formats.md sections 9 and 10). */
export const CONFORM = `// Holds movement.js against golden/, or in its place a trace that another program wrote.
//   node conform.js                          all of golden/
//   node conform.js LOG TRACE [--game ID]    a trace of your game beside golden/LOG.trace.csv
import { readFileSync, readdirSync } from "node:fs";
import { begin, newState, step } from "./movement.js";

// How traces of games are read: see PORTING.md.
const GAMES = {GAMES};

const UNIT = 256;
const here = (name) => new URL(name, import.meta.url);
const world = JSON.parse(readFileSync(here("world.json"), "utf8"));
const TILE = {TILE} * UNIT;

// golden/LOG.inputs: a head with where it starts and what is set up, then a line for each run of keys.
function readInputs(log) {
  const [head, body] = readFileSync(here("golden/" + log + ".inputs"), "utf8").split("\\n---\\n");
  const inputs = { start: world.start, setUp: [], frames: [] };
  for (const line of head.split("\\n")) {
    const words = line.split(" ");
    if (words[0] === "start") {
      const room = world.rooms.findIndex((each) => each.id === words[1]);
      inputs.start = { room: room, cell: [Number(words[2]), Number(words[3])], facing: words[4] };
    }
    if (words[0] === "with") inputs.setUp.push(words.slice(1));
  }
  for (const line of body.split("\\n")) {
    if (line === "" || line.startsWith("#")) continue;
    const [count, keys, at] = line.split(" ");
    const held = keys === "." ? 0 : [...keys].reduce((bits, key) => bits | (1 << "LRUDAB".indexOf(key)), 0);
    const pointer = at === undefined ? null : at.slice(1).split(",").map((px) => Math.floor(Number(px) * UNIT + 0.5));
    for (let i = 0; i < Number(count); i++) inputs.frames.push({ held: held, keys: keys, pointer: pointer });
  }
  return inputs;
}

// What a log sets up before row 0.
function setUp(state, [what, name, count]) {
  const fixture = world.fixtures.findIndex((each) => each.id === name);
  if (what === "holds" && state.bag) state.bag[world.items.indexOf(name)] = Number(count ?? 1);
  if (what === "taken") state.taken[fixture] = true;
  if (what === "open") state.open[fixture] = true;
  if (what === "circuit" && state.circuits) state.circuits[world.circuits.indexOf(name)] = true;
  if (what === "lives") state.lives = Number(name);
  if (what === "respawn") state.checkpoint = fixture;
}

// The rows of a run, as golden/LOG.trace.csv has them.
function run(log) {
  const inputs = readInputs(log);
  const state = newState(world, inputs.start);
  for (const words of inputs.setUp) setUp(state, words);
  begin(state, world);
  const rows = [rowOf(state, ".")];
  for (const { held, keys, pointer } of inputs.frames) {
    if (state.status !== "playing") break;
    step(state, held, world, pointer);
    rows.push(rowOf(state, keys));
  }
  return rows;
}

function rowOf(state, keys) {
  const cell = (at) => Math.floor((at + TILE / 2) / TILE);
  const aligned = state.x % TILE === 0 && state.y % TILE === 0 ? 1 : 0;
  const room = world.rooms[state.room].id;
  const moving = state.moving ? 1 : 0;
  const place = [state.x, state.y, cell(state.x), cell(state.y)].join(",");
  return [state.frame, keys, room, place, state.facing, state.pose, moving, aligned, state.status, state.events.join(";")].join(",");
}

function goldenRows(log) {
  return readFileSync(here("golden/" + log + ".trace.csv"), "utf8").trimEnd().split("\\r\\n");
}

// All of golden/: gives how many logs agree in every row.
function compareAll(logs) {
  let agreed = 0;
  for (const log of logs) {
    const [columns, ...golden] = goldenRows(log);
    const rows = run(log);
    const at = golden.findIndex((row, i) => row !== rows[i]);
    if (at < 0 && rows.length === golden.length) {
      agreed += 1;
      continue;
    }
    const row = at < 0 ? golden.length : at;
    console.log(log + ": row " + row + " differs");
    console.log("           " + columns);
    console.log("  expected " + (golden[row] ?? "no row"));
    console.log("  found    " + (rows[row] ?? "no row"));
  }
  console.log(agreed + " of " + logs.length);
  return agreed === logs.length;
}

// A table out of CSV (parted by commas, semicolons or tabs) or JSON Lines. Its columns may be called anything: each row is a map.
function readTable(file) {
  const text = readFileSync(file, "utf8").replace(/^\\uFEFF/, "");
  const lines = text.split(/\\r?\\n/).filter((line) => line !== "");
  if (lines[0].startsWith("{")) return lines.map((line) => new Map(Object.entries(JSON.parse(line))));
  const delimiter = [";", "\\t"].find((each) => lines[0].includes(each)) ?? ",";
  const fieldsOf = (line) => line.split(delimiter).map((field) => field.replace(/^"(.*)"$/, "$1"));
  const columns = fieldsOf(lines[0]);
  return lines.slice(1).map((line) => new Map(fieldsOf(line).map((field, i) => [columns[i], field])));
}

// The corner of the walker's square in units, out of a row of a game's trace.
function placeOf(game, row, room) {
  const scale = { px: UNIT, units: 1, cells: TILE }[game.unit];
  const x = (Number(row.get(game.columns.x)) + game.origin[0]) * scale;
  const y = (Number(row.get(game.columns.y)) + game.origin[1]) * scale;
  const [left, top, right, bottom] = game.anchor.startsWith("body") ? {BODY} : [0, 0, TILE, TILE];
  const centred = game.anchor.endsWith("centre");
  const fromTop = top + (centred ? (bottom - top) / 2 : game.yUp ? bottom - top : 0);
  const yDown = game.yUp ? world.rooms[room].height * TILE - y : y;
  return [x - left - (centred ? (right - left) / 2 : 0), yDown - fromTop];
}

// A game's trace beside golden/LOG.trace.csv: a row of it holds until its next one.
function compareTrace(log, file, game) {
  const rows = readTable(file).map((row, i) => {
    const called = game.columns.room === null ? world.rooms[world.start.room].id : row.get(game.columns.room);
    const id = Object.hasOwn(game.rooms, called) ? game.rooms[called] : called;
    const room = world.rooms.findIndex((each) => each.id === id);
    const frame = game.columns.frame === null ? i + 1 : Number(row.get(game.columns.frame));
    if (room < 0) throw new Error(file + ": row " + (i + 1) + ": no room " + called);
    return { frame: frame + game.frameOffset, room: world.rooms[room].id, place: placeOf(game, row, room) };
  });
  let compared = 0;
  for (const golden of goldenRows(log).slice(1)) {
    const [frame, , room, x, y] = golden.split(",");
    const theirs = rows.findLast((row) => row.frame <= Number(frame));
    if (theirs === undefined || Number(frame) > rows.at(-1).frame) continue;
    const far = Math.max(Math.abs(theirs.place[0] - x), Math.abs(theirs.place[1] - y));
    if (theirs.room !== room || far > game.tolerance * UNIT) {
      console.log(log + ": frame " + frame + " differs");
      console.log("  expected " + room + " " + x / UNIT + " " + y / UNIT);
      console.log("  found    " + theirs.room + " " + theirs.place[0] / UNIT + " " + theirs.place[1] / UNIT);
      return false;
    }
    compared += 1;
  }
  console.log("within " + game.tolerance + " px in all " + compared + " frames that both have");
  return compared > 0;
}

function gameFor(file, id) {
  if (id !== undefined) return GAMES.find((game) => game.id === id);
  const [row] = readTable(file);
  const has = (column) => column === null || row.has(column);
  return GAMES.find(({ columns }) => [columns.frame, columns.x, columns.y, columns.room].every(has));
}

function main([log, file, option, id]) {
  const all = readdirSync(here("golden/")).filter((name) => name.endsWith(".inputs"));
  const logs = all.map((name) => name.replace(/\\.inputs$/, "")).sort();
  if (file === undefined) return compareAll(logs);
  if (!logs.includes(log)) throw new Error("no log " + log + "; golden/ has " + logs.join(", "));
  const game = gameFor(file, option === "--game" ? id : undefined);
  if (game === undefined) throw new Error(file + ": not the columns of any known game: " + GAMES.map((each) => each.id).join(", "));
  return compareTrace(log, file, game);
}

try {
  process.exitCode = main(process.argv.slice(2)) ? 0 : 1;
} catch (error) {
  console.error(error.message);
  process.exitCode = 2;
}
`;
