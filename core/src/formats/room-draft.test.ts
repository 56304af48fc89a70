import { expect, it } from "vitest";
import { tinyWorld } from "../test-support/tiny-world.ts";
import type { World } from "../world/world.ts";
import { layRoom } from "./room-draft.ts";
import { readRoomTable, writeRoomTable } from "./room-table.ts";

const tiny = tinyWorld(["S...", "....", "..#."]);

/** A room of nothing but floor. */
const emptyRoom = (width: number, height: number) => ({
  ...tiny.rooms[0]!,
  width,
  height,
  cells: new Uint16Array(width * height),
});

it("a start that lies beyond the room that is laid, to the right or below, is in its corner then; any other stays", () => {
  const startAfter = (start: World["start"], width: number, height: number) =>
    layRoom({ ...tiny, start }, "a", readRoomTable(writeRoomTable(emptyRoom(width, height)), tiny)).start.cell;
  const at = (x: number, y: number, room = "a") => ({ ...tiny.start, room, cell: [x, y] as const });
  expect(startAfter(at(3, 0), 2, 3)).toEqual([0, 0]);
  expect(startAfter(at(0, 2), 4, 2)).toEqual([0, 0]);
  expect(startAfter(at(1, 1), 2, 2)).toEqual([1, 1]);
  expect(startAfter(at(3, 2, "b"), 2, 2)).toEqual([3, 2]);
});
