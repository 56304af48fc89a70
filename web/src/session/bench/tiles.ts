import type { Look, Shape, Tile } from "@keen-pebble/core/world";
import { addFlag, addTile, changeTiles, copyTile, freeId, moveTile, removeFlag, removeTiles, renameFlag, setBlockedBy, setFlag } from "@keen-pebble/core/edit";
import { newTile } from "@keen-pebble/core/formats";
import { ID_PATTERN } from "@keen-pebble/core/world";
import { chooseTile } from "./chosen.ts";
import { benchStore } from "./bench-store.ts";
import { changeWorld, notice, projectStore } from "../project/project.ts";

const world = () => projectStore.getState().project!.world;

/** Adds a tile and chooses it. */
export function makeTile(): void {
  const id = freeId("tile", world().tiles.map((tile) => tile.id));
  if (changeWorld((w) => addTile(w, newTile(id, [], w.tiles.length)))) chooseTile(id);
}

/** Adds a tile for a character of a room text that nothing explains. */
export function makeTileFor(glyph: string): void {
  const id = freeId("tile", world().tiles.map((tile) => tile.id));
  changeWorld((w) => addTile(w, { ...newTile(id, [], w.tiles.length), glyph }));
}

/** Copies the chosen tile and chooses the copy. */
export function copyChosenTile(): void {
  const { tile } = benchStore.getState();
  const before = new Set(world().tiles.map((each) => each.id));
  if (!changeWorld((w) => copyTile(w, tile))) return;
  const copy = world().tiles.find((each) => !before.has(each.id));
  if (copy) chooseTile(copy.id);
}

/** Takes the chosen tiles away; cells that have them get the replacement. */
export function removeChosenTiles(replacement: string): void {
  const { chosenTiles } = benchStore.getState();
  changeWorld((w) => removeTiles(w, chosenTiles, replacement));
}

/** Moves the chosen tile in the list by so many places. */
export function moveChosenTile(by: number): void {
  const { tile } = benchStore.getState();
  const at = world().tiles.findIndex((each) => each.id === tile);
  changeWorld((w) => moveTile(w, tile, at + by));
}

/** Changes the chosen tiles alike. A row of changes in one `stroke` is undone as one. */
export function changeChosen(how: (tile: Tile) => Tile, stroke?: string): boolean {
  const { chosenTiles } = benchStore.getState();
  return changeWorld((w) => changeTiles(w, chosenTiles, how), stroke);
}

export const setShape = (shape: Shape, stroke?: string): boolean => changeChosen((tile) => ({ ...tile, shape }), stroke);
export const setLook = (look: Look, stroke?: string): boolean => changeChosen((tile) => ({ ...tile, look }), stroke);

/** Gives a flag to all chosen tiles, or takes it from them. */
export function toggleFlag(flag: string, on: boolean): void {
  const { chosenTiles } = benchStore.getState();
  changeWorld((w) => setFlag(w, chosenTiles, flag, on));
}

/** Whether the walker of a rule set is blocked by a flag. */
export function toggleBlockedBy(rules: string, flag: string, on: boolean): void {
  changeWorld((w) => setBlockedBy(w, rules, flag, on));
}

/** What is wrong with a name for a flag, or null. */
export function flagFault(name: string): string | null {
  if (!ID_PATTERN.test(name)) return "1 to 40 of a to z, 0 to 9 and -";
  return world().flags.includes(name) ? `there is a flag ${name} already` : null;
}

/** Adds a flag. */
export function makeFlag(name: string): void {
  const fault = world().flags.length >= 16 ? "a world has at most 16 flags" : flagFault(name);
  if (fault !== null) notice(`No flag was added: ${fault}.`);
  else changeWorld((w) => addFlag(w, name));
}

/** Calls a flag otherwise, everywhere. */
export function callFlag(from: string, to: string): void {
  if (from === to) return;
  const fault = flagFault(to);
  if (fault !== null) notice(`The flag stays ${from}: ${fault}.`);
  else changeWorld((w) => renameFlag(w, from, to));
}

/** Takes a flag away everywhere. */
export function dropFlag(name: string): void {
  changeWorld((w) => removeFlag(w, name));
}
