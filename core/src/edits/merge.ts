import { sameJson } from "../world/parts.ts";
import type { ChangeParts, EditStep, SetCells } from "./step.ts";

/**
 * One step for two that follow each other, or null where they are not of one kind and place: strokes over the same
 * room, a setting, a log or parts that are changed again (architecture.md, flow 2). It may come to nothing.
 */
export function merge(first: EditStep, second: EditStep): EditStep | null {
  if (first.kind === "set-cells" && second.kind === "set-cells" && first.room === second.room)
    return mergeCells(first, second);
  if (
    first.kind === "change-rules" &&
    second.kind === "change-rules" &&
    first.rules === second.rules &&
    first.setting === second.setting
  ) {
    return { ...first, after: second.after };
  }
  if (first.kind === "change-log" && second.kind === "change-log" && first.log === second.log)
    return { ...first, after: second.after };
  if (first.kind === "change-parts" && second.kind === "change-parts") return mergeParts(first, second);
  return null;
}

/** Whether a step changes nothing. */
export function isNothing(step: EditStep): boolean {
  switch (step.kind) {
    case "set-cells":
      return step.cells.length === 0;
    case "change-parts":
      return step.parts.length === 0;
    case "change-rules":
    case "change-log":
      return step.before === step.after;
    case "add-log":
    case "remove-log":
      return false;
  }
}

/** Only for steps over the same parts: what else one of them brings might be needed by what stands between. */
function mergeParts(first: ChangeParts, second: ChangeParts): ChangeParts | null {
  const later = new Map(second.parts.map((each) => [each.part, each.after]));
  if (first.parts.length !== second.parts.length || !first.parts.every(({ part }) => later.has(part))) return null;
  const parts = first.parts.map(({ part, before }) => ({ part, before, after: later.get(part)! }));
  return { kind: "change-parts", parts: parts.filter(({ before, after }) => !sameJson(before, after)) };
}

/** From so many cells on their numbers are looked up in lists as long as the room. */
const MANY_CELLS = 4096;

function mergeCells(first: SetCells, second: SetCells): SetCells {
  if (first.cells.length + second.cells.length > MANY_CELLS) return mergeManyCells(first, second);
  const before = new Map<number, number>();
  const after = new Map<number, number>();
  for (const step of [first, second]) {
    step.cells.forEach((cell, i) => {
      if (!before.has(cell)) before.set(cell, step.before[i]!);
      after.set(cell, step.after[i]!);
    });
  }
  const cells = [...before.keys()].filter((cell) => before.get(cell) !== after.get(cell)).sort((a, b) => a - b);
  return {
    ...first,
    cells,
    before: cells.map((cell) => before.get(cell)!),
    after: cells.map((cell) => after.get(cell)!),
  };
}

function mergeManyCells(first: SetCells, second: SetCells): SetCells {
  let max = 0;
  for (const step of [first, second]) for (const cell of step.cells) if (cell > max) max = cell;
  const before = new Int32Array(max + 1).fill(-1);
  const after = new Int32Array(max + 1);
  for (const step of [first, second]) {
    for (let i = 0; i < step.cells.length; i++) {
      const cell = step.cells[i]!;
      if (before[cell] === -1) before[cell] = step.before[i]!;
      after[cell] = step.after[i]!;
    }
  }
  const cells: number[] = [];
  for (let cell = 0; cell <= max; cell++) if (before[cell] !== -1 && before[cell] !== after[cell]) cells.push(cell);
  return { ...first, cells, before: cells.map((cell) => before[cell]!), after: cells.map((cell) => after[cell]!) };
}
