import type { Actor, Fixture, Room } from "@keen-pebble/core/world";
import {
  copiedActors,
  copiedFixtures,
  flippedActors,
  flippedFixtures,
  turnedActors,
  turnedFixtures,
} from "@keen-pebble/core/edit";
import type { Cell, Grid, Rect } from "./paint-cells.ts";

/** A rectangle of ground that was copied: tile ids, row by row, so that it fits whatever became of the tiles since. */
export interface Piece {
  readonly width: number;
  readonly height: number;
  readonly tiles: readonly string[];
  /** The fixtures that lie wholly in it, their cells counted from its top left one. */
  readonly fixtures: readonly Fixture[];
  /** The actors that begin in it, counted so too. */
  readonly actors: readonly Actor[];
  /** Ids of those that move when it is laid for the first time: it was cut. */
  readonly moves: readonly string[];
}

/**
 * Copies a rectangle of a room, as far as it lies in it; null where none of it does.
 * @param moves whether its fixtures and actors move when the piece is laid: until then they stay where they are
 */
export function copyPiece(
  grid: Grid & Pick<Room, "id" | "fixtures" | "actors">,
  rect: Rect,
  tileIds: readonly string[],
  moves: boolean,
): Piece | null {
  const left = Math.max(rect.x, 0);
  const top = Math.max(rect.y, 0);
  const width = Math.min(rect.x + rect.width, grid.width) - left;
  const height = Math.min(rect.y + rect.height, grid.height) - top;
  if (width < 1 || height < 1) return null;
  const fixtures = copiedFixtures(grid, { x: left, y: top, width, height });
  const actors = copiedActors(grid, { x: left, y: top, width, height });
  return {
    width,
    height,
    fixtures,
    actors,
    moves: moves ? [...fixtures, ...actors].map(({ id }) => id) : [],
    tiles: Array.from(
      { length: width * height },
      (_, i) => tileIds[grid.cells[(top + Math.floor(i / width)) * grid.width + left + (i % width)]!]!,
    ),
  };
}

/** The piece mirrored left to right, or top to bottom. */
export function flipPiece(piece: Piece, axis: "x" | "y"): Piece {
  const { width, height, moves } = piece;
  return {
    width,
    height,
    moves,
    fixtures: flippedFixtures(piece.fixtures, [width, height], axis),
    actors: flippedActors(piece.actors, [width, height], axis),
    tiles: piece.tiles.map(
      (_, i) =>
        piece.tiles[
          axis === "x"
            ? (Math.floor(i / width) + 1) * width - 1 - (i % width)
            : (height - 1 - Math.floor(i / width)) * width + (i % width)
        ]!,
    ),
  };
}

/** The piece turned clockwise by a quarter. */
export function turnPiece({ width, height, tiles, fixtures, actors, moves }: Piece): Piece {
  return {
    width: height,
    height: width,
    moves,
    fixtures: turnedFixtures(fixtures, height),
    actors: turnedActors(actors, height),
    tiles: tiles.map((_, i) => tiles[(height - 1 - (i % height)) * width + Math.floor(i / height)]!),
  };
}

/** Where a piece goes when its middle is at a cell: indices of the room's cells, and the tile for each. */
export function layPiece(
  grid: Grid,
  piece: Piece,
  middle: Cell,
): { readonly cells: number[]; readonly tiles: string[] } {
  const { x, y } = pieceCorner(piece, middle);
  const cells: number[] = [];
  const tiles: string[] = [];
  piece.tiles.forEach((tile, i) => {
    const cx = x + (i % piece.width);
    const cy = y + Math.floor(i / piece.width);
    if (cx < 0 || cy < 0 || cx >= grid.width || cy >= grid.height) return;
    cells.push(cy * grid.width + cx);
    tiles.push(tile);
  });
  return { cells, tiles };
}

/** The cell at the top left of a piece whose middle is at a cell. */
export function pieceCorner(piece: Piece, middle: Cell): Cell {
  return { x: middle.x - Math.floor(piece.width / 2), y: middle.y - Math.floor(piece.height / 2) };
}
