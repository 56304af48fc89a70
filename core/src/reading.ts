// Reading files needs the schema and CSV packages; the page loads this entry only where a file is read.
export { readTrace } from "./formats/read-trace.ts";
export { readWorld, worldFromJson } from "./formats/read-world.ts";
export type { JsonLimits } from "./formats/scan-json.ts";
export { scanJson } from "./formats/scan-json.ts";
export { STRICT } from "./formats/schema-parts.ts";
export { numberList, partSchema, worldSchema } from "./formats/world-schema.ts";
export { pngSize, readPng, writePng } from "./formats/png.ts";
export type { RoomTextResult } from "./formats/read-room-text.ts";
export { readRoomText } from "./formats/read-room-text.ts";
export { readGameTable } from "./formats/game-table.ts";
export { gameLog, gameOf } from "./formats/game-log.ts";
export { gameOfTrace, gameTrace, hasPlaces } from "./formats/game-trace.ts";
export { buttonCalled, guessGame, keysIn } from "./formats/guess-game.ts";
export type { CsvTable } from "./formats/csv-table.ts";
export { logOfTable, readRecording } from "./formats/read-recording.ts";
