import type { Room, World } from "@keen-pebble/core/world";
import { LIMITS, joinMask, joinTables } from "@keen-pebble/core/world";
import { LRUCache } from "lru-cache";
import { GroundBeside } from "./ground-beside.ts";
import { FAR_PX, FarPicture } from "./far-picture.ts";
import type { SheetImages } from "./tile-art.ts";
import { TileArt, variantSeed } from "./tile-art.ts";

/** Cells along a side of a chunk. */
const CHUNK = 16;
const MOST_CHUNKS = 400;
/** All rooms of the largest world: together they have two million cells. */
const MOST_FAR = 256;
const NO_IMAGES: SheetImages = new Map();

interface Chunk {
  readonly canvas: OffscreenCanvas;
  /** What it shows in each cell, tile, ground and joined neighbours, to notice what changed. */
  readonly shown: Int32Array;
}

/** A room's picture in chunks that are drawn once and again only where a cell changed. */
export class RoomPicture {
  private art: TileArt;
  private tiles: World["tiles"];
  private sheets: World["sheets"];
  private joins: ReturnType<typeof joinTables>;
  private ground: GroundBeside;
  private readonly chunks = new LRUCache<string, Chunk>({ max: MOST_CHUNKS });
  /** By room, as it is seen from afar. */
  private readonly far = new LRUCache<string, FarPicture>({ max: MOST_FAR });

  constructor(
    world: World,
    private images: SheetImages = NO_IMAGES,
  ) {
    this.tiles = world.tiles;
    this.sheets = world.sheets;
    this.art = new TileArt(world, images);
    this.joins = joinTables(world.tiles);
    this.ground = new GroundBeside(world.tiles);
  }

  /** Takes over what became of the tiles, the sheets and their pictures. */
  private follow(world: World, images: SheetImages): void {
    if (world.tiles === this.tiles && world.sheets === this.sheets && images === this.images) return;
    this.tiles = world.tiles;
    this.sheets = world.sheets;
    this.images = images;
    this.art = new TileArt(world, images);
    this.joins = joinTables(world.tiles);
    this.ground = new GroundBeside(world.tiles);
    this.chunks.clear();
    this.far.clear();
  }

  /** Draws the part of the room that is in sight: `zoom` screen px a world px, the room's corner at `left`, `top`. */
  draw(
    c: CanvasRenderingContext2D | OffscreenCanvasRenderingContext2D,
    world: World,
    room: Room,
    zoom: number,
    left: number,
    top: number,
    width: number,
    height: number,
    images: SheetImages = this.images,
  ): void {
    this.follow(world, images);
    if (zoom * world.tileSize <= FAR_PX) {
      c.imageSmoothingEnabled = true;
      c.drawImage(
        this.fromAfar(room).canvas,
        left,
        top,
        room.width * world.tileSize * zoom,
        room.height * world.tileSize * zoom,
      );
      return;
    }
    const side = world.tileSize * zoom * CHUNK;
    const fromX = Math.max(0, Math.floor(-left / side));
    const fromY = Math.max(0, Math.floor(-top / side));
    const toX = Math.min(Math.ceil(room.width / CHUNK), Math.ceil((width - left) / side));
    const toY = Math.min(Math.ceil(room.height / CHUNK), Math.ceil((height - top) / side));
    // Between whole zooms pixels would be of two sizes.
    c.imageSmoothingEnabled = zoom * world.tileSize < this.art.size || !Number.isInteger(zoom);
    for (let y = fromY; y < toY; y++) {
      for (let x = fromX; x < toX; x++) {
        const { canvas } = this.chunk(room, x, y);
        const across = Math.min(CHUNK, room.width - x * CHUNK) * world.tileSize * zoom;
        const down = Math.min(CHUNK, room.height - y * CHUNK) * world.tileSize * zoom;
        c.drawImage(canvas, left + x * side, top + y * side, across, down);
      }
    }
  }

  private fromAfar(room: Room): FarPicture {
    let far = this.far.get(room.id);
    if (far?.width !== room.width || far.height !== room.height)
      far = new FarPicture(room.width, room.height, this.art, this.joins);
    this.far.set(room.id, far);
    far.follow(room);
    return far;
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
    const { size } = this.art;
    if (!chunk || chunk.shown.length !== width * height) {
      chunk = {
        canvas: new OffscreenCanvas(width * size, height * size),
        shown: new Int32Array(width * height).fill(-1),
      };
    }
    this.chunks.set(key, chunk);
    const c = chunk.canvas.getContext("2d")!;
    for (let cy = 0; cy < height; cy++) {
      for (let cx = 0; cx < width; cx++) {
        const roomX = x * CHUNK + cx;
        const roomY = y * CHUNK + cy;
        const tile = room.cells[roomY * room.width + roomX]!;
        const table = this.joins[tile] ?? null;
        const mask = table === null ? -1 : joinMask(table, room.cells, room.width, room.height, roomX, roomY);
        const ground = this.ground.at(room, roomX, roomY);
        const shown = (tile * (LIMITS.tiles + 1) + ground + 1) * 32 + mask + 1;
        if (chunk.shown[cy * width + cx] === shown) continue;
        chunk.shown[cy * width + cx] = shown;
        c.clearRect(cx * size, cy * size, size, size);
        c.drawImage(this.art.picture(tile, variantSeed(roomX, roomY), mask, ground), cx * size, cy * size);
      }
    }
    return chunk;
  }
}
