import type { Compiled } from "./compiled.ts";

/** The door that stands in a cell; -1 for none. Two never do. */
export function doorIn(c: Compiled, room: number, cell: number): number {
  const at = c.rooms[room]!.fixtureAt;
  for (let number = at === null ? -1 : at[cell]!; number >= 0; number = c.fixtures.all[number]!.next)
    if (c.fixtures.all[number]!.blocks) return number;
  return -1;
}
