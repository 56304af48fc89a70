import type { Fixture } from "./fixtures.ts";
import { fieldsOf } from "./fixtures.ts";
import type { Pair } from "./world.ts";

const ONE_CELL: Pair = [1, 1];

/** Cells that a fixture covers, across and down: its own is the top left one (semantics.md section 8). */
export const sizeOf = (fixture: Fixture): Pair => ("size" in fixture ? (fixture.size ?? ONE_CELL) : ONE_CELL);

/** Whether fixtures of that kind may cover a rectangle. */
export const hasSize = ({ kind }: Pick<Fixture, "kind">): boolean => Object.hasOwn(fieldsOf(kind), "size");

/** The fixture with another size; one of a kind that has none stays as it is. */
export function withSize(fixture: Fixture, [across, down]: Pair): Fixture {
  if (!hasSize(fixture)) return fixture;
  const { size: _, ...rest } = fixture as Fixture & { readonly size?: Pair };
  return (across * down === 1 ? rest : { ...rest, size: [across, down] }) as Fixture;
}

/** Whether a cell is one of the fixture's. */
export function covers(fixture: Fixture, [x, y]: Pair): boolean {
  const [[left, top], [across, down]] = [fixture.cell, sizeOf(fixture)];
  return x >= left && x < left + across && y >= top && y < top + down;
}

/** What of a fixture lies in a room of that size; null where nothing does. */
export function keptPart(fixture: Fixture, width: number, height: number): Fixture | null {
  const [[x, y], [across, down]] = [fixture.cell, sizeOf(fixture)];
  const [left, top] = [Math.max(x, 0), Math.max(y, 0)];
  const [right, bottom] = [Math.min(x + across, width), Math.min(y + down, height)];
  if (left >= right || top >= bottom) return null;
  const kept: Fixture = { ...fixture, cell: [left, top] };
  return across * down === 1 ? kept : withSize(kept, [right - left, bottom - top]);
}
