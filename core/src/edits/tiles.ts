import { copyName } from "../world/copy-name.ts";
import type { Room, Tile, World } from "../world/world.ts";

/** An id out of a wished one that none of the taken ones is: `brick`, `brick-2`, `brick-3`. */
export function freeId(wished: string, taken: readonly string[]): string {
  return new FreeIds(taken).take(wished);
}

/** Gives out free ids, one after the other: each is taken from then on. */
export class FreeIds {
  private readonly taken: Set<string>;
  /** By stem the number at which to look next: all before it are taken. */
  private readonly next = new Map<string, number>();

  constructor(taken: Iterable<string>) {
    this.taken = new Set(taken);
  }

  take(wished: string): string {
    let id = wished;
    if (this.taken.has(wished)) {
      const stem = wished.replace(/-\d+$/, "").slice(0, 36);
      let n = this.next.get(stem) ?? 2;
      while (this.taken.has(`${stem}-${n}`)) n++;
      this.next.set(stem, n);
      id = `${stem}-${n}`;
    }
    this.taken.add(id);
    return id;
  }
}

/** The world with a tile added last. */
export function addTile(world: World, tile: Tile): World {
  return { ...world, tiles: [...world.tiles, tile] };
}

/** The world with a copy of a tile behind it, under a free id; the glyph stays with the first one. */
export function copyTile(world: World, id: string): World {
  const at = world.tiles.findIndex((tile) => tile.id === id);
  const tile = world.tiles[at];
  if (!tile) return world;
  const copy = {
    ...tile,
    id: freeId(
      id,
      world.tiles.map((each) => each.id),
    ),
    name: copyName(
      tile.name,
      world.tiles.map((each) => each.name),
    ),
    glyph: null,
  };
  return reordered({ ...world, tiles: [...world.tiles, copy] }, [
    ...order(world.tiles.length).slice(0, at + 1),
    world.tiles.length,
    ...order(world.tiles.length).slice(at + 1),
  ]);
}

/** The world with tiles changed: `change` gives what becomes of each named one. */
export function changeTiles(world: World, ids: readonly string[], change: (tile: Tile) => Tile): World {
  return { ...world, tiles: world.tiles.map((tile) => (ids.includes(tile.id) ? change(tile) : tile)) };
}

/** In how many cells each tile is used, by its number. */
export function tileUses(world: World): Uint32Array {
  const uses = new Uint32Array(world.tiles.length);
  for (const room of world.rooms) for (const tile of room.cells) uses[tile]!++;
  return uses;
}

/** The world without some tiles; cells that had them get another one. The empty tile always stays. */
export function removeTiles(world: World, ids: readonly string[], replacement: string): World {
  const instead = world.tiles.findIndex((tile) => tile.id === replacement && !ids.includes(tile.id));
  const gone = world.tiles.map((tile, i) => i > 0 && ids.includes(tile.id));
  const kept = order(world.tiles.length).filter((i) => !gone[i]);
  const numbers = Uint16Array.from(world.tiles, (_, i) => kept.indexOf(gone[i] ? Math.max(instead, 0) : i));
  return { ...world, tiles: kept.map((i) => world.tiles[i]!), rooms: renumbered(world.rooms, numbers) };
}

/** The world with a tile moved to another place in the list; the empty tile stays first. */
export function moveTile(world: World, id: string, to: number): World {
  const from = world.tiles.findIndex((tile) => tile.id === id);
  const place = Math.min(Math.max(to, 1), world.tiles.length - 1);
  if (from < 1 || from === place) return world;
  const numbers = order(world.tiles.length).filter((i) => i !== from);
  numbers.splice(place, 0, from);
  return reordered(world, numbers);
}

const order = (length: number): number[] => Array.from({ length }, (_, i) => i);

/** The tiles in another order, given by their old numbers; cells keep their tiles. */
function reordered(world: World, old: readonly number[]): World {
  const numbers = new Uint16Array(old.length);
  old.forEach((was, is) => (numbers[was] = is));
  return { ...world, tiles: old.map((i) => world.tiles[i]!), rooms: renumbered(world.rooms, numbers) };
}

function renumbered(rooms: readonly Room[], numbers: Uint16Array): Room[] {
  return rooms.map((room) => ({ ...room, cells: room.cells.map((tile) => numbers[tile]!) }));
}
