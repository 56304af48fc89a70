import { layRoom, nameOf, readRoomPixels, readRoomTable, writeWorld } from "@keen-pebble/core/formats";
import { LIMITS, RefusedError, emptyWorld } from "@keen-pebble/core/world";
import type { ImportedFiles } from "@keen-pebble/server/api";
import { freeSlug } from "../log/log-title.ts";
import { ShelfError } from "./shelf-error.ts";

/** What goes to the server in one piece, whole or not at all, and what it is called. */
export type Parcel = { readonly name: string } & ({ readonly bundle: Blob } | { readonly files: ImportedFiles });

/** Kinds of files that can be brought in, by their endings. */
export const FILE_KINDS = [
  { name: "World file", ending: ".world.json" },
  { name: "Bundle", ending: ".keenpebble.zip" },
  { name: "Room text", ending: ".room.txt" },
  { name: "Map", ending: "numbers, .png" },
  { name: "Input logs", ending: ".inputs or .csv" },
] as const;

/** Endings of the files that can be chosen. */
export const ENDINGS = ".json,.zip,.inputs,.csv,.txt,.png";

const MOST_BYTES = 64 * 1024 * 1024;

/**
 * Sorts files into parcels, rooms made into worlds: each bundle and each world one of its own; logs go with the world file where there is just
 * one, else all of them in one.
 * @param shelfIds ids of the worlds that are there, which a new one may not have
 * @throws {ShelfError} for a file that cannot be brought in
 */
export async function parcels(
  files: readonly File[],
  into: string | null,
  shelfIds: readonly string[],
): Promise<Parcel[]> {
  const bundles: Parcel[] = [];
  const worlds: { name: string; world: string }[] = [];
  const logs: Record<string, string> = {};
  const csvLogs: Record<string, string> = {};
  const taken: string[] = [];
  const logNames: string[] = [];
  for (const file of files) {
    if (file.size > MOST_BYTES) throw new ShelfError(`${file.name} has more than 64 MiB. Nothing was kept.`);
    if (file.name.endsWith(".zip")) bundles.push({ name: file.name, bundle: file });
    else if (file.name.endsWith(".json")) worlds.push({ name: file.name, world: await textOf(file) });
    else if (
      file.name.endsWith(".png") ||
      file.name.endsWith(".txt") ||
      (file.name.endsWith(".csv") && !(await isKeys(file)))
    )
      worlds.push({ name: file.name, world: await worldOfRoom(file, shelfIds) });
    else if (file.name.endsWith(".inputs") || file.name.endsWith(".csv")) {
      const id = freeSlug(file.name.replace(/\.(inputs|csv)$/, ""), taken);
      taken.push(id);
      logNames.push(file.name);
      (file.name.endsWith(".csv") ? csvLogs : logs)[id] = await textOf(file);
    } else
      throw new ShelfError(
        `${file.name} is no file that can be brought in: its ending is none of ${ENDINGS.replaceAll(",", ", ")}. Nothing was kept.`,
      );
  }
  const loose: ImportedFiles = {
    ...(Object.keys(logs).length > 0 ? { logs } : {}),
    ...(Object.keys(csvLogs).length > 0 ? { csvLogs } : {}),
  };
  if (worlds.length === 1) return [...bundles, { name: worlds[0]!.name, files: { world: worlds[0]!.world, ...loose } }];
  const rest: Parcel[] =
    taken.length === 0 ? [] : [{ name: logNames.join(", "), files: { ...loose, ...(into === null ? {} : { into }) } }];
  return [...bundles, ...worlds.map(({ name, world }) => ({ name, files: { world } })), ...rest];
}

async function textOf(file: File): Promise<string> {
  try {
    return new TextDecoder("utf-8", { fatal: true, ignoreBOM: true }).decode(await file.arrayBuffer());
  } catch {
    throw new ShelfError(`${file.name} is not UTF-8 text. Nothing was kept.`);
  }
}

/** Whether a CSV file is a log's keys by frame, not a room's table. */
async function isKeys(file: File): Promise<boolean> {
  return /^\ufeff?"?frame"?,/.test(await file.slice(0, 40).text());
}

/** A world of one room out of a room text, a table or a picture, named after the file. */
async function worldOfRoom(file: File, shelfIds: readonly string[]): Promise<string> {
  const { readPng, readRoomText } = await import("@keen-pebble/core/reading");
  const stem = file.name.replace(/(\.room)?\.[^.]*$/, "");
  const id = freeSlug(stem, shelfIds);
  const base = emptyWorld(id, nameOf(id), 16);
  const room = "room-1";
  try {
    if (file.name.endsWith(".txt")) {
      const result = readRoomText(await textOf(file), base, room);
      if ("refusals" in result) {
        const { line, column, message } = result.refusals[0]!;
        throw new ShelfError(`${file.name}: row ${line}, column ${column}: ${message}. Nothing was kept.`);
      }
      return writeWorld(layRoom(base, room, result.draft));
    }
    const bare = { ...base, tiles: base.tiles.slice(0, 1) };
    if (file.name.endsWith(".csv"))
      return writeWorld(layRoom(bare, room, readRoomTable(await textOf(file), bare, true, file.name)));
    return writeWorld(
      layRoom(
        bare,
        room,
        readRoomPixels(
          readPng(new Uint8Array(await file.arrayBuffer()), LIMITS.roomSide[1], file.name),
          bare,
          new Map(),
          file.name,
        ),
      ),
    );
  } catch (error) {
    if (error instanceof RefusedError) throw new ShelfError(`${error.message}. Nothing was kept.`);
    throw error;
  }
}
