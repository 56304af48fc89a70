import type { EditStep, SetCells } from "./step.ts";

/**
 * One step for two that follow each other, or null where they are not of one kind and place: strokes over the same
 * room, and a setting that is changed again (architecture.md, flow 2).
 */
export function merge(first: EditStep, second: EditStep): EditStep | null {
  if (first.kind === "set-cells" && second.kind === "set-cells" && first.room === second.room) return mergeCells(first, second);
  if (first.kind === "change-rules" && second.kind === "change-rules" && first.rules === second.rules && first.setting === second.setting) {
    return { ...first, after: second.after };
  }
  return null;
}

function mergeCells(first: SetCells, second: SetCells): SetCells {
  const before = new Map<number, number>();
  const after = new Map<number, number>();
  for (const step of [first, second]) {
    step.cells.forEach((cell, i) => {
      if (!before.has(cell)) before.set(cell, step.before[i]!);
      after.set(cell, step.after[i]!);
    });
  }
  const cells = [...before.keys()].filter((cell) => before.get(cell) !== after.get(cell)).sort((a, b) => a - b);
  return { ...first, cells, before: cells.map((cell) => before.get(cell)!), after: cells.map((cell) => after.get(cell)!) };
}
