import { differences } from "@keen-pebble/core/edit";
import { fromPlain, toPlain } from "@keen-pebble/core/formats";
import { SIDES } from "@keen-pebble/core/world";
import { numbersFrom } from "./worlds.mjs";

const BRICK = 4;
const FLAGSTONE = 1;

/** Kinds of faults: each changes a plain world, or says that it finds nothing to change. */
const FAULTS = {
  "a wall where one walks": (world, any) => {
    const room = pick(world.rooms, any);
    const free = cellsOf(room, (tile) => !isSolid(world, tile));
    if (free.length === 0) return null;
    const cell = pick(free, any);
    room.cells[cell] = BRICK;
    return `${room.id} ${cell % room.width} ${Math.floor(cell / room.width)}`;
  },
  "a gap in a wall": (world, any) => {
    const room = pick(world.rooms, any);
    const beside = (cell) =>
      [1, -1, room.width, -room.width].some(
        (by) => room.cells[cell + by] !== undefined && !isSolid(world, room.cells[cell + by]),
      );
    const walls = cellsOf(room, (tile, cell) => isSolid(world, tile) && beside(cell));
    if (walls.length === 0) return null;
    const cell = pick(walls, any);
    room.cells[cell] = FLAGSTONE;
    return `${room.id} ${cell % room.width} ${Math.floor(cell / room.width)}`;
  },
  "another speed": (world, any) => set(world.rules[0].glide, "speed", pick([1, 3, 4, 5, 6, 8], any)),
  "a buffer that is off": (world) => set(world.rules[0].glide, "bufferFrames", 0),
  "no sliding": (world) => set(world.rules[0].glide, "slide", false),
  "opposite keys that do not cancel": (world, any) =>
    set(world.rules[0].input, "opposites", pick(["latest", "earliest"], any)),
  "another preferred way": (world, any) => set(world.rules[0].input, "prefer", pick(["horizontal", "vertical"], any)),
  "a body that is too large": (world) => set(world.rules[0].walker.body, "box", [-2, -2, 20, 20]),
  "a flag that is not asked for": (world) => set(world.rules[0].walker, "blockedBy", ["rail"]),
  "a tile that is not solid": (world, any) => {
    const tile = pick(
      world.tiles.filter(({ flags }) => flags.includes("solid")),
      any,
    );
    tile.flags = tile.flags.filter((flag) => flag !== "solid");
    return tile.id;
  },
  "something that is not there": (world, any) => {
    const room = pick(
      world.rooms.filter(({ fixtures }) => fixtures.some(({ kind }) => kind !== "marker")),
      any,
    );
    const gone = pick(
      room.fixtures.filter(({ kind }) => kind !== "marker"),
      any,
    );
    room.fixtures = room.fixtures.filter((fixture) => fixture !== gone);
    return gone.id;
  },
  "something that stands elsewhere": (world, any) => {
    const fixture = pick(
      world.rooms.flatMap(({ fixtures }) => fixtures),
      any,
    );
    fixture.cell = [fixture.cell[0] + (fixture.cell[0] > 0 ? -1 : 1), fixture.cell[1]];
    return fixture.id;
  },
  "another keeps": (world, any) => {
    const kept = pick(
      world.rooms
        .flatMap(({ fixtures }) => fixtures)
        .filter(
          ({ kind, lock }) =>
            kind === "item" || kind === "switch" || (kind === "door" && (lock.kind === "item" || lock.kind === "none")),
        ),
      any,
    );
    return `${kept.id} ${set(
      kept,
      "keeps",
      pick(
        ["run", "visit", "life"].filter((keeps) => keeps !== kept.keeps),
        any,
      ),
    )}`;
  },
  "another lock": (world, any) => {
    const door = pick(
      world.rooms
        .flatMap(({ fixtures }) => fixtures)
        .filter(({ kind, lock }) => kind === "door" && lock.kind !== "none"),
      any,
    );
    if (door.lock.kind === "circuit") return `${door.id} ${set(door.lock, "open", "off")}`;
    if (door.lock.kind === "collected") return `${door.id} ${set(door, "lock", { kind: "none" })}`;
    return `${door.id} ${any(2) === 0 ? set(door.lock, "count", 2) : set(door.lock, "spends", !door.lock.spends)}`;
  },
  "a side that is shut": (world, any) => {
    const room = pick(
      world.rooms.filter(({ edges }) => SIDES.some((side) => rulesOf(edges[side]).some(({ kind }) => kind !== "wall"))),
      any,
    );
    const side = pick(
      SIDES.filter((each) => rulesOf(room.edges[each]).some(({ kind }) => kind !== "wall")),
      any,
    );
    room.edges[side] = { kind: "wall" };
    return `${room.id} ${side}`;
  },
  "a seam that is shifted": (world, any) => {
    const links = world.rooms.flatMap((room) =>
      SIDES.flatMap((side) => rulesOf(room.edges[side]).filter(({ kind }) => kind === "link")),
    );
    const link = pick(links, any);
    return `${link.room} ${set(link, "offset", link.offset + 1)}`;
  },
};

const pick = (list, any) => list[any(list.length)];
const rulesOf = (side) => (Array.isArray(side) ? side : [side]);
const isSolid = (world, tile) => world.tiles[tile].flags.includes("solid");
const cellsOf = (room, wanted) => room.cells.flatMap((tile, cell) => (wanted(tile, cell) ? [cell] : []));

/** Sets a value; null where it is so already. */
function set(thing, key, value) {
  if (JSON.stringify(thing[key]) === JSON.stringify(value)) return null;
  thing[key] = value;
  return `${key} ${JSON.stringify(value)}`;
}

/** A fault that is planted in a world by seed: what it is, and the steps that make it. */
export function plant(world, seed) {
  const any = numbersFrom(seed);
  const kinds = Object.keys(FAULTS);
  for (;;) {
    const kind = kinds[any(kinds.length)];
    const plain = structuredClone(toPlain(world));
    const what = FAULTS[kind](plain, any);
    if (what === null || String(what).includes("null")) continue;
    const steps = differences({ world, logs: new Map() }, { world: fromPlain(plain), logs: new Map() });
    if (steps.length > 0) return { kind, what, steps };
  }
}
