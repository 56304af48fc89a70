// World and room files as they are written, and what is light to read.
export type { PlainWorld } from "./formats/plain-world.ts";
export type { ReadTrace } from "./formats/read-trace.ts";
export type { RoomDraft } from "./formats/room-draft.ts";
export { layRoom, nameOf, newTile } from "./formats/room-draft.ts";
export type { ColourMatch, Pixels } from "./formats/room-pixels.ts";
export { coloursOf, pixelColours, readRoomPixels, writeRoomPixels } from "./formats/room-pixels.ts";
export { readRoomTable, writeRoomTable } from "./formats/room-table.ts";
export { placeText } from "./formats/scan-json.ts";
export { bodyReach, isConvexClockwise } from "./formats/world-faults.ts";
export { writeRoomText } from "./formats/write-room-text.ts";
export { writeWorld } from "./formats/write-world.ts";
export { fromPlain, toPlain } from "./formats/plain-world.ts";
