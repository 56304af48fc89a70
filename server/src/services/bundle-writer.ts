import { strToU8, zipSync } from "fflate";
import type { BundleFiles } from "./bundle-reader.ts";

/** The first moment that a ZIP can name: equal contents make equal bytes, whenever they are packed. */
const MOMENT = new Date(1980, 0, 1);

/** Packs a bundle (formats.md section 6). */
export function writeBundle({ world, logs, sheets, journal }: BundleFiles): Buffer {
  const files: Record<string, Uint8Array> = { "world.json": strToU8(world) };
  for (const id of Object.keys(logs).sort()) files[`logs/${id}.inputs`] = strToU8(logs[id]!);
  for (const name of Object.keys(sheets).sort()) files[`sheets/${name}`] = sheets[name]!;
  if (journal !== null) files["journal.md"] = strToU8(journal);
  return Buffer.from(zipSync(files, { mtime: MOMENT, level: 6 }));
}
