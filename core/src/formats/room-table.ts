import { RefusedError } from "../base/refused-error.ts";
import { plainText } from "../base/plain-text.ts";
import { LIMITS } from "../world/limits.ts";
import type { Room, World } from "../world/world.ts";
import type { RoomDraft } from "./room-draft.ts";
import { PLAIN_DRAFT, newTile } from "./room-draft.ts";

/** A room's tile numbers as CSV, one row a line (formats.md section 4). */
export function writeRoomTable(room: Room): string {
  let text = "";
  for (let y = 0; y < room.height; y++)
    text += `${room.cells.subarray(y * room.width, (y + 1) * room.width).join(",")}\r\n`;
  return text;
}

/**
 * Reads a room table. Lines end in CRLF or LF.
 * @param making numbers beyond the world's tiles make new ones, `tile-N`, instead of being refused
 * @throws {RefusedError} with line and column (counted in fields)
 */
export function readRoomTable(text: string, world: World, making = false, name = "the table"): RoomDraft {
  const refuse = (line: number, column: number, message: string): never => {
    throw new RefusedError(name, [{ place: "", line, column, message }]);
  };
  if (text.length > LIMITS.fileBytes) refuse(1, 1, `is larger than ${LIMITS.fileBytes} bytes`);
  const lines = plainText(text).split("\n");
  if (lines.at(-1) === "") lines.pop();
  if (lines.length === 0) refuse(1, 1, "expected a row of tile numbers");
  if (lines.length > LIMITS.roomSide[1])
    refuse(LIMITS.roomSide[1] + 1, 1, `a room has at most ${LIMITS.roomSide[1]} rows`);
  const width = lines[0]!.split(",").length;
  if (width > LIMITS.roomSide[1]) refuse(1, LIMITS.roomSide[1] + 1, `a row has at most ${LIMITS.roomSide[1]} cells`);
  const cells: string[] = [];
  const max = making ? LIMITS.tiles : world.tiles.length;
  let made = world.tiles.length;
  const idOf = (number: number): string => world.tiles[number]?.id ?? `tile-${number}`;
  lines.forEach((line, y) => {
    const fields = line.split(",");
    if (fields.length !== width)
      refuse(
        y + 1,
        Math.min(fields.length, width) + 1,
        `expected ${width} cells as in the first row, found ${fields.length}`,
      );
    fields.forEach((field, x) => {
      const number = /^"?(\d{1,4})"?$/.exec(field.trim());
      const tile = number === null ? max : Number(number[1]);
      if (tile >= max)
        refuse(y + 1, x + 1, `expected a tile number from 0 to ${max - 1}, found "${field.slice(0, 20)}"`);
      made = Math.max(made, tile + 1);
      cells.push(idOf(tile));
    });
  });
  const tiles = Array.from({ length: made - world.tiles.length }, (_, i) =>
    newTile(idOf(world.tiles.length + i), [], i),
  );
  return { ...PLAIN_DRAFT, width, height: lines.length, cells, tiles };
}
