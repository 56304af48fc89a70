import { keptPart } from "../world/fixture-area.ts";
import { movedActor } from "../world/moved-actor.ts";
import type { Fixture } from "../world/fixtures.ts";
import type { Facing } from "../world/facing.ts";
import type { Item, Pair, Room, Sheet, Tile, World } from "../world/world.ts";

/** A room as a text, a table or a picture gives it (formats.md section 4): its content, and what it brings along. */
export interface RoomDraft {
  readonly width: number;
  readonly height: number;
  /** Tile ids, row by row. */
  readonly cells: readonly string[];
  /** Null: those of the room stay, as far as they still lie in it. */
  readonly fixtures: readonly Fixture[] | null;
  /** Null: not said. */
  readonly start: { readonly cell: Pair; readonly facing: Facing } | null;
  /** What the world does not have yet. */
  readonly flags: readonly string[];
  readonly tiles: readonly Tile[];
  readonly items: readonly Item[];
  readonly circuits: readonly string[];
  readonly sheets: readonly Sheet[];
}

/** A draft that brings nothing along. */
export const PLAIN_DRAFT = {
  fixtures: null,
  start: null,
  flags: [],
  tiles: [],
  items: [],
  circuits: [],
  sheets: [],
} as const;

/**
 * The world with a room's content laid in: the room of that id gets it and keeps its name, plan and edges; where there
 * is none, one is made.
 */
export function layRoom(world: World, roomId: string, draft: RoomDraft): World {
  const { width, height } = draft;
  const tiles = [...world.tiles, ...draft.tiles];
  const numbers = new Map(tiles.map((tile, i) => [tile.id, i]));
  const cells = Uint16Array.from(draft.cells, (id) => numbers.get(id) ?? 0);
  const wall = { kind: "wall" } as const;
  const present = world.rooms.find((room) => room.id === roomId) ?? {
    id: roomId,
    name: nameOf(roomId),
    plan: [0, 0],
    edges: { north: wall, east: wall, south: wall, west: wall },
    fixtures: [],
    actors: [],
  };
  const inside = ([x, y]: Pair): boolean => x < width && y < height;
  const fixtures = draft.fixtures ?? present.fixtures.flatMap((fixture) => keptPart(fixture, width, height) ?? []);
  const actors = present.actors.flatMap((actor) => movedActor(actor, (cell) => cell, inside, []));
  const room: Room = { ...present, width, height, cells, fixtures, actors };
  const start =
    draft.start !== null
      ? { room: roomId, ...draft.start }
      : world.start.room === roomId && !inside(world.start.cell)
        ? { ...world.start, cell: [0, 0] as const }
        : world.start;
  return {
    ...world,
    flags: [...world.flags, ...draft.flags],
    tiles,
    items: [...world.items, ...draft.items],
    circuits: [...world.circuits, ...draft.circuits],
    sheets: [...world.sheets, ...draft.sheets],
    start,
    rooms: world.rooms.some((each) => each.id === roomId)
      ? world.rooms.map((each) => (each.id === roomId ? room : each))
      : [...world.rooms, room],
  };
}

/** A name out of an id: `intake-hall` is `Intake hall`. */
export function nameOf(id: string): string {
  const words = id.replaceAll("-", " ").trim();
  return words === "" ? id : `${words[0]!.toUpperCase()}${words.slice(1)}`;
}

/** Colours that new tiles take in turn; all of them ours. */
const FILLS = ["#8d7f6f", "#5f7a78", "#a59a86", "#3f6b74", "#b98f5a", "#7c8f5d", "#94645a", "#6c6f8f"] as const;

/** A new tile: a full cell of one colour. */
export function newTile(
  id: string,
  flags: readonly string[],
  turn: number,
  fill: string = FILLS[turn % FILLS.length]!,
): Tile {
  return { id, name: nameOf(id), flags, shape: { kind: "full" }, look: { fill }, joins: null, glyph: null };
}
