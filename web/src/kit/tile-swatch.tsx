import { useEffect, useRef } from "react";
import { useStore } from "zustand";
import type { ArtSource, SheetImages } from "../field/tile-art.ts";
import { TileArt } from "../field/tile-art.ts";
import { sheetStore } from "../session/sheets.ts";

let known: { readonly source: ArtSource; readonly images: SheetImages; readonly art: TileArt } | null = null;

/** The art of the world that is shown: one for all swatches, made anew when tiles, sheets or their pictures change. */
function artOf(source: ArtSource, images: SheetImages): TileArt {
  if (known === null || known.source.tiles !== source.tiles || known.source.sheets !== source.sheets || known.images !== images) known = { source, images, art: new TileArt(source, images) };
  return known.art;
}

/** A tile's picture, `size` screen px wide; `mask` picks a look of one that joins. */
export function TileSwatch({ source, tile, size, mask = -1 }: { readonly source: ArtSource; readonly tile: number; readonly size: number; readonly mask?: number }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const images = useStore(sheetStore, (state) => state.images);
  useEffect(() => {
    const c = canvas.current!.getContext("2d")!;
    c.imageSmoothingEnabled = false;
    c.clearRect(0, 0, size, size);
    c.drawImage(artOf(source, images).picture(tile, 1, mask), 0, 0, size, size);
  }, [source, tile, size, mask, images]);
  return <canvas ref={canvas} className="swatch" width={size} height={size} aria-hidden="true" />;
}
