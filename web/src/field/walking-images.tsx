import type { Facing, World } from "@keen-pebble/core/world";
import { useEffect, useState } from "react";
import { WalkerImage } from "./walker-image.tsx";

const SHOWN: readonly Facing[] = ["down", "left", "right", "up"];
/** How long an image stands, in ms: as at 8 px an image and a px a frame. */
const STANDS = 133;

/** The walker in four facings, walking; standing still where motion is not wanted. */
export function WalkingImages({ world }: { readonly world: World }) {
  const [pose, setPose] = useState(0);
  useEffect(() => {
    if (matchMedia("(prefers-reduced-motion: reduce)").matches) return;
    const timer = setInterval(() => setPose((now) => now + 1), STANDS);
    return () => clearInterval(timer);
  }, []);
  return (
    <div className="walking-images" role="img" aria-label="The walker, walking down, left, right and up">
      {SHOWN.map((facing) => (
        <WalkerImage key={facing} world={world} facing={facing} pose={pose} size={48} />
      ))}
    </div>
  );
}
