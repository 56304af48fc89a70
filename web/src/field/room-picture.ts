import type { Room, World } from "@keen-pebble/core";
import { ART_SIZE, TileArt, variantSeed } from "./tile-art.ts";

/** Cells along a side of a chunk. */
const CHUNK = 16;
const MOST_CHUNKS = 400;

interface Chunk {
  readonly canvas: OffscreenCanvas;
  /** The cells that it shows, to notice what changed. */
  readonly cells: Uint16Array;
}

/** A room's picture in chunks that are drawn once and again only where a cell changed. */
export class RoomPicture {
  private art: TileArt;
  private tiles: World["tiles"];
  private readonly chunks = new Map<string, Chunk>();

  constructor(world: World) {
    this.tiles = world.tiles;
    this.art = new TileArt(world.tiles, world.tileSize);
  }

  /** Draws the part of the room that is in sight: `zoom` screen px a world px, the room's corner at `left`, `top`. */
  draw(c: CanvasRenderingContext2D | OffscreenCanvasRenderingContext2D, world: World, room: Room, zoom: number, left: number, top: number, width: number, height: number): void {
    if (world.tiles !== this.tiles) {
      this.tiles = world.tiles;
      this.art = new TileArt(world.tiles, world.tileSize);
      this.chunks.clear();
    }
    const side = world.tileSize * zoom * CHUNK;
    const fromX = Math.max(0, Math.floor(-left / side));
    const fromY = Math.max(0, Math.floor(-top / side));
    const toX = Math.min(Math.ceil(room.width / CHUNK), Math.ceil((width - left) / side));
    const toY = Math.min(Math.ceil(room.height / CHUNK), Math.ceil((height - top) / side));
    c.imageSmoothingEnabled = zoom * world.tileSize < ART_SIZE;
    for (let y = fromY; y < toY; y++) {
      for (let x = fromX; x < toX; x++) {
        const { canvas } = this.chunk(room, x, y);
        const across = Math.min(CHUNK, room.width - x * CHUNK) * world.tileSize * zoom;
        const down = Math.min(CHUNK, room.height - y * CHUNK) * world.tileSize * zoom;
        c.drawImage(canvas, left + x * side, top + y * side, across, down);
      }
    }
  }

  /** The picture of a tile by itself. */
  tilePicture(tile: number): OffscreenCanvas {
    return this.art.picture(tile, 1);
  }

  private chunk(room: Room, x: number, y: number): Chunk {
    const key = `${room.id}/${x}/${y}`;
    const width = Math.min(CHUNK, room.width - x * CHUNK);
    const height = Math.min(CHUNK, room.height - y * CHUNK);
    let chunk = this.chunks.get(key);
    if (!chunk || chunk.cells.length !== width * height) {
      chunk = { canvas: new OffscreenCanvas(width * ART_SIZE, height * ART_SIZE), cells: new Uint16Array(width * height).fill(0xffff) };
    }
    // Least recently seen goes first.
    this.chunks.delete(key);
    this.chunks.set(key, chunk);
    if (this.chunks.size > MOST_CHUNKS) this.chunks.delete(this.chunks.keys().next().value!);
    const c = chunk.canvas.getContext("2d")!;
    for (let cy = 0; cy < height; cy++) {
      for (let cx = 0; cx < width; cx++) {
        const roomX = x * CHUNK + cx;
        const roomY = y * CHUNK + cy;
        const tile = room.cells[roomY * room.width + roomX]!;
        if (chunk.cells[cy * width + cx] === tile) continue;
        chunk.cells[cy * width + cx] = tile;
        c.drawImage(this.art.picture(tile, variantSeed(roomX, roomY)), cx * ART_SIZE, cy * ART_SIZE);
      }
    }
    return chunk;
  }
}
