import { RefusedError } from "../base/refused-error.ts";
import { LIMITS } from "../world/limits.ts";
import type { Room, Tile, World } from "../world/world.ts";
import type { RoomDraft } from "./room-draft.ts";
import { PLAIN_DRAFT, newTile } from "./room-draft.ts";

/** A picture of one pixel a cell: four bytes a pixel, red, green, blue, alpha, row by row. */
export interface Pixels {
  readonly width: number;
  readonly height: number;
  readonly rgba: Uint8Array;
}

/**
 * The colour that stands for each tile in such pictures: its fill where no tile before it has that, else the next
 * colour that is free. Opaque, as `#rrggbb`.
 */
export function pixelColours(tiles: readonly Tile[]): string[] {
  const taken = new Set<string>();
  return tiles.map((tile) => {
    let value = "fill" in tile.look ? Number.parseInt(tile.look.fill.slice(1), 16) : 0x808080;
    while (taken.has(colourText(value))) value = (value + 1) & 0xffffff;
    taken.add(colourText(value));
    return colourText(value);
  });
}

/** A room as a picture of one pixel a cell (formats.md section 4). */
export function writeRoomPixels(world: World, room: Room): Pixels {
  const colours = pixelColours(world.tiles).map((colour) => Number.parseInt(colour.slice(1), 16));
  const rgba = new Uint8Array(room.cells.length * 4);
  room.cells.forEach((tile, i) => {
    const colour = colours[tile]!;
    rgba.set([colour >> 16, (colour >> 8) & 255, colour & 255, 255], i * 4);
  });
  return { width: room.width, height: room.height, rgba };
}

/** What is to become of a colour: a tile's id, or null where nobody has said yet. */
export type ColourMatch = ReadonlyMap<string, string>;

/** The colours of a picture in order of how often they are there, with their number; transparent ones are `""`. */
export function coloursOf({ rgba }: Pixels): { readonly colour: string; readonly cells: number }[] {
  const counts = new Map<string, number>();
  for (let i = 0; i < rgba.length; i += 4) {
    const colour = colourAt(rgba, i);
    counts.set(colour, (counts.get(colour) ?? 0) + 1);
  }
  return [...counts]
    .map(([colour, cells]) => ({ colour, cells }))
    .sort((a, b) => b.cells - a.cells || (a.colour < b.colour ? -1 : 1));
}

/**
 * Makes a room of a picture of one pixel a cell. A colour that is matched to no tile and is no tile's own makes a new
 * tile; what is transparent is the empty tile.
 * @throws {RefusedError} where the picture is larger than a room or has more colours than a world has tiles
 */
export function readRoomPixels(
  pixels: Pixels,
  world: World,
  matched: ColourMatch = new Map(),
  name = "the picture",
): RoomDraft {
  const { width, height, rgba } = pixels;
  const refuse = (message: string): never => {
    throw new RefusedError(name, [{ place: "", line: null, column: null, message }]);
  };
  const max = LIMITS.roomSide[1];
  if (width < 1 || height < 1 || width > max || height > max)
    refuse(`has ${width}x${height} pixels; a pixel is a cell, and a room has 1x1 to ${max}x${max}`);
  const own = new Map(pixelColours(world.tiles).map((colour, i) => [colour, world.tiles[i]!.id]));
  const ids = new Set(world.tiles.map((tile) => tile.id));
  const tiles: Tile[] = [];
  const tileOf = new Map<string, string>([["", world.tiles[0]!.id]]);
  const cells: string[] = [];
  for (let i = 0; i < width * height * 4; i += 4) {
    const colour = colourAt(rgba, i);
    let id = tileOf.get(colour) ?? matched.get(colour) ?? own.get(colour);
    if (id === undefined) {
      if (ids.size >= LIMITS.tiles)
        refuse(`has more colours than a world has tiles (${LIMITS.tiles}); a picture of one pixel a cell has few`);
      id = `colour-${colour.slice(1)}`;
      if (!ids.has(id)) tiles.push(newTile(id, [], 0, colour));
      ids.add(id);
    }
    tileOf.set(colour, id);
    cells.push(id);
  }
  return { ...PLAIN_DRAFT, width, height, cells, tiles };
}

function colourAt(rgba: Uint8Array, i: number): string {
  return rgba[i + 3]! < 128 ? "" : colourText((rgba[i]! << 16) | (rgba[i + 1]! << 8) | rgba[i + 2]!);
}

function colourText(value: number): string {
  return `#${value.toString(16).padStart(6, "0")}`;
}
