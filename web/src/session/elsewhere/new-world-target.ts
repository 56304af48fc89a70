import { writeWorld } from "@keen-pebble/core/formats";
import { emptyWorld } from "@keen-pebble/core/world";
import { freeSlug } from "../log/log-title.ts";
import type { ShelfSession } from "../shelf/shelf.ts";
import type { MapTarget } from "./map-import.ts";
import type { MapRead } from "./read-map.ts";

/**
 * A map as a world of its own on the Shelf.
 * @param onMade told the id of the world that was made
 */
export function newWorldTarget(shelf: ShelfSession, onMade: (world: string) => void): MapTarget {
  return {
    base: (tileSize, name) => {
      const ids = (shelf.store.getState().worlds ?? []).map(({ id }) => id);
      const world = emptyWorld(freeSlug(name, ids), name, tileSize);
      return { ...world, tiles: world.tiles.slice(0, 1), rooms: [] };
    },
    tileSize: () => null,
    roomId: (name) => freeSlug(name, []),
    make: async (read) => {
      const made = await shelf.makeOf(await bundleOf(read));
      if (typeof made !== "string") return made.fault;
      onMade(made);
      return null;
    },
  };
}

/** The world and the picture of its sheet as one file: it comes in whole or not at all. */
async function bundleOf({ world, sheet }: MapRead): Promise<File> {
  const { strToU8, zipSync } = await import("fflate");
  const entries: Record<string, Uint8Array> = { "world.json": strToU8(writeWorld(world)) };
  if (sheet !== null) entries[`sheets/${sheet.sheet.file}`] = await bytesOf(sheet);
  return new File([zipSync(entries).slice()], `${world.id}.keenpebble.zip`);
}

/** A sheet's PNG: as it was given, or of the cells that were cut. */
export async function bytesOf({ picture, bytes }: NonNullable<MapRead["sheet"]>): Promise<Uint8Array> {
  if (bytes !== null) return bytes;
  const { writePng } = await import("@keen-pebble/core/reading");
  return writePng(picture);
}
