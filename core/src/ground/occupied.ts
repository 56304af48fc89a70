/** Column of the cell that contains the centre of the frame-square (semantics.md section 1). */
export function occupiedX(tileUnits: number, x: number): number {
  return Math.floor((x + tileUnits / 2) / tileUnits);
}

/** Row of the cell that contains the centre of the frame-square. */
export function occupiedY(tileUnits: number, y: number): number {
  return Math.floor((y + tileUnits / 2) / tileUnits);
}
