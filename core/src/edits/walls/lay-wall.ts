import equal from "fast-deep-equal";
import { LIMITS } from "../../world/limits.ts";
import { roomById } from "../../world/queries.ts";
import type { Pair, Room, Shape, Tile, World } from "../../world/world.ts";
import { removeTiles, tileUses } from "../tiles.ts";
import type { CutWall } from "./cut-outline.ts";
import { cutOutline } from "./cut-outline.ts";
import type { Outline } from "./outline.ts";
import { outlineFault } from "./outline.ts";
import type { MadeShape } from "./shape-of.ts";
import { shapeOfCut, unionOf } from "./shape-of.ts";

/** A cell whose shape is not exactly what the wall is there. */
export interface OffCell {
  readonly cell: Pair;
  /** By how many px at the most. */
  readonly off: number;
}

/** A wall that was laid, or why it was not. */
export type LaidWall =
  | { readonly fault: string }
  | {
      readonly world: World;
      /** Cells that have another tile than before. */
      readonly changed: number;
      /** Tiles that were made. */
      readonly made: number;
      /** By how many px at the most an edge is off where it passes from cell to cell. */
      readonly rounding: number;
      readonly off: readonly OffCell[];
      /** Cells that stay as they look: all that the wall blocks there was blocked already. */
      readonly kept: number;
    };

/** What the tiles that walls are cut into are called: after the tile that the wall is of, numbered. */
const CUT = /-cut-\d+$/;

/** The shapes that a wall gives the cells of a room: of what it blocks there together with what blocks there already. */
export function wallShapes(
  world: World,
  room: Room,
  outline: Outline,
  tile: Tile,
): { readonly cut: CutWall; readonly shapes: readonly (MadeShape & { readonly cell: number })[] } {
  const { tileSize } = world;
  const cut = cutOutline(outline, tileSize, [room.width, room.height]);
  const shapes = cut.cells.map(({ x, y, corners }) => {
    const cell = y * room.width + x;
    const own = shapeOfCut({ corners }, cut.isConvex, tileSize);
    const there = world.tiles[room.cells[cell]!]!;
    if (!there.flags.some((flag) => tile.flags.includes(flag))) return { ...own, cell };
    const both = unionOf(there.shape, own.shape, tileSize);
    return { shape: both.shape, off: Math.max(both.off, own.off), cell };
  });
  return { cut, shapes };
}

/**
 * The world with a wall laid into a room: cut along the cells into shapes of a tile, those that are cut under ids such
 * as `brick-cut-1`; a shape that a tile has already is found again (formats.md section 8).
 * @param tileId the tile that the wall is of: its flags and its look
 */
export function layWall(world: World, roomId: string, outline: Outline, tileId: string): LaidWall {
  const room = roomById(world, roomId);
  const chosen = world.tiles.find(({ id }) => id === tileId);
  const fault = outlineFault(outline);
  if (fault !== null || room === undefined || chosen === undefined) return { fault: fault ?? "there is no such tile" };
  const base = wallTile(world, chosen);
  if (base.flags.length === 0) return { fault: `${base.name} has no flag: nothing would be blocked` };
  const { cut, shapes } = wallShapes(world, room, outline, base);
  const tiles = new CutTiles(world, base);
  const cells = room.cells.slice();
  let kept = 0;
  for (const { shape, cell } of shapes) {
    const there = world.tiles[cells[cell]!]!;
    if (there.flags.some((flag) => base.flags.includes(flag)) && equal(there.shape, shape)) {
      kept++;
      continue;
    }
    cells[cell] = tiles.numberOf(shape);
  }
  if (tiles.all.length > LIMITS.tiles)
    return { fault: `a world has at most ${LIMITS.tiles} tiles, and this wall is cut into ${tiles.made} more` };
  const off = shapes.flatMap(({ cell, off: by }): OffCell[] =>
    by > 0 ? [{ cell: [cell % room.width, Math.floor(cell / room.width)], off: by }] : [],
  );
  return {
    world: {
      ...world,
      tiles: tiles.all,
      rooms: world.rooms.map((each) => (each === room ? { ...room, cells } : each)),
    },
    changed: cells.reduce((sum, tile, i) => sum + (tile === room.cells[i] ? 0 : 1), 0),
    made: tiles.made,
    rounding: cut.rounding,
    off,
    kept,
  };
}

/** Whether a tile is one that a wall was cut into. */
export function isCutTile({ id }: Pick<Tile, "id">): boolean {
  return CUT.test(id);
}

/** The tile that a wall of that tile is of: of one that was cut the one that it was cut from. */
export function wallTile(world: World, tile: Tile): Tile {
  return world.tiles.find(({ id }) => CUT.test(tile.id) && id === tile.id.replace(CUT, "")) ?? tile;
}

/** Tiles that walls were cut into and that no cell has any more. */
export function unusedCutTiles(world: World): readonly string[] {
  const uses = tileUses(world);
  return world.tiles.flatMap(({ id }, i) => (CUT.test(id) && uses[i] === 0 ? [id] : []));
}

/** The world without the tiles that walls were cut into and that no cell has any more. */
export function tidyCutTiles(world: World): World {
  const unused = unusedCutTiles(world);
  return unused.length === 0 ? world : removeTiles(world, unused, world.tiles[0]!.id);
}

/** The tiles of a world and those that a wall is cut into, by their shapes. */
class CutTiles {
  readonly all: Tile[];
  made = 0;
  private readonly numbers = new Map<string, number>();
  private readonly stem: string;
  private next = 1;

  constructor(
    world: World,
    private readonly base: Tile,
  ) {
    this.all = [...world.tiles];
    this.stem = base.id.slice(0, 31);
    world.tiles.forEach((tile, i) => {
      const alike =
        (tile === base || CUT.test(tile.id)) &&
        equal([tile.flags, tile.look, tile.joins], [base.flags, base.look, base.joins]);
      const key = JSON.stringify(tile.shape);
      if (alike && (tile === base || !this.numbers.has(key))) this.numbers.set(key, i);
    });
  }

  /** The number of the tile with that shape; it is made where there is none. */
  numberOf(shape: Shape): number {
    const key = JSON.stringify(shape);
    const known = this.numbers.get(key);
    if (known !== undefined) return known;
    const taken = new Set(this.all.map(({ id }) => id));
    while (taken.has(`${this.stem}-cut-${this.next}`)) this.next++;
    const name = `${this.base.name.slice(0, LIMITS.nameLength - 12)}, cut ${this.next}`;
    this.all.push({ ...this.base, id: `${this.stem}-cut-${this.next}`, name, shape, glyph: null });
    this.made++;
    this.numbers.set(key, this.all.length - 1);
    return this.all.length - 1;
  }
}
