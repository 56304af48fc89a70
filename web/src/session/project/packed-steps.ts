import type { EditStep } from "@keen-pebble/core/edit";

/** Lists of so many numbers are handed to workers and to the browser's database as typed arrays: those are copied at once. */
const MANY = 256;

type SetCells = Extract<EditStep, { kind: "set-cells" }>;

/** A step as it goes to a worker or into the browser's database; whoever only looks at its numbers may take it as it is. */
export function packed(step: EditStep): EditStep {
  if (step.kind !== "set-cells" || step.cells.length < MANY) return step;
  return withLists(step, (list) => Uint32Array.from(list));
}

/** The step with ordinary lists again, as it is edited and sent. */
export function unpacked(step: EditStep): EditStep {
  if (step.kind !== "set-cells" || Array.isArray(step.cells)) return step;
  return withLists(step, (list) => Array.from(list));
}

function withLists(step: SetCells, how: (list: ArrayLike<number>) => ArrayLike<number>): EditStep {
  const { cells, before, after } = step;
  return { ...step, cells: how(cells), before: how(before), after: how(after) } as unknown as EditStep;
}
