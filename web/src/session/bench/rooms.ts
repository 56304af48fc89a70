import type { Growth, Project } from "@keen-pebble/core/edit";
import type { ColourMatch, Pixels } from "@keen-pebble/core/formats";
import { addRoom, changeRoomId, copyRoom, freeId, layRoomInto, removeRoom, renameRoom, resizeRoom } from "@keen-pebble/core/edit";
import { coloursOf, nameOf, pixelColours, readRoomPixels, readRoomTable } from "@keen-pebble/core/formats";
import { ID_PATTERN, roomById } from "@keen-pebble/core/world";
import { createStore } from "zustand/vanilla";
import { chooseRoom } from "./shown-room.ts";
import { benchStore } from "./bench-store.ts";
import { change, changeWorld, notice, projectStore } from "../project/project.ts";

const world = () => projectStore.getState().project!.world;

/** Adds an empty room as large as the shown one and shows it. */
export function makeRoom(): void {
  const id = freeId("room", world().rooms.map((room) => room.id));
  const shown = roomById(world(), benchStore.getState().room);
  if (changeWorld((w) => addRoom(w, id, nameOf(id), shown?.width ?? 20, shown?.height ?? 12))) chooseRoom(id);
}

/** Copies the shown room and shows the copy. */
export function copyShownRoom(): void {
  const before = new Set(world().rooms.map((room) => room.id));
  if (!changeWorld((w) => copyRoom(w, benchStore.getState().room))) return;
  const copy = world().rooms.find((room) => !before.has(room.id));
  if (copy) chooseRoom(copy.id);
}

/** Takes the shown room away. */
export function removeShownRoom(): void {
  change((project) => removeRoom(project, benchStore.getState().room));
}

/** Gives the shown room another name; its id, which files and checks name it by, stays. */
export function callRoom(name: string): void {
  const { room } = benchStore.getState();
  if (name.trim() === "" || name === roomById(world(), room)?.name) return;
  changeWorld((w) => renameRoom(w, room, name.trim()));
}

/** Gives the shown room another id; every check, link and log follows. */
export function identifyRoom(id: string): void {
  const { room } = benchStore.getState();
  if (id === room) return;
  if (!ID_PATTERN.test(id)) notice(`A room's id has 1 to 40 of a to z, 0 to 9 and -; it stays ${room}.`);
  else if (roomById(world(), id) !== undefined) notice(`There is a room ${id} already; this one stays ${room}.`);
  else if (change((project) => changeRoomId(project, room, id))) chooseRoom(id);
}

/** Grows or cuts the shown room at its sides. */
export function growRoom(growth: Partial<Growth>): void {
  const fits = change((project) => resizeRoom(project, benchStore.getState().room, { north: 0, east: 0, south: 0, west: 0, ...growth }));
  if (!fits) notice("A room has 1 to 512 cells each way; it stays as it is.");
}

/** More colours than this are not asked for one by one. */
const MOST_MATCHED = 64;

/** A picture whose colours are to be matched to tiles before it is laid down. */
export interface Matching {
  readonly name: string;
  readonly room: string;
  readonly pixels: Pixels;
  /** Colours that are no tile's own, the most frequent first. */
  readonly colours: readonly { readonly colour: string; readonly cells: number }[];
}

export const matchStore = createStore<{ readonly matching: Matching | null }>(() => ({ matching: null }));

/** Lays the picture down, its colours matched: a colour without a tile makes a new one. Null lets it go. */
export function layMatched(matched: ColourMatch | null): void {
  const { matching } = matchStore.getState();
  matchStore.setState({ matching: null });
  if (matching === null || matched === null) return;
  change((project) => layRoomInto(project, matching.room, readRoomPixels(matching.pixels, project.world, matched, matching.name)));
}

/** Lays a table or a picture that was read into the shown room. */
export async function readRoomFile(file: File): Promise<void> {
  const { room } = benchStore.getState();
  try {
    if (file.name.endsWith(".png")) {
      const { readPng } = await import("@keen-pebble/core/reading");
      const pixels = readPng(new Uint8Array(await file.arrayBuffer()), 512, file.name);
      const own = new Set(["", ...pixelColours(world().tiles)]);
      const colours = coloursOf(pixels).filter(({ colour }) => !own.has(colour));
      if (colours.length === 0) change((project) => layRoomInto(project, room, readRoomPixels(pixels, project.world, new Map(), file.name)));
      else if (colours.length > MOST_MATCHED) notice(`${file.name} has ${colours.length} colours that are no tile's; a picture of one pixel a cell has few. The room stays as it is.`);
      else matchStore.setState({ matching: { name: file.name, room, pixels, colours } });
    } else if (file.name.endsWith(".csv")) {
      const text = await file.text();
      change((project) => layRoomInto(project, room, readRoomTable(text, project.world, false, file.name)));
    } else {
      const { readRoomText } = await import("@keen-pebble/core/reading");
      const result = readRoomText(await file.text(), world(), room);
      if ("draft" in result) change((project) => layRoomInto(project, room, result.draft));
      else {
        const { line, column, message } = result.refusals[0]!;
        notice(`${file.name}: row ${line}, column ${column}: ${message}. The room stays as it is.`);
      }
    }
  } catch (error) {
    if (!(error instanceof Error)) throw error;
    notice(`${error.message}. The room stays as it is.`);
  }
}

/** What a text typed for a room says of itself. */
export interface TypedRoom {
  readonly refusals: readonly { readonly line: number | null; readonly column: number | null; readonly message: string }[];
  readonly unknown: readonly string[];
}

/**
 * Lays a typed text into a room of the world as it was when the typing began, so that a tile whose name is still being
 * typed leaves none behind. Where the text is not in order the room stays as it was last.
 */
export async function layTyped(text: string, began: Project, room: string, stroke: string): Promise<TypedRoom> {
  const { readRoomText } = await import("@keen-pebble/core/reading");
  const result = readRoomText(text, began.world, room);
  if ("refusals" in result) return result;
  change((project) => ({ ...project, world: layRoomInto(began, room, result.draft).project.world }), stroke);
  return { refusals: [], unknown: [] };
}

/** Says what of a typed text is not in order, and changes nothing. */
export async function lookAtTyped(text: string, project: Project, room: string): Promise<TypedRoom> {
  const { readRoomText } = await import("@keen-pebble/core/reading");
  const result = readRoomText(text, project.world, room);
  return "refusals" in result ? result : { refusals: [], unknown: [] };
}
