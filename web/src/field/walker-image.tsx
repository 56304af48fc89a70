import { session } from "../page-session.ts";
import type { Facing, World } from "@keen-pebble/core/world";
import { useEffect, useRef } from "react";
import { useStore } from "zustand";
import { onWalkerLoaded, walkerPicture } from "./walker-art.ts";

/** The walker's picture by itself. */
export function WalkerImage({
  world,
  facing,
  pose,
  size,
}: {
  readonly world: World;
  readonly facing: Facing;
  readonly pose: number;
  readonly size: number;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const images = useStore(session.sheets.store, (state) => state.images);
  useEffect(
    () =>
      onWalkerLoaded(() => {
        const c = canvas.current?.getContext("2d");
        if (!c) return;
        const picture = walkerPicture(world, images, facing, pose);
        c.clearRect(0, 0, size, size);
        c.imageSmoothingEnabled = false;
        if (picture !== null)
          c.drawImage(picture.image, picture.x, picture.y, picture.side, picture.side, 0, 0, size, size);
      }),
    [world, images, facing, pose, size],
  );
  return <canvas ref={canvas} className="walker-image" width={size} height={size} aria-hidden="true" />;
}
