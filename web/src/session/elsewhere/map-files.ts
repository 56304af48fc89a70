import type { Pixels } from "@keen-pebble/core/formats";

/** A map as it was dropped: a text with numbers, or a picture. */
export type MapSource =
  | { readonly kind: "text"; readonly name: string; readonly text: string }
  | { readonly kind: "picture"; readonly name: string; readonly picture: Pixels };

/** A picture of tiles for the looks of a map's numbers. */
export interface MapSheet {
  readonly name: string;
  readonly bytes: Uint8Array;
  readonly picture: Pixels;
}

/** What was dropped together. */
export interface MapFiles {
  readonly source: MapSource;
  readonly sheet: MapSheet | null;
}

const MOST_SIDE = 4096;
/** Endings of files that say themselves what they are. */
const OURS = /\.(world\.json|json|zip|inputs|room\.txt)$/i;
/** Below an empty line what a character is: a room text, whatever it is called. */
const LEGEND = /\n\r?\n\S = [a-z]+/;

/** Whether files are a map from elsewhere: texts or pictures that none of our own formats is. */
export async function areMap(files: readonly File[]): Promise<boolean> {
  for (const file of files) {
    if (OURS.test(file.name)) return false;
    if (/\.png$/i.test(file.name)) continue;
    const head = await file.slice(0, 100_000).text();
    if (/^\ufeff?"?frame"?,/.test(head) || LEGEND.test(head)) return false;
  }
  return files.length > 0;
}

/**
 * Reads what was dropped: a text is the map and a picture beside it its sheet; a picture alone is a picture of the map.
 * @throws {Error} saying which file cannot be read, and why
 */
export async function readMapFiles(files: readonly File[]): Promise<MapFiles> {
  const text = files.find(({ name }) => !/\.png$/i.test(name));
  const png = files.find(({ name }) => /\.png$/i.test(name));
  const sheet = png === undefined ? null : await readSheet(png);
  if (text !== undefined) return { source: { kind: "text", name: text.name, text: await textOf(text) }, sheet };
  if (sheet === null) throw new Error("There is no map among these files");
  return { source: { kind: "picture", name: sheet.name, picture: sheet.picture }, sheet: null };
}

/** Reads a PNG as a sheet. */
export async function readSheet(file: File): Promise<MapSheet> {
  const { readPng } = await import("@keen-pebble/core/reading");
  const bytes = new Uint8Array(await file.arrayBuffer());
  return { name: file.name, bytes, picture: readPng(bytes, MOST_SIDE, file.name) };
}

async function textOf(file: File): Promise<string> {
  try {
    return new TextDecoder("utf-8", { fatal: true }).decode(await file.arrayBuffer());
  } catch {
    throw new Error(`${file.name} is no text in UTF-8`);
  }
}
