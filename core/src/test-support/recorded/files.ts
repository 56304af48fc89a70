import fc from "fast-check";
import { readRoomTable, writeRoomTable } from "../../formats/room-table.ts";
import { coloursOf, writeRoomPixels } from "../../formats/room-pixels.ts";
import { readWorld } from "../../formats/read-world.ts";
import { readRoomText } from "../../formats/read-room-text.ts";
import { writeRoomText } from "../../formats/write-room-text.ts";
import { writeWorld } from "../../formats/write-world.ts";
import { readLog } from "../../logs/read-log.ts";
import { writeLog } from "../../logs/write-log.ts";
import { anyDamaged } from "../damage.ts";
import type { Questions } from "./given.ts";
import { SEED, answered } from "./given.ts";

/** Of files. */
export const FILES: Questions = {
  "world files": ({ world }) => writeWorld(world),
  "damaged world files": ({ world }) =>
    fc
      .sample(anyDamaged(writeWorld(world)), { seed: SEED, numRuns: 12 })
      .map((text) => answered(() => writeWorld(readWorld(text)))),
  "rooms as text, table and picture": ({ world }) =>
    world.rooms.map((room) => [
      answered(() => writeRoomText(world, room)),
      answered(() => readRoomText(writeRoomText(world, room), world, room.id)),
      answered(() => readRoomTable(writeRoomTable(room), world)),
      answered(() => coloursOf(writeRoomPixels(world, room))),
    ]),
  "damaged room texts": ({ world }) =>
    fc
      .sample(anyDamaged(JSON.stringify(writeRoomText(world, world.rooms[0]!))), { seed: SEED, numRuns: 12 })
      .map((text) =>
        answered(() => readRoomText(text.replaceAll("\\n", "\n").replaceAll('"', ""), world, world.rooms[0]!.id)),
      ),
  "damaged logs": ({ logs }) =>
    fc
      .sample(
        fc.tuple(
          fc.nat(200),
          fc.constantFrom("", "x", "9", " ", "\n", "until ", "@", "-1", "check ", "U", ".", "---\n", "999999999"),
        ),
        {
          seed: SEED,
          numRuns: 60,
        },
      )
      .map(([at, put]) =>
        answered(() => {
          const text = writeLog(logs[0]!);
          return readLog(text.slice(0, at % text.length) + put + text.slice((at % text.length) + 1));
        }),
      ),
};
