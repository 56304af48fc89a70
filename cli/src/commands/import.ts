import { existsSync } from "node:fs";
import path from "node:path";
import type { MapAnswers, NumberGrid, Pixels, RoomDraft, SheetPlaces } from "@keen-pebble/core/formats";
import type { Sheet, World } from "@keen-pebble/core/world";
import {
  cutMapPicture,
  draftOfCut,
  draftOfMap,
  guessAnswers,
  layRoom,
  nameOf,
  readNumberGrid,
  readRoomPixels,
  sheetPlaces,
  startedIn,
  toPlain,
  writeWorld,
} from "@keen-pebble/core/formats";
import { ID_PATTERN, LIMITS, RefusedError, SHEET_FILE_PATTERN, emptyWorld } from "@keen-pebble/core/world";
import { readPng, readRoomText, worldFromJson, writePng } from "@keen-pebble/core/reading";
import { OK } from "../exit-codes.ts";
import { readBytes, textOf, writeWhole } from "../files.ts";
import { printBeside } from "../standard-output.ts";
import { STANDARD, UnusableOption } from "../unusable.ts";

export interface ImportOptions {
  readonly out: string;
  readonly tileSize: number;
  readonly empty?: string;
  readonly first: number;
  readonly solid?: string;
  readonly width?: number;
  readonly sheet?: string;
  readonly mapPicture?: true;
}

/** A room that was read, and the picture that goes beside the world for it. */
interface ReadRoom {
  readonly draft: RoomDraft;
  readonly picture?: { readonly file: string; readonly bytes: Uint8Array };
}

/** `import FILE... --out WORLD`: makes a world, a room a file; the first start found is the start (formats.md section 7). */
export function importRooms(files: readonly string[], options: ImportOptions): number {
  const print = printBeside(options.out);
  const base = emptyWorldFor(options);
  const places = options.sheet === undefined ? null : placesOf(options.sheet, base, options);
  let world: World = { ...base, tiles: base.tiles.slice(0, 1), rooms: [] };
  const pictures = places === null ? [] : [places.picture];
  let started = false;
  for (const file of files) {
    const stem = path.basename(file).replace(/(\.room)?\.[^.]*$/, "");
    const room = file === STANDARD ? "room-1" : idOf(stem.toLowerCase().replaceAll(/[_ ]/g, "-"), file);
    if (world.rooms.some((each) => each.id === room))
      throw refused(file, `there is a room ${room} already, from another file`);
    const { draft, picture } = readRoom(file, world, room, options, places?.places ?? null);
    world = layRoom(world, room, started ? { ...draft, start: null } : draft);
    if (picture !== undefined) pictures.push(picture);
    if (draft.start !== null) started = true;
  }
  if (!started) world = startedIn(world, world.rooms[0]!.id);
  const result = worldFromJson(toPlain(world));
  if ("faults" in result)
    throw new RefusedError(
      options.out,
      result.faults.map(({ path: at, message }) => ({ place: at.join("."), line: null, column: null, message })),
    );
  for (const { file, bytes } of pictures) writeWhole(file, [bytes]);
  writeWhole(options.out, [writeWorld(result.world)]);
  print(
    `${options.out}: ${world.rooms.map((room) => `${room.id} ${room.width}x${room.height}`).join(", ")}, ${world.tiles.length} tiles, start ${world.start.room} ${world.start.cell.join(" ")}`,
  );
  return OK;
}

function emptyWorldFor({ out, tileSize }: ImportOptions): World {
  const [min, max] = LIMITS.tileSize;
  if (tileSize < min || tileSize > max)
    throw refused("--tile-size", `must be a whole number from ${min} to ${max}, found ${tileSize}`);
  const name = path.basename(out).replace(/(\.world)?\.json$/, "");
  const id = out === STANDARD ? "world" : idOf(name, "--out");
  return emptyWorld(id, nameOf(id), tileSize);
}

/** Beside the world, for a picture of it. */
function beside(file: string, { out }: ImportOptions, option: string): string {
  if (out === STANDARD) throw new UnusableOption(`${option} puts a picture beside the world; give --out a file`);
  return path.join(path.dirname(out), file);
}

