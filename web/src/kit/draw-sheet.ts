import type { Pair, Sheet } from "@keen-pebble/core/world";

/** Px of the Kit that a sheet may take across. */
const MOST_SHOWN = 232;

/** How many px of the screen a px of a sheet takes, so that it fits the Kit. */
export const sheetZoom = ({ width }: ImageBitmap): number =>
  width <= MOST_SHOWN ? Math.floor(MOST_SHOWN / width) : MOST_SHOWN / width;

/** Draws a sheet with a rectangle of its places framed. */
export function drawSheet(
  canvas: HTMLCanvasElement,
  image: ImageBitmap,
  sheet: Sheet,
  framed: { readonly at: Pair; readonly size: Pair } | null,
  zoom: number,
): void {
  const c = canvas.getContext("2d")!;
  c.imageSmoothingEnabled = false;
  c.clearRect(0, 0, canvas.width, canvas.height);
  c.drawImage(image, 0, 0, image.width * zoom, image.height * zoom);
  if (framed === null) return;
  const at = (n: number): number => (sheet.margin + n * (sheet.tile + sheet.spacing)) * zoom;
  const side = (n: number): number => (n * sheet.tile + (n - 1) * sheet.spacing) * zoom;
  const [column, row] = framed.at;
  const [across, down] = framed.size;
  c.lineWidth = 2;
  for (const [colour, grow] of [
    ["#fffdf6", 1],
    ["#0f6f6b", -1],
  ] as const) {
    c.strokeStyle = colour;
    c.strokeRect(at(column) - grow, at(row) - grow, side(across) + 2 * grow, side(down) + 2 * grow);
  }
}
