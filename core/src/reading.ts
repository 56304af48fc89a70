// Reading world files needs the schema package; the page loads this entry only where a file is read.
export { readWorld, worldFromJson } from "./formats/read-world.ts";
export { worldSchema } from "./formats/world-schema.ts";
