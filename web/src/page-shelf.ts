import { areMap } from "./session/elsewhere/map-files.ts";
import { makeShelfParts } from "./session/shelf/shelf-parts.ts";

/** What this tab works with before a world is opened. */
export const shelfParts = makeShelfParts();

/** Takes files on the Shelf: maps from elsewhere are asked about, our own come in at once. */
export async function takeFiles(files: readonly File[], into: string | null): Promise<void> {
  if (await areMap(files)) await shelfParts.mapImport.take(files);
  else shelfParts.shelf.bringIn(files, into);
}
