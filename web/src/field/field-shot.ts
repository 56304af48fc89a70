/** How wide a picture of the field is at most, in px. */
const MOST_ACROSS = 800;

/** The field as it is drawn now, as a PNG in base64; null where the canvas gives none. */
export function fieldShot(canvas: HTMLCanvasElement): string | null {
  const scale = Math.min(1, MOST_ACROSS / canvas.width);
  const small = document.createElement("canvas");
  small.width = Math.max(1, Math.round(canvas.width * scale));
  small.height = Math.max(1, Math.round(canvas.height * scale));
  small.getContext("2d")?.drawImage(canvas, 0, 0, small.width, small.height);
  return /^data:image\/png;base64,(.+)$/.exec(small.toDataURL("image/png"))?.[1] ?? null;
}
