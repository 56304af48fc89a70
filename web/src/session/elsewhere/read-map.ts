import type { MapAnswers, MapKind, NumberGrid, Pixels, SheetPlaces } from "@keen-pebble/core/formats";
import {
  cutMapPicture,
  draftOfMap,
  guessAnswers,
  layRoom,
  mapKinds,
  pixelColours,
  readNumberGrid,
  sheetPlaces,
  startIn,
} from "@keen-pebble/core/formats";
import type { Room, Sheet, World } from "@keen-pebble/core/world";
import { freeId } from "@keen-pebble/core/edit";
import { RefusedError } from "@keen-pebble/core/world";
import type { MapFiles } from "./map-files.ts";

/** What is asked of whoever brings a map in. */
export interface AskedAnswers {
  /** Px of a cell's side. */
  readonly tileSize: number;
  /** Cells a row of a flat array; null where the text says it itself. */
  readonly width: number | null;
  readonly first: number;
  /** Null: what is guessed. */
  readonly empty: number | "none" | null;
  readonly solid: ReadonlySet<number> | null;
  /** A picture is one of the map, to be cut into cells, or has a pixel a cell. */
  readonly picture: "map" | "cells";
}

/** A map as it was read, and the world with the room that it makes. */
export interface MapRead {
  readonly grid: NumberGrid;
  readonly kinds: readonly MapKind[];
  readonly answers: MapAnswers;
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
  const { source } = files;
  const cut =
    source.kind === "picture" && asked.picture === "map" ? cutMapPicture(source.picture, base.tileSize) : null;
  const grid =
    cut?.grid ??
    (source.kind === "text" ? readNumberGrid(source.text, asked.width, source.name) : pixelGrid(source.picture));
  const sheet = cut !== null ? { name: `${roomId}.png`, picture: cut.sheet, bytes: null } : files.sheet;
  const places = sheet === null ? null : placesOf(sheet, base);
  const guess = guessAnswers(grid);
  const answers: MapAnswers = {
    first: cut !== null ? 1 : asked.first,
    empty: cut !== null ? 0 : asked.empty === null ? guess.empty : asked.empty === "none" ? null : asked.empty,
    solid: asked.solid ?? guess.solid,
  };
  // The tiles of a picture are its own; those of numbers are the same in the next room.
  const called = cut === null ? undefined : (id: string) => id.replace(/^tile/, `${roomId.slice(0, 30)}`);
  const draft = draftOfMap(grid, answers, base, places, source.name, called);
  const blocked = new Set(base.rules.find(({ id }) => id === base.activeRules)!.walker.blockedBy);
  const blocks = new Set(
    [...base.tiles, ...draft.tiles].filter(({ flags }) => flags.some((flag) => blocked.has(flag))).map(({ id }) => id),
  );
  const isNew = base.rooms.length === 0;
  const start = { cell: startIn(draft, (tile) => blocks.has(tile)), facing: "down" as const };
  const laid = layRoom(base, roomId, isNew ? { ...draft, start } : draft);
  const tiles = new Map(grid.values.map((value, i) => [value, draft.cells[i]!]));
  return {
    grid,
    kinds: mapKinds(grid),
    answers,
    world: source.kind === "picture" && cut === null ? withColours(laid, tiles) : laid,
    room: laid.rooms.find(({ id }) => id === roomId)!,
    tiles,
    sheet: places === null ? null : { sheet: places.sheet, picture: sheet!.picture, bytes: sheet!.bytes },
    over: cut?.over ?? [0, 0],
  };
}

function placesOf(
  sheet: { readonly name: string; readonly picture: Pixels },
  { sheets, tileSize }: World,
): SheetPlaces {
  const stem = sheet.name
    .replace(/\.png$/i, "")
    .toLowerCase()
    .replace(/[^a-z0-9-]+/g, "-")
    .slice(0, 34);
  const id = freeId(
    stem === "" ? "sheet" : stem,
    sheets.map((each) => each.id),
  );
  return sheetPlaces({ id, file: `${id}.png`, tile: tileSize, margin: 0, spacing: 0 }, sheet.picture);
}

/** A picture of one pixel a cell as numbers: its colours; -1 where it is transparent. */
function pixelGrid({ width, height, rgba }: Pixels): NumberGrid {
  if (width > 512 || height > 512)
    throw new RefusedError("the picture", [
      {
        place: "",
        line: null,
        column: null,
        message: `has ${width} x ${height} pixels; a room has at most 512 x 512 cells`,
      },
    ]);
  const values = Array.from({ length: width * height }, (_, i) =>
    rgba[i * 4 + 3]! < 128 ? -1 : (rgba[i * 4]! << 16) | (rgba[i * 4 + 1]! << 8) | rgba[i * 4 + 2]!,
  );
  return { width, height, values, readAs: `${width} x ${height} pixels`, characters: false };
}

/** Tiles of a picture's colours look like them. */
function withColours(world: World, tiles: ReadonlyMap<number, string>): World {
  const fills = new Map(
    [...tiles].filter(([value]) => value >= 0).map(([value, id]) => [id, `#${value.toString(16).padStart(6, "0")}`]),
  );
  const known = new Set(pixelColours(world.tiles));
  return {
    ...world,
    tiles: world.tiles.map((tile, i) => {
      const fill = fills.get(tile.id);
      return i === 0 || fill === undefined || ("fill" in tile.look && known.has(fill) && tile.look.fill === fill)
        ? tile
        : { ...tile, look: { fill } };
    }),
  };
}
