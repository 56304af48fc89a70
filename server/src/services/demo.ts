import { existsSync } from "node:fs";
import { readFile, readdir } from "node:fs/promises";
import path from "node:path";
import { readLog, writeLog } from "@keen-pebble/core/check";
import { readWorld } from "@keen-pebble/core/reading";
import type { Knex } from "knex";
import { FactRow } from "../models/fact-row.ts";
import type { Shelf } from "./shelf.ts";

/** Puts the demo worlds of a folder on the shelf, once in an installation's life: taken away they stay away. */
export async function putDemoIn(db: Knex, shelf: Shelf, folder: string): Promise<string[]> {
  if (await FactRow.query(db).findById("demo")) return [];
  const added: string[] = [];
  // The one that was put in last lies on top: the first by its name.
  for (const entry of (await readdir(folder, { withFileTypes: true }))
    // Others have examples to bring in.
    .filter((e) => e.isDirectory() && existsSync(path.join(folder, e.name, `${e.name}.world.json`)))
    .sort((a, b) => (a.name < b.name ? 1 : -1))) {
    const root = path.join(folder, entry.name);
    const world = readWorld(await readFile(path.join(root, `${entry.name}.world.json`), "utf8"), entry.name);
    const names = (await readdir(path.join(root, "logs"))).filter((name) => name.endsWith(".inputs")).sort();
    const logs = new Map<string, string>();
    for (const name of names)
      logs.set(
        name.slice(0, -".inputs".length),
        writeLog(readLog(await readFile(path.join(root, "logs", name), "utf8"), name)),
      );
    const sheets = new Map<string, Buffer>();
    for (const { file } of world.sheets) sheets.set(file, await readFile(path.join(root, "sheets", file)));
    added.push((await shelf.add({ world, logs }, "came with the demo", { sheets })).id);
  }
  await FactRow.query(db).insert({ name: "demo", value: added });
  return added;
}
