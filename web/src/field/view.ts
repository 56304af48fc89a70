/** How the field looks at a room: screen px a world px, and where the room's corner lies on the canvas. */
export interface View {
  readonly zoom: number;
  readonly left: number;
  readonly top: number;
}

/** Zooms of the field: whole numbers, so that every pixel is a square; below 1 the halves. */
export const ZOOMS: readonly number[] = [1 / 8, 1 / 4, 1 / 2, 1, 2, 3, 4, 5, 6, 8, 10, 12, 16];

/** Room for the cell numbers at the top and on the left. */
export const RULER = 28;

/** Shows a whole room as large as it fits, in the middle. Sizes of the room in world px, of the canvas in screen px. */
export function fitView(width: number, height: number, canvasWidth: number, canvasHeight: number): View {
  const roomWidth = canvasWidth - 2 * RULER;
  const roomHeight = canvasHeight - 2 * RULER;
  const zoom = [...ZOOMS].reverse().find((z) => width * z <= roomWidth && height * z <= roomHeight) ?? ZOOMS[0]!;
  return {
    zoom,
    left: Math.round((canvasWidth - width * zoom) / 2),
    top: Math.round((canvasHeight - height * zoom) / 2),
  };
}

/** The next zoom in or out, with the place under the pointer kept where it is. */
export function zoomView(view: View, direction: 1 | -1, x: number, y: number): View {
  const at = ZOOMS.indexOf(view.zoom);
  const zoom = ZOOMS[Math.max(0, Math.min(ZOOMS.length - 1, at + direction))]!;
  const ratio = zoom / view.zoom;
  return { zoom, left: Math.round(x - (x - view.left) * ratio), top: Math.round(y - (y - view.top) * ratio) };
}
