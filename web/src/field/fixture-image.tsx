import { useEffect, useRef } from "react";
import type { FixtureLook } from "./fixture-art.ts";
import { fixturePicture } from "./fixture-art.ts";

/** A fixture's picture by itself. */
export function FixtureImage({ look, size }: { readonly look: FixtureLook; readonly size: number }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const c = canvas.current!.getContext("2d")!;
    c.imageSmoothingEnabled = false;
    c.clearRect(0, 0, size, size);
    c.drawImage(fixturePicture(look), 0, 0, size, size);
  });
  return <canvas ref={canvas} className="fixture-image" width={size} height={size} aria-hidden="true" />;
}
