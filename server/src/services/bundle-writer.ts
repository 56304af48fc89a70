import { strToU8, zipSync } from "fflate";
import type { BundleFiles } from "./bundle-reader.ts";

/** The first moment that a ZIP can name: equal contents make equal bytes, whenever they are packed. */
const MOMENT = new Date(1980, 0, 1);

/** Packs a bundle (formats.md section 6). */
export function writeBundle({ world, logs, sheets, journal }: BundleFiles): Buffer {
  const files: Record<string, Uint8Array> = { "world.json": strToU8(world) };
  for (const [id, text] of [...logs].sort(byName)) files[`logs/${id}.inputs`] = strToU8(text);
  for (const [file, png] of [...sheets].sort(byName)) files[`sheets/${file}`] = png;
  if (journal !== null) files["journal.md"] = strToU8(journal);
  return Buffer.from(zipSync(files, { mtime: MOMENT, level: 6 }));
}

const byName = ([a]: readonly [string, unknown], [b]: readonly [string, unknown]): number => (a < b ? -1 : 1);
