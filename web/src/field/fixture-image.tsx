import type { DrawnPictures } from "../look/drawn-image.tsx";
import { DrawnImage } from "../look/drawn-image.tsx";
import type { FixtureLook } from "./fixture-drawing.ts";
import { fixturePicture, lookName } from "./fixture-art.ts";

/** Fixtures are drawn by code alone: what was drawn once stays. */
const PICTURES: DrawnPictures = new Map();

/** A fixture's picture by itself. */
export function FixtureImage({ look, size }: { readonly look: FixtureLook; readonly size: number }) {
  return (
    <DrawnImage
      className="fixture-image"
      size={size}
      name={lookName(look)}
      kept={PICTURES}
      draw={(c) => c.drawImage(fixturePicture(look), 0, 0, size, size)}
    />
  );
}
