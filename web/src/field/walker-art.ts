import type { Facing, Figure, Pair, World } from "@keen-pebble/core/world";
import { FACINGS } from "@keen-pebble/core/world";
import ownSheet from "./walker.png?no-inline";
import type { SheetImages } from "./tile-art.ts";

/** A part of a picture, and where it is drawn from the frame-square's corner; all in px. */
export interface WalkerPicture {
  readonly image: CanvasImageSource;
  readonly x: number;
  readonly y: number;
  readonly side: number;
  /** px of the world that its side takes. */
  readonly drawn: number;
  readonly left: number;
  readonly top: number;
}

type Images = NonNullable<World["figure"]>["images"];

const OWN_SIDE = 16;
const row = (y: number): Pair[] => [0, 1, 2, 3].map((x) => [x, y] as const);
/** The lamp-tender, for worlds that have no figure of their own: four directions, four images each. */
const OWN: Images = { right: row(0), down: row(1), left: row(2), up: row(3) };

let own: ImageBitmap | null = null;
const waiting = new Set<() => void>();

/** Loads the page's own walker; `listener` is told when it is there. Gives back what stops that. */
export function onWalkerLoaded(listener: () => void): () => void {
  waiting.add(listener);
  if (own === null) {
    void fetch(ownSheet)
      .then((response) => response.blob())
      .then((blob) => createImageBitmap(blob))
      .then((image) => {
        own ??= image;
        for (const each of waiting) each();
      });
  } else listener();
  return () => waiting.delete(listener);
}

/** The images of a facing, or of the nearest one that has some (formats.md section 1). */
function imagesOf(images: Images, facing: Facing): readonly Pair[] {
  const at = FACINGS.indexOf(facing);
  const near = [...FACINGS].filter((each) => (images[each]?.length ?? 0) > 0).sort((a, b) => turn(at, a) - turn(at, b));
  return near.length === 0 ? [] : images[near[0]!]!;
}

/** Eighths of a turn between two facings; of two equally far ones the horizontal counts as nearer. */
function turn(at: number, facing: Facing): number {
  const apart = Math.abs(FACINGS.indexOf(facing) - at) % 8;
  return Math.min(apart, 8 - apart) + (facing === "left" || facing === "right" ? 0 : 0.1);
}

/** The walker's picture for a facing and an image number; null while it is not loaded. */
export function walkerPicture(
  world: Pick<World, "figure" | "sheets" | "tileSize">,
  sheets: SheetImages,
  facing: Facing,
  pose: number,
): WalkerPicture | null {
  const { figure, tileSize } = world;
  if (figure !== null && sheets.has(figure.sheet)) return figurePicture(world, figure, sheets, facing, pose);
  const [x, y] = imagesOf(OWN, facing)[pose % 4]!;
  return own === null
    ? null
    : { image: own, x: x * OWN_SIDE, y: y * OWN_SIDE, side: OWN_SIDE, drawn: tileSize, left: 0, top: 0 };
}

/** A figure's picture out of its sheet; null where that is not loaded, or it has none. */
export function figurePicture(
  world: Pick<World, "sheets">,
  figure: Figure,
  sheets: SheetImages,
  facing: Facing,
  pose: number,
): WalkerPicture | null {
  const sheet = world.sheets.find(({ id }) => id === figure.sheet);
  const image = sheets.get(figure.sheet);
  if (sheet === undefined || image === undefined) return null;
  const images = imagesOf(figure.images, facing);
  if (images.length === 0) return null;
  const [x, y] = images[pose % images.length]!;
  const step = sheet.tile + sheet.spacing;
  return {
    image,
    x: sheet.margin + x * step,
    y: sheet.margin + y * step,
    side: sheet.tile,
    drawn: sheet.tile,
    left: figure.offset[0],
    top: figure.offset[1],
  };
}

/** Draws a picture with the corner of its frame-square at a place of the canvas. */
export function drawWalkerPicture(
  c: CanvasRenderingContext2D,
  { drawn, image, left, side, top, x, y }: WalkerPicture,
  atX: number,
  atY: number,
  zoom: number,
): void {
  c.imageSmoothingEnabled = false;
  c.drawImage(image, x, y, side, side, atX + left * zoom, atY + top * zoom, drawn * zoom, drawn * zoom);
}
