import type { ImportedFiles } from "@keen-pebble/server/api";
import { logIdFor } from "../logs/log-title.ts";
import { ShelfError } from "./shelf-error.ts";

/** What goes to the server in one piece, whole or not at all, and what it is called. */
export type Parcel = { readonly name: string } & ({ readonly bundle: Blob } | { readonly files: ImportedFiles });

/** Kinds of files that can be brought in, by their endings. */
export const FILE_KINDS = [
  { name: "World file", ending: ".world.json" },
  { name: "Bundle", ending: ".keenpebble.zip" },
  { name: "Input logs", ending: ".inputs" },
  { name: "Keys by frame", ending: ".csv" },
] as const;

const MOST_BYTES = 64 * 1024 * 1024;

/**
 * Sorts files into parcels: each bundle and each world one of its own; logs go with the world file where there is just
 * one, else all of them in one.
 * @throws {ShelfError} for a file that cannot be brought in
 */
export async function parcels(files: readonly File[], into: string | null): Promise<Parcel[]> {
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
    else if (file.name.endsWith(".inputs") || file.name.endsWith(".csv")) {
      const id = logIdFor(file.name.replace(/\.(inputs|csv)$/, ""), taken);
      taken.push(id);
      logNames.push(file.name);
      (file.name.endsWith(".csv") ? csvLogs : logs)[id] = await textOf(file);
    } else throw new ShelfError(`${file.name} is none of ${FILE_KINDS.map((kind) => `*${kind.ending}`).join(", ")}. Nothing was kept.`);
  }
  const loose: ImportedFiles = { ...(Object.keys(logs).length > 0 ? { logs } : {}), ...(Object.keys(csvLogs).length > 0 ? { csvLogs } : {}) };
  if (worlds.length === 1) return [...bundles, { name: worlds[0]!.name, files: { world: worlds[0]!.world, ...loose } }];
  const rest: Parcel[] = taken.length === 0 ? [] : [{ name: logNames.join(", "), files: { ...loose, ...(into === null ? {} : { into }) } }];
  return [...bundles, ...worlds.map(({ name, world }) => ({ name, files: { world } })), ...rest];
}

async function textOf(file: File): Promise<string> {
  try {
    return new TextDecoder("utf-8", { fatal: true, ignoreBOM: true }).decode(await file.arrayBuffer());
  } catch {
    throw new ShelfError(`${file.name} is not UTF-8 text. Nothing was kept.`);
  }
}
