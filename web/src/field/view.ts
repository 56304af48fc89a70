/** How the field looks at a room: screen px a world px, and where the room's corner lies on the canvas. */
export interface View {
  readonly zoom: number;
  readonly left: number;
  readonly top: number;
}

/** Zooms of the field that one goes through: whole numbers, so that every pixel is a square; below 1 the halves. */
export const ZOOMS: readonly number[] = [1 / 8, 1 / 4, 1 / 2, 1, 2, 3, 4, 5, 6, 8, 10, 12, 16];

/** Room for the cell numbers at the top and on the left. */
export const RULER = 28;

/** A whole zoom is taken where it makes at least so much of the room that there is. */
const NEARLY_ALL = 0.85;

/**
 * Shows a whole room as large as it fits, in the middle: at one of the zooms, or, where that would leave much room unused,
 * with cells of as many whole screen px as fit.
 * @param width of the room in world px, `height` likewise; the canvas's are screen px
 */
export function fitView(
  width: number,
  height: number,
  canvasWidth: number,
  canvasHeight: number,
  tileSize: number,
): View {
  const most = Math.min((canvasWidth - 2 * RULER) / width, (canvasHeight - 2 * RULER) / height);
  const whole = [...ZOOMS].reverse().find((zoom) => zoom <= most) ?? ZOOMS[0]!;
  const cell = Math.floor(most * tileSize);
  const zoom = whole >= most * NEARLY_ALL || cell < 4 ? whole : Math.min(cell / tileSize, ZOOMS.at(-1)!);
  return {
    zoom,
    left: Math.round((canvasWidth - width * zoom) / 2),
    top: Math.round((canvasHeight - height * zoom) / 2),
  };
}

/** The next zoom in or out, with the place under the pointer kept where it is. */
export function zoomView(view: View, direction: 1 | -1, x: number, y: number): View {
  const zoom =
    direction > 0
      ? (ZOOMS.find((each) => each > view.zoom) ?? ZOOMS.at(-1)!)
      : ([...ZOOMS].reverse().find((each) => each < view.zoom) ?? ZOOMS[0]!);
  const ratio = zoom / view.zoom;
  return { zoom, left: Math.round(x - (x - view.left) * ratio), top: Math.round(y - (y - view.top) * ratio) };
}
