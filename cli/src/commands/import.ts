import path from "node:path";
import type { RoomDraft } from "@keen-pebble/core/formats";
import type { World } from "@keen-pebble/core/world";
import { layRoom, nameOf, readRoomPixels, readRoomTable, toPlain, writeWorld } from "@keen-pebble/core/formats";
import { ID_PATTERN, LIMITS, RefusedError, emptyWorld } from "@keen-pebble/core/world";
import { readPng, readRoomText, worldFromJson } from "@keen-pebble/core/reading";
import { OK } from "../exit-codes.ts";
import { readBytes, readText, textOf, writeWhole } from "../files.ts";
import { printBeside } from "../standard-output.ts";
import { STANDARD } from "../unusable.ts";

export interface ImportOptions {
  readonly out: string;
  readonly tileSize: string;
}

/** `import FILE... --out WORLD`: makes a world, a room a file; the first start found is the start (formats.md section 7). */
export function importRooms(files: readonly string[], options: ImportOptions): number {
  const print = printBeside(options.out);
  const tileSize = /^\d{1,3}$/.test(options.tileSize) ? Number(options.tileSize) : NaN;
  const [min, max] = LIMITS.tileSize;
  if (!(tileSize >= min && tileSize <= max))
    throw refused("--tile-size", `must be a whole number from ${min} to ${max}, found ${options.tileSize}`);
  const id =
    options.out === STANDARD
      ? "world"
      : idOf(
          path
            .basename(options.out)
            .replace(/\.json$/, "")
            .replace(/\.world$/, ""),
          "--out",
        );
  const base = emptyWorld(id, nameOf(id), tileSize);
  let world: World = { ...base, tiles: base.tiles.slice(0, 1), rooms: [] };
  let started = false;
  for (const file of files) {
    const room = file === STANDARD ? "room-1" : idOf(path.basename(file).replace(/(\.room)?\.[^.]*$/, ""), file);
    if (world.rooms.some((each) => each.id === room))
      throw refused(file, `there is a room ${room} already, from another file`);
    const draft = draftOf(file, world, room);
    world = layRoom(world, room, started ? { ...draft, start: null } : draft);
    if (draft.start !== null) started = true;
  }
  if (!started) world = { ...world, start: { ...world.start, room: world.rooms[0]!.id } };
  const result = worldFromJson(toPlain(world));
  if ("faults" in result)
    throw new RefusedError(
      options.out,
      result.faults.map(({ path: at, message }) => ({ place: at.join("."), line: null, column: null, message })),
    );
  writeWhole(options.out, [writeWorld(result.world)]);
  print(
    `${options.out}: ${world.rooms.map((room) => `${room.id} ${room.width}x${room.height}`).join(", ")}, ${world.tiles.length} tiles, start ${world.start.room} ${world.start.cell.join(" ")}`,
  );
  return OK;
}

function draftOf(file: string, world: World, room: string): RoomDraft {
  if (file === STANDARD) return draftOfInput(world, room);
  if (file.endsWith(".png"))
    return readRoomPixels(readPng(readBytes(file), LIMITS.roomSide[1], file), world, new Map(), file);
  if (file.endsWith(".csv")) return readRoomTable(readText(file), world, true, file);
  const result = readRoomText(readText(file), world, room);
  if ("refusals" in result) throw new RefusedError(file, result.refusals);
  return result.draft;
}

/** What comes from standard input has no ending that says what it is: a picture, a table of numbers, or a room text. */
function draftOfInput(world: World, room: string): RoomDraft {
  const bytes = readBytes(STANDARD);
  const name = "standard input";
  if (bytes[0] === 0x89) return readRoomPixels(readPng(bytes, LIMITS.roomSide[1], name), world, new Map(), name);
  const text = textOf(bytes, name);
  if (/^\ufeff?[\d,"\s]+$/.test(text)) return readRoomTable(text, world, true, name);
  const result = readRoomText(text, world, room);
  if ("refusals" in result) throw new RefusedError(name, result.refusals);
  return result.draft;
}

function idOf(name: string, place: string): string {
  if (!ID_PATTERN.test(name)) throw refused(place, `"${name}" is no id; expected 1 to 40 of a to z, 0 to 9 and -`);
  return name;
}

function refused(place: string, message: string): RefusedError {
  return new RefusedError("the import", [{ place, line: null, column: null, message }]);
}
