import { writeRoomTable, writeRoomText } from "@keen-pebble/core/formats";
import { CoreError, roomById } from "@keen-pebble/core/world";
import { OK } from "../exit-codes.ts";
import { worldFile } from "../files.ts";

/**
 * `text WORLD ROOM` and `table WORLD ROOM`: prints a room (formats.md sections 4 and 7).
 * @throws {CoreError} `no-such-place` where the world has no such room
 */
export function printRoom(worldPath: string, roomId: string, form: "text" | "table"): number {
  const world = worldFile(worldPath);
  const room = roomById(world, roomId);
  if (!room)
    throw new CoreError(
      "no-such-place",
      `${worldPath} has no room ${roomId}; it has ${world.rooms.map((each) => each.id).join(", ")}`,
      { room: roomId },
    );
  process.stdout.write(form === "text" ? writeRoomText(world, room) : writeRoomTable(room));
  return OK;
}
