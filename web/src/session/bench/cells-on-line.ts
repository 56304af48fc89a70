/** Every cell that a line between two cells goes through, both ends included; neighbours share a side or a corner. */
export function cellsOnLine(fromX: number, fromY: number, toX: number, toY: number): [number, number][] {
  const dx = Math.abs(toX - fromX);
  const dy = Math.abs(toY - fromY);
  const stepX = Math.sign(toX - fromX);
  const stepY = Math.sign(toY - fromY);
  const cells: [number, number][] = [];
  let x = fromX;
  let y = fromY;
  let error = dx - dy;
  for (;;) {
    cells.push([x, y]);
    if (x === toX && y === toY) return cells;
    const doubled = 2 * error;
    if (doubled > -dy) {
      error -= dy;
      x += stepX;
    }
    if (doubled < dx) {
      error += dx;
      y += stepY;
    }
  }
}