function placesOf(
  file: string,
  world: World,
  options: ImportOptions,
): { readonly places: SheetPlaces; readonly picture: NonNullable<ReadRoom["picture"]> } {
  const bytes = readBytes(file);
  const name = path.basename(file);
  if (!SHEET_FILE_PATTERN.test(name))
    throw refused(file, "the name of a sheet has letters, digits, dots and dashes, and ends in .png");
  const picture = readPng(bytes, LIMITS.sheetSide[1], file);
  const there = beside(name, options, "--sheet");
  if (existsSync(there) && !bytesAlike(readBytes(there), bytes))
    throw refused("--sheet", `${there} is another picture of that name; it is left as it is`);
  const sheet: Sheet = {
    id: idOf(
      name
        .replace(/\.png$/, "")
        .toLowerCase()
        .replace(/[^a-z0-9-]/g, "-")
        .slice(0, 40),
      file,
    ),
    file: name,
    tile: world.tileSize,
    margin: 0,
    spacing: 0,
  };
  return { places: sheetPlaces(sheet, picture), picture: { file: there, bytes } };
}

const bytesAlike = (one: Uint8Array, other: Uint8Array): boolean => Buffer.compare(one, other) === 0;

/** The room of a file: what it is says its ending, or its first bytes. */
function readRoom(
  file: string,
  world: World,
  room: string,
  options: ImportOptions,
  places: SheetPlaces | null,
): ReadRoom {
  const name = file === STANDARD ? "standard input" : file;
  const bytes = readBytes(file);
  if (bytes[0] === 0x89 || file.endsWith(".png")) {
    if (options.mapPicture) return ofMapPicture(readPng(bytes, LIMITS.sheetSide[1], name), world, room, options, name);
    return { draft: readRoomPixels(readPng(bytes, LIMITS.roomSide[1], name), world, new Map(), name) };
  }
  const text = textOf(bytes, name);
  if (file.endsWith(".room.txt") || LEGEND.test(text)) {
    const result = readRoomText(text, world, room);
    if ("refusals" in result) throw new RefusedError(name, result.refusals);
    return { draft: result.draft };
  }
  const grid = readNumberGrid(text, options.width ?? null, name);
  return { draft: draftOfMap(grid, answersFor(grid, options), world, places, name) };
}

/** Below an empty line what a character is: it is a room text. */
const LEGEND = /\n\r?\n\S = [a-z]+/;

function ofMapPicture(picture: Pixels, world: World, room: string, options: ImportOptions, name: string): ReadRoom {
  const cut = cutMapPicture(picture, world.tileSize, name);
  const file = `${world.id}-${room}.png`;
  const sheet = { id: `${room.slice(0, 34)}-cells`, file, tile: world.tileSize, margin: 0, spacing: 0 };
  const draft = draftOfCut(cut, answersFor(cut.grid, options).solid, world, room, sheet, name);
  return { draft, picture: { file: beside(file, options, "--map-picture"), bytes: writePng(cut.sheet) } };
}

function answersFor(grid: NumberGrid, { empty, first, solid }: ImportOptions): MapAnswers {
  const guess = guessAnswers(grid);
  if (grid.characters)
    return {
      empty: empty === undefined ? guess.empty : (empty.codePointAt(0) ?? null),
      first,
      solid: solid === undefined ? guess.solid : new Set(Array.from(solid, (each) => each.codePointAt(0)!)),
    };
  return {
    empty: empty === undefined ? 0 : numbersOf(empty, "--empty")[0]!,
    first,
    solid: new Set(numbersOf(solid ?? "", "--solid")),
  };
}

/** Numbers and ranges: `3,5,7-9`. */
function numbersOf(text: string, option: string): number[] {
  return text
    .split(",")
    .filter((part) => part.trim() !== "")
    .flatMap((part) => {
      const range = /^\s*(-?\d{1,9})(?:-(\d{1,9}))?\s*$/.exec(part);
      const from = Number(range?.[1]);
      const to = range?.[2] === undefined ? from : Number(range[2]);
      if (range === null || to < from || to - from > LIMITS.tiles)
        throw new UnusableOption(
          `${option}: expected numbers and ranges such as 3,5,7-9, found "${part.slice(0, 40)}"`,
        );
      return Array.from({ length: to - from + 1 }, (_, i) => from + i);
    });
}

function idOf(name: string, place: string): string {
  if (!ID_PATTERN.test(name)) throw refused(place, `"${name}" is no id; expected 1 to 40 of a to z, 0 to 9 and -`);
  return name;
}

function refused(place: string, message: string): RefusedError {
  return new RefusedError("the import", [{ place, line: null, column: null, message }]);
}
