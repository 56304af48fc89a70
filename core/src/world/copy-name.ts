import { LIMITS } from "./limits.ts";

/**
 * What a copy is called: `Hall, copy`, then `Hall, copy 2`, so that no two of a list have the same name. A long name is cut
 * to make room.
 * @param taken names that are there already
 */
export function copyName(name: string, taken: Iterable<string>): string {
  const gone = new Set(taken);
  const stem = [...name.replace(/, copy( \d+)?$/, "")];
  for (let n = 1; ; n++) {
    const end = n === 1 ? ", copy" : `, copy ${n}`;
    const copy = `${stem.slice(0, LIMITS.nameLength - end.length).join("")}${end}`;
    if (!gone.has(copy)) return copy;
  }
}
