/** `format` of a world file (formats.md section 1). */
export const WORLD_FORMAT = "keen-pebble-world";
