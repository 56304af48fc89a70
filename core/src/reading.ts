// Reading files needs the schema and CSV packages; the page loads this entry only where a file is read.
export { readTrace } from "./compare/read-trace.ts";
export { readWorld, worldFromJson } from "./formats/read-world.ts";
export type { JsonLimits } from "./formats/scan-json.ts";
export { scanJson } from "./formats/scan-json.ts";
export { numberList, partSchema, worldSchema } from "./formats/world-schema.ts";
export { readCsvLog } from "./logs/read-csv-log.ts";
export { pngSize, readPng, writePng } from "./room-files/png.ts";
export type { RoomTextResult } from "./room-files/read-room-text.ts";
export { readRoomText } from "./room-files/read-room-text.ts";
