import { randomUUID } from "node:crypto";
import { readFileSync } from "node:fs";

/** The folder of the demo world, with its logs. */
export const demoFolder = new URL("../../../demo/saltglass-cistern/", import.meta.url).pathname;
/** The demo's world file. */
export const demo = readFileSync(`${demoFolder}saltglass-cistern.world.json`, "utf8");

/** The demo's world file under another id. */
export const worldFile = (id: string): string => demo.replace('"id": "saltglass-cistern"', `"id": "${id}"`);

/** An id that no other world has. */
export const newId = (): string => `w-${randomUUID().slice(0, 8)}`;
