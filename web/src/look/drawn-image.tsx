/** What a small picture was drawn as, by the name of what it shows. */
export type DrawnPictures = Map<string, string>;

/** More pictures than are on the screen at once; the oldest goes. */
const MOST_KEPT = 2000;

interface Props {
  readonly className: string;
  /** Screen px of a side. */
  readonly size: number;
  /** What it shows: the same name is the same picture. */
  readonly name: string;
  /** Where pictures that were drawn already are kept, for as long as their art stays the same. */
  readonly kept: DrawnPictures;
  readonly draw: (c: CanvasRenderingContext2D) => void;
}

/**
 * A small picture drawn by code, shown as an image: each canvas of a page is a layer that is put together anew with every
 * frame, and a world has dozens of tiles.
 */
export function DrawnImage({ className, size, name, kept, draw }: Props) {
  const key = `${size} ${name}`;
  let src = kept.get(key);
  if (src === undefined) {
    src = drawn(size, draw);
    kept.set(key, src);
    for (const old of kept.keys()) if (kept.size > MOST_KEPT) kept.delete(old);
  }
  return (
    <img
      className={`drawn ${className}`}
      src={src}
      width={size}
      height={size}
      alt=""
      decoding="sync"
      draggable={false}
    />
  );
}

function drawn(size: number, draw: (c: CanvasRenderingContext2D) => void): string {
  const canvas = document.createElement("canvas");
  canvas.width = size;
  canvas.height = size;
  const c = canvas.getContext("2d")!;
  c.imageSmoothingEnabled = false;
  draw(c);
  return canvas.toDataURL();
}
