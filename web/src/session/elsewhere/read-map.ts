import type { MapAnswers, MapKind, NumberGrid, Pixels, RoomDraft } from "@keen-pebble/core/formats";
import {
  cutMapPicture,
  draftOfCut,
  draftOfMap,
  guessAnswers,
  layRoom,
  mapKinds,
  readNumberGrid,
  readRoomPixels,
  sheetPlaces,
  solidFlag,
  startedIn,
} from "@keen-pebble/core/formats";
import type { Room, Sheet, World } from "@keen-pebble/core/world";
import { RefusedError } from "@keen-pebble/core/world";
import { freeSlug } from "../log/log-title.ts";
import type { MapFiles } from "./map-files.ts";

/** What is asked of whoever brings a map in. */
export interface AskedAnswers {
  /** Px of a cell's side. */
  readonly tileSize: number;
  /** Cells a row of a flat array; null where the text says it itself. */
  readonly width: number | null;
  readonly first: number;
  /** Null: what is guessed. */
  readonly empty: number | null;
  readonly solid: ReadonlySet<number> | null;
  /** A picture is one of the map, to be cut into cells, or has a pixel a cell. */
  readonly picture: "map" | "cells";
}

/** A map as it was read, and the world with the room that it makes. */
export interface MapRead {
  readonly grid: NumberGrid;
  readonly kinds: readonly MapKind[];
  readonly answers: MapAnswers;
  /** The world that it was read into, and as that will be. */
  readonly base: World;
  readonly world: World;
  readonly room: Room;
  /** Tile of each kind, by its number. */
  readonly tiles: ReadonlyMap<number, string>;
  /** The picture that its sheet has, if it has one. */
  readonly sheet: { readonly sheet: Sheet; readonly picture: Pixels; readonly bytes: Uint8Array | null } | null;
  /** Px of a picture that are no whole cell. */
  readonly over: readonly [number, number];
}

/** What came of reading a map: the room, or what was not understood. */
export type MapReading = MapRead | { readonly refused: string };

/**
 * Reads a map with the answers as they are now.
 * @param base the world that it comes into, of that tile size
 * @param roomId id of the room that is made
 */
export function readMap(files: MapFiles, asked: AskedAnswers, base: World, roomId: string): MapReading {
  try {
    return read(files, asked, base, roomId);
  } catch (error) {
    if (error instanceof RefusedError) return { refused: error.refusals.map(said).join("; ") };
    throw error;
  }
}

const said = ({ line, column, message }: RefusedError["refusals"][number]): string =>
  line === null ? message : `line ${line}, column ${column}: ${message}`;

function read(files: MapFiles, asked: AskedAnswers, base: World, roomId: string): MapRead {
  const { grid, answers, draft, sheet, over } = draftOf(files, asked, base, roomId);
  const laid = layRoom(base, roomId, draft);
  const isUsed = sheet !== null && laid.sheets.includes(sheet.sheet);
  return {
    grid,
    kinds: mapKinds(grid),
    answers,
    base,
    world: base.rooms.length === 0 ? startedIn(laid, roomId) : laid,
    room: laid.rooms.find(({ id }) => id === roomId)!,
    tiles: new Map(grid.values.map((value, i) => [value, draft.cells[i]!])),
    sheet: isUsed ? sheet : null,
    over,
  };
}

/** A map as numbers, what is said of them, and the room that they are. */
type Drafted = Pick<MapRead, "grid" | "answers" | "sheet" | "over"> & { readonly draft: RoomDraft };

function draftOf({ source, sheet }: MapFiles, asked: AskedAnswers, base: World, roomId: string): Drafted {
  if (source.kind === "picture")
    return asked.picture === "map"
      ? draftOfWhole(source.picture, asked, base, roomId)
      : draftOfPixels(source.picture, source.name, asked, base);
  const grid = readNumberGrid(source.text, asked.width, source.name);
  const guess = guessAnswers(grid);
  const answers = {
    first: asked.first,
    empty: asked.empty === null ? guess.empty : asked.empty,
    solid: asked.solid ?? guess.solid,
  };
  const used = sheet === null ? null : { ...sheet, sheet: sheetOf(sheet.name, base) };
  const places = used === null ? null : sheetPlaces(used.sheet, used.picture);
  return { grid, answers, draft: draftOfMap(grid, answers, base, places, source.name), sheet: used, over: [0, 0] };
}

function draftOfWhole(picture: Pixels, asked: AskedAnswers, base: World, roomId: string): Drafted {
  const cut = cutMapPicture(picture, base.tileSize);
  const answers = { empty: 0, first: 1, solid: asked.solid ?? guessAnswers(cut.grid).solid };
  const sheet = sheetOf(roomId, base);
  return {
    grid: cut.grid,
    answers,
    draft: draftOfCut(cut, answers.solid, base, roomId, sheet),
    sheet: { sheet, picture: cut.sheet, bytes: null },
    over: cut.over,
  };
}

/** A picture of one pixel a cell: its colours are kinds in the order in which they come, -1 what is transparent. */
function draftOfPixels(picture: Pixels, name: string, asked: AskedAnswers, base: World): Drafted {
  const draft = readRoomPixels(picture, base, new Map(), name);
  const empty = base.tiles[0]!.id;
  const ids = [...new Set(draft.cells)].filter((id) => id !== empty);
  const { width, height } = draft;
  const values = draft.cells.map((id) => ids.indexOf(id));
  const grid = { width, height, values, readAs: `${width} x ${height} pixels`, characters: false };
  const answers = { empty: -1, first: 0, solid: asked.solid ?? guessAnswers(grid).solid };
  const tiles = draft.tiles.map((tile) =>
    answers.solid.has(ids.indexOf(tile.id)) ? { ...tile, flags: [solidFlag(base)] } : tile,
  );
  const flags = base.flags.includes(solidFlag(base)) ? [] : [solidFlag(base)];
  return { grid, answers, draft: { ...draft, tiles, flags }, sheet: null, over: [0, 0] };
}

/** A sheet of the world's cell size, under a name that the world does not have yet. */
function sheetOf(name: string, { sheets, tileSize }: World): Sheet {
  const id = freeSlug(
    name.replace(/\.png$/i, ""),
    sheets.map((each) => each.id),
  );
  return { id, file: `${id}.png`, tile: tileSize, margin: 0, spacing: 0 };
}
