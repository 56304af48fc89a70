import type { Tile } from "@keen-pebble/core";
import { useEffect, useRef } from "react";
import { TileArt } from "../field/tile-art.ts";

const arts = new WeakMap<readonly Tile[], TileArt>();

function artOf(tiles: readonly Tile[], tileSize: number): TileArt {
  const known = arts.get(tiles);
  if (known) return known;
  const made = new TileArt(tiles, tileSize);
  arts.set(tiles, made);
  return made;
}

/** A tile's picture, `size` screen px wide. */
export function TileSwatch({ tiles, tileSize, tile, size }: { readonly tiles: readonly Tile[]; readonly tileSize: number; readonly tile: number; readonly size: number }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const c = canvas.current!.getContext("2d")!;
    c.imageSmoothingEnabled = false;
    c.clearRect(0, 0, size, size);
    c.drawImage(artOf(tiles, tileSize).picture(tile, 1), 0, 0, size, size);
  }, [tiles, tileSize, tile, size]);
  return <canvas ref={canvas} className="swatch" width={size} height={size} aria-hidden="true" />;
}
