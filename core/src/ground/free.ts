import type { Ground } from "./ground.ts";
import { DOOR, solidAt } from "./ground.ts";
import { FULL, NOTHING, boxMeetsShape, probeMeetsShape } from "./solid-shape.ts";

/** `free(p)` of semantics.md section 4: the body at position `(x, y)` (units) overlaps nothing that blocks. */
export function isFree(ground: Ground, roomNumber: number, x: number, y: number): boolean {
  const { body, tileUnits } = ground;
  if (body.kind === "probes") return probesAreFree(ground, roomNumber, x, y);
  const reach = body.edgesCount ? 1 : 0;
  const firstX = Math.floor((x + body.left - reach) / tileUnits);
  const lastX = Math.floor((x + body.right - 1 + reach) / tileUnits);
  const firstY = Math.floor((y + body.top - reach) / tileUnits);
  const lastY = Math.floor((y + body.bottom - 1 + reach) / tileUnits);
  for (let cy = firstY; cy <= lastY; cy++) {
    for (let cx = firstX; cx <= lastX; cx++) {
      if (boxMeetsCell(ground, roomNumber, x, y, cx, cy)) return false;
    }
  }
  return true;
}

function probesAreFree(ground: Ground, roomNumber: number, x: number, y: number): boolean {
  const { probes } = ground.body;
  const { tileUnits } = ground;
  for (let i = 0; i < probes.length; i += 2) {
    const px = x + probes[i]!;
    const py = y + probes[i + 1]!;
    if (probeMeetsCell(ground, roomNumber, px, py, Math.floor(px / tileUnits), Math.floor(py / tileUnits)))
      return false;
  }
  return true;
}

/** Whether a box body at `(x, y)` overlaps what is solid in a cell that it covers or, where edges count, touches. */
function boxMeetsCell(ground: Ground, roomNumber: number, x: number, y: number, cx: number, cy: number): boolean {
  const { body, tileUnits } = ground;
  const solid = solidAt(ground, roomNumber, cx, cy);
  if (solid === NOTHING) return false;
  if (solid === FULL || solid >= DOOR) return true;
  const left = x - cx * tileUnits;
  const top = y - cy * tileUnits;
  return boxMeetsShape(
    ground.shapes[solid]!,
    left + body.left,
    top + body.top,
    left + body.right,
    top + body.bottom,
    body.edgesCount,
  );
}

function probeMeetsCell(ground: Ground, roomNumber: number, px: number, py: number, cx: number, cy: number): boolean {
  const solid = solidAt(ground, roomNumber, cx, cy);
  if (solid === NOTHING) return false;
  if (solid === FULL || solid >= DOOR) return true;
  return probeMeetsShape(ground.shapes[solid]!, px - cx * ground.tileUnits, py - cy * ground.tileUnits);
}

/**
 * Every cell that the body at `(x, y)` (units) has to do with, row by row: those it covers or, where edges count,
 * touches; for probes the cells that contain one. Slow and allocating: for showing, not for stepping.
 */
export function cellsOfBody(
  ground: Pick<Ground, "body" | "tileUnits">,
  x: number,
  y: number,
): { readonly cx: number; readonly cy: number }[] {
  const { body, tileUnits } = ground;
  const cells = new Map<string, { cx: number; cy: number }>();
  const add = (cx: number, cy: number) => cells.set(`${cy},${cx}`, { cx, cy });
  if (body.kind === "probes") {
    for (let i = 0; i < body.probes.length; i += 2) {
      add(Math.floor((x + body.probes[i]!) / tileUnits), Math.floor((y + body.probes[i + 1]!) / tileUnits));
    }
  } else {
    const reach = body.edgesCount ? 1 : 0;
    for (let cy = Math.floor((y + body.top - reach) / tileUnits); cy * tileUnits < y + body.bottom + reach; cy++) {
      for (let cx = Math.floor((x + body.left - reach) / tileUnits); cx * tileUnits < x + body.right + reach; cx++)
        add(cx, cy);
    }
  }
  return [...cells.values()].sort((a, b) => a.cy - b.cy || a.cx - b.cx);
}
