import type { Tile } from "@keen-pebble/core";
import { useEffect, useRef } from "react";
import { TileArt } from "../field/tile-art.ts";

const arts = new WeakMap<readonly Tile[], TileArt>();

function artOf(tiles: readonly Tile[]): TileArt {
  const known = arts.get(tiles);
  if (known) return known;
  const made = new TileArt(tiles);
  arts.set(tiles, made);
  return made;
}

/** A tile's picture, `size` screen px wide. */
export function TileSwatch({ tiles, tile, size }: { readonly tiles: readonly Tile[]; readonly tile: number; readonly size: number }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const c = canvas.current!.getContext("2d")!;
    c.imageSmoothingEnabled = false;
    c.clearRect(0, 0, size, size);
    c.drawImage(artOf(tiles).picture(tile, 1), 0, 0, size, size);
  }, [tiles, tile, size]);
  return <canvas ref={canvas} className="swatch" width={size} height={size} aria-hidden="true" />;
}
