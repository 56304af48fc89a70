import { session } from "../page-session.ts";
import { useEffect, useState } from "react";
import type { LineScale, LineWindow } from "./line-scale.ts";
import { frameX, lineWith, movedLine, zoomedLine } from "./line-scale.ts";

/** The part of the run that is looked at; it follows the shown frame, and is all of it for another log. */
export function usePart(log: string | null, frames: number, walking: boolean) {
  const [looked, setLooked] = useState<{ readonly log: string | null; readonly part: LineWindow | null }>({
    log,
    part: null,
  });
  const part =
    looked.log !== log || walking || looked.part === null || looked.part.frames >= frames ? null : looked.part;
  useEffect(() => {
    if (part === null) return;
    return session.benchStore.subscribe(({ frame }, before) => {
      if (frame === before.frame) return;
      const next = lineWith(part, frames, frame);
      if (next !== part) setLooked({ log, part: next });
    });
  }, [part, frames, log]);
  return { part, look: (next: LineWindow | null) => setLooked({ log, part: next }) };
}

/** Wheel and keys come nearer to the line and move along it. */
export function useLineKeys(
  box: React.RefObject<HTMLDivElement | null>,
  scale: LineScale,
  frames: number,
  look: (part: LineWindow | null) => void,
): void {
  useEffect(() => {
    const { current } = box;
    const part = (): LineWindow | null => (scale.frames >= frames ? null : { from: scale.from, frames: scale.frames });
    const unasked = session.asked.zoomLine.answer((factor) =>
      look(zoomedLine(scale, frames, factor, frameX(scale, session.benchStore.getState().frame))),
    );
    // React's own listener could not keep the page from zooming.
    const wheel = (event: WheelEvent): void => {
      event.preventDefault();
      const sideways = event.shiftKey || Math.abs(event.deltaX) > Math.abs(event.deltaY);
      const by = event.deltaX === 0 || (event.shiftKey && event.deltaY !== 0) ? event.deltaY : event.deltaX;
      if (sideways) look(movedLine(part(), frames, (Math.sign(by) * scale.frames) / 8));
      else
        look(
          zoomedLine(
            scale,
            frames,
            event.deltaY < 0 ? 1.5 : 1 / 1.5,
            event.clientX - current!.getBoundingClientRect().left,
          ),
        );
    };
    current!.addEventListener("wheel", wheel, { passive: false });
    return () => {
      unasked();
      current!.removeEventListener("wheel", wheel);
    };
  });
}

/** Where the shown part lies in the whole run, and the way back to all of it. */
export function WholeLine({
  part,
  frames,
  onAll,
}: {
  readonly part: LineWindow;
  readonly frames: number;
  readonly onAll: () => void;
}) {
  const share = (n: number): string => `${(n / frames) * 100}%`;
  return (
    <button
      type="button"
      className="whole-line"
      title="Show the whole run"
      aria-label={`Frames ${part.from} to ${part.from + part.frames} of ${frames} are shown; show the whole run`}
      onClick={onAll}
    >
      <span style={{ left: share(part.from), width: share(part.frames) }} />
    </button>
  );
}
