import { session } from "../page-session.ts";
import { useStore } from "zustand";
import type { ArtSource, SheetImages } from "../field/tile-art.ts";
import { TileArt } from "../field/tile-art.ts";
import type { DrawnPictures } from "../look/drawn-image.tsx";
import { DrawnImage } from "../look/drawn-image.tsx";

interface KnownArt {
  readonly source: ArtSource;
  readonly images: SheetImages;
  readonly art: TileArt;
  readonly pictures: DrawnPictures;
}

let known: KnownArt | null = null;

/** The art of the world that is shown: one for all swatches, made anew when tiles, sheets or their pictures change. */
function artOf(source: ArtSource, images: SheetImages): KnownArt {
  if (
    known === null ||
    known.source.tiles !== source.tiles ||
    known.source.sheets !== source.sheets ||
    known.images !== images
  )
    known = { source, images, art: new TileArt(source, images), pictures: new Map() };
  return known;
}

/** A tile's picture, `size` screen px wide; `mask` picks a look of one that joins. */
export function TileSwatch({
  source,
  tile,
  size,
  mask = -1,
}: {
  readonly source: ArtSource;
  readonly tile: number;
  readonly size: number;
  readonly mask?: number;
}) {
  const images = useStore(session.sheets.store, (state) => state.images);
  const { art, pictures } = artOf(source, images);
  return (
    <DrawnImage
      className="swatch"
      size={size}
      name={`${tile} ${mask}`}
      kept={pictures}
      draw={(c) => c.drawImage(art.picture(tile, 1, mask), 0, 0, size, size)}
    />
  );
}
