import { shortened } from "../base/quoted.ts";
import type { Fault } from "./fault.ts";
import type Joi from "joi";
import type { JSONPath } from "jsonc-parser";
import { RefusedError } from "../base/refused-error.ts";
import { LIMITS } from "../world/limits.ts";
import type { Room, World } from "../world/world.ts";
import { plainText } from "../base/plain-text.ts";
import { locate, scanJson } from "./scan-json.ts";
import { worldFaults } from "./world-faults.ts";
import { STRICT } from "./schema-parts.ts";
import { worldSchema } from "./world-schema.ts";

const MOST_LISTED = 20;

/** Up to this many characters everything that is wrong is looked for; in a larger file the first thing will do. */
const LISTABLE = 256 * 1024;

/**
 * Reads a world file strictly (formats.md section 1): syntax, shape, ids, ranges. Missing keys take their defaults.
 * @param file its text, UTF-8 decoded
 * @param name what to call it in errors
 * @throws {RefusedError} with the places of up to 20 things that are wrong, and what was expected there
 */
export function readWorld(file: string, name = "the world"): World {
  const text = plainText(file);
  const json = scanJson(text, name);
  const result = worldFromJson(json, text.length <= LISTABLE);
  if ("faults" in result) throw new RefusedError(name, locate(text, result.faults.slice(0, MOST_LISTED)));
  return result.world;
}

/**
 * Makes a world of JSON that is built already, or says what is wrong with it and where.
 * @param all look for everything that is wrong, not only for the first thing
 */
export function worldFromJson(
  json: unknown,
  all = false,
): { readonly world: World } | { readonly faults: readonly Fault[] } {
  const declared = (json as { tileSize?: unknown } | null)?.tileSize;
  const tileSize =
    typeof declared === "number" &&
    Number.isInteger(declared) &&
    declared >= LIMITS.tileSize[0] &&
    declared <= LIMITS.tileSize[1]
      ? declared
      : LIMITS.tileSize[1];
  const result = worldSchema(tileSize).validate(json, { ...STRICT, abortEarly: !all });
  const { error } = result;
  if (error) return { faults: error.details.map(faultOf) };

  const { format: _format, version: _version, rooms, ...rest } = result.value as RawWorld;
  const faults: Fault[] = [];
  const made = rooms.map((room, i) => {
    const { cells, ...kept } = room;
    const path = ["rooms", i, "cells"];
    return { ...kept, cells: readCells(cells, room.width * room.height, rest.tiles.length, path, faults) };
  });
  let inAll = 0;
  for (const room of made) inAll += room.cells.length;
  if (inAll > LIMITS.cellsInAll)
    faults.push({
      path: ["rooms"],
      message: `must have at most ${LIMITS.cellsInAll} cells in all, they have ${inAll}`,
    });
  if (faults.length > 0) return { faults };

  const world: World = { ...rest, rooms: made };
  const more = worldFaults(world);
  return more.length > 0 ? { faults: more } : { world };
}

type RawWorld = Omit<World, "rooms"> & {
  readonly format: string;
  readonly version: number;
  readonly rooms: readonly (Omit<Room, "cells"> & { readonly cells: unknown })[];
};

function faultOf(detail: Joi.ValidationErrorItem): Fault {
  const text = detail.message.startsWith("must") ? detail.message : detail.message.replace(/^\S+ /, "");
  const value = detail.context?.value as unknown;
  const found = value === undefined || typeof value === "object" ? "" : `, found ${shortened(JSON.stringify(value))}`;
  return { path: detail.path, message: `${text}${found}` };
}

function readCells(cells: unknown, length: number, tiles: number, path: JSONPath, faults: Fault[]): Uint16Array {
  if (!Array.isArray(cells) || cells.length !== length) {
    const found = Array.isArray(cells) ? `, found ${cells.length}` : "";
    faults.push({ path, message: `must be a list of ${length} tile numbers (width x height)${found}` });
    return new Uint16Array(0);
  }
  const made = new Uint16Array(length);
  for (let i = 0; i < length; i++) {
    const value = cells[i] as unknown;
    if (typeof value === "number" && value >= 0 && value < tiles && Number.isInteger(value)) made[i] = value;
    else {
      faults.push({
        path: [...path, i],
        message: `must be a tile number from 0 to ${tiles - 1}, found ${shortened(JSON.stringify(value))}`,
      });
      if (faults.length >= MOST_LISTED) break;
    }
  }
  return made;
}
