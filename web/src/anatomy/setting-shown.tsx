import type { ShownSetting } from "@keen-pebble/core/analyse";
import { settingShown } from "@keen-pebble/core/analyse";
import { FACING_DX, FACING_DY } from "@keen-pebble/core/world";
import { useEffect, useMemo, useRef } from "react";
import { palette } from "../look/palette.ts";

/** How wide each of the two pictures is, in CSS px. */
const ACROSS = 132;
/** How long the end of a walk is looked at before it begins again, in ms. */
const REST_MS = 700;
/** Slow enough to be followed: the walk is shown at so many frames a second. */
const FRAMES_A_SECOND = 30;

/** What two values of a setting come to: the real rules walk a tiny ground with each, side by side, again and again. */
export default function SettingShown({ path, value }: { readonly path: string; readonly value: unknown }) {
  const shown = useMemo(() => settingShown(path), [path]);
  if (shown === null) return null;
  return (
    <div className="setting-shown">
      {shown.map((each) => (
        <figure key={String(each.value)} className={each.value === value ? "chosen" : ""}>
          <Walk shown={each} />
          <figcaption className="mono">
            {typeof each.value === "boolean" ? (each.value ? "on" : "off") : each.value}
          </figcaption>
        </figure>
      ))}
    </div>
  );
}

function Walk({ shown }: { readonly shown: ShownSetting }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const { height, width } = shown.world.rooms[0]!;
  const scale = ACROSS / width;
  useEffect(() => {
    const c = canvas.current?.getContext("2d");
    if (!c) return;
    const last = shown.rows.count - 1;
    const draw = (frame: number): void => drawWalk(c, shown, frame, scale);
    // Who wants nothing to move sees where it ended, and the way there.
    if (window.matchMedia("(prefers-reduced-motion: reduce)").matches) {
      draw(last);
      return;
    }
    const began = performance.now();
    const round = (last * 1000) / FRAMES_A_SECOND + REST_MS;
    let asked = 0;
    const tick = (now: number): void => {
      const since = Math.max(0, now - began) % round;
      draw(Math.min(last, Math.floor((since * FRAMES_A_SECOND) / 1000)));
      asked = requestAnimationFrame(tick);
    };
    asked = requestAnimationFrame(tick);
    return () => cancelAnimationFrame(asked);
  }, [scale, shown]);
  return (
    <canvas
      ref={canvas}
      width={ACROSS}
      height={Math.round(height * scale)}
      role="img"
      aria-label={`How ${String(shown.value)} walks`}
    />
  );
}

/** Units of a px in a run. */
const UNITS = 256;

/** The ground, the way so far, and the walker with the side that it faces. */
function drawWalk(c: CanvasRenderingContext2D, { rows, world }: ShownSetting, frame: number, scale: number): void {
  const { cells, height, width } = world.rooms[0]!;
  const { accent, data, ground, ink, line } = palette();
  c.fillStyle = ground;
  c.fillRect(0, 0, width * scale, height * scale);
  c.fillStyle = line;
  for (let cell = 0; cell < cells.length; cell++)
    if (world.tiles[cells[cell]!]!.flags.includes("solid"))
      c.fillRect((cell % width) * scale, Math.floor(cell / width) * scale, scale, scale);
  const at = (units: number): number => (units / UNITS / world.tileSize) * scale;
  c.fillStyle = data;
  for (let i = 0; i < frame; i += 2) c.fillRect(at(rows.x[i]!) + scale / 2 - 1, at(rows.y[i]!) + scale / 2 - 1, 2, 2);
  const [x, y] = [at(rows.x[frame]!), at(rows.y[frame]!)];
  c.fillStyle = accent;
  c.fillRect(x + 1, y + 1, scale - 2, scale - 2);
  const facing = rows.facing[frame]!;
  const [dx, dy] = [FACING_DX[facing]!, FACING_DY[facing]!];
  c.fillStyle = ink;
  c.fillRect(x + scale / 2 - 2 + (dx * scale) / 3.2, y + scale / 2 - 2 + (dy * scale) / 3.2, 4, 4);
}
