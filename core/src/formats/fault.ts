import type { JSONPath } from "jsonc-parser";

/** Something wrong at a path of a world file. */
export interface Fault {
  readonly path: JSONPath;
  readonly message: string;
}
