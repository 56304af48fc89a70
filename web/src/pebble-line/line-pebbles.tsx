import { session } from "../page-session.ts";
import type { Verdict } from "@keen-pebble/core/check";
import { useRef, useState } from "react";
import { Pebble } from "../look/pebble.tsx";
import { useBench } from "../use-session.ts";
import { CHECKS_Y } from "./draw-lanes.ts";
import type { LineScale } from "./line-scale.ts";
import { frameAt, frameX, isOnLine } from "./line-scale.ts";

/** Pointers that go less far only press. */
const DRAG_PX = 4;

/** A pebble for each check, where it is decided; one that names a frame is dragged to another. */
export function LinePebbles({
  verdicts,
  scale,
  lane,
}: {
  readonly verdicts: readonly Verdict[];
  readonly scale: LineScale;
  readonly lane: React.RefObject<HTMLDivElement | null>;
}) {
  const [named, setNamed] = useState<number | null>(null);
  const checks = useBench((state) => state.parsed?.checks ?? null);
  const drag = useRef<{ readonly at: number; readonly x: number; readonly stroke: string; moved: boolean } | null>(
    null,
  );
  // Pebbles at one place are laid beside each other.
  const taken: number[] = [];
  const places = verdicts.map((verdict) => {
    let x = frameX(scale, verdict.frame);
    if (!isOnLine(scale, verdict.frame)) return x;
    while (taken.some((other) => Math.abs(other - x) < 13)) x -= 13;
    taken.push(x);
    return x;
  });
  const shown = named === null ? null : verdicts[named];
  /** The log's check that a pebble stands for: laws and `until` lines have none of their own. */
  const own = (i: number) => (checks !== null && i < checks.length && verdicts[i]?.law !== true ? checks[i]! : null);
  const frameOf = (i: number): number | null => {
    const when = own(i)?.when;
    return when !== undefined && "frame" in when ? when.frame : null;
  };
  const press = (event: React.KeyboardEvent, i: number): void => {
    const check = own(i);
    if (check === null) return;
    const frame = frameOf(i);
    if (event.key === "Delete" || event.key === "Backspace") session.checks.removeCheck(i);
    else if (event.key === "F2" || event.key === "e") session.checks.beginCheck(i);
    else if (event.altKey && frame !== null && (event.key === "ArrowLeft" || event.key === "ArrowRight"))
      session.checks.moveCheck(
        i,
        frame + (event.key === "ArrowLeft" ? -1 : 1) * (event.shiftKey ? 10 : 1),
        `pebble ${i}`,
      );
    else return;
    event.preventDefault();
    event.stopPropagation();
  };
  return (
    <>
      {verdicts.map(
        (verdict, i) =>
          isOnLine(scale, verdict.frame) && (
            <button
              key={`${i} ${verdict.law ? verdict.check : ""}`}
              type="button"
              className={`lane-pebble${frameOf(i) === null ? "" : " movable"}`}
              style={{ left: places[i]! - 8, top: CHECKS_Y - 8 }}
              aria-label={`${verdict.verdict === "pass" ? "passes" : verdict.verdict === "fail" ? "fails" : "not reached"} at frame ${verdict.frame}: ${verdict.law ? "law " : ""}${verdict.check}${verdict.seen === null ? "" : `; seen: ${verdict.seen}`}`}
              aria-keyshortcuts={own(i) === null ? undefined : "Delete E Alt+ArrowLeft Alt+ArrowRight"}
              onPointerDown={(event) => {
                if (event.button !== 0 || frameOf(i) === null) return;
                event.currentTarget.setPointerCapture(event.pointerId);
                drag.current = { at: i, x: event.clientX, stroke: crypto.randomUUID(), moved: false };
              }}
              onPointerMove={(event) => {
                const { current } = drag;
                if (current?.at !== i || (!current.moved && Math.abs(event.clientX - current.x) < DRAG_PX)) return;
                current.moved = true;
                const frame = frameAt(scale, event.clientX - lane.current!.getBoundingClientRect().left);
                if (frame !== frameOf(i)) session.checks.moveCheck(i, frame, current.stroke);
              }}
              onPointerUp={() => {
                // The click that follows a drag jumps nowhere.
                if (drag.current?.moved) requestAnimationFrame(() => (drag.current = null));
                else drag.current = null;
              }}
              onClick={() => {
                if (drag.current?.moved) return;
                session.playing.pause();
                session.playing.showFrame(verdict.frame);
              }}
              onDoubleClick={() => own(i) !== null && session.checks.beginCheck(i)}
              onKeyDown={(event) => press(event, i)}
              onMouseEnter={() => setNamed(i)}
              onMouseLeave={() => setNamed(null)}
              onFocus={() => setNamed(i)}
              onBlur={() => setNamed(null)}
            >
              <Pebble kind={verdict.verdict} radius={6} label={null} />
            </button>
          ),
      )}
      {shown && (
        <div
          className={`lane-name ${shown.verdict}`}
          style={
            places[named!]! > scale.left + scale.width / 2
              ? { right: `calc(100% - ${places[named!]! - 12}px)` }
              : { left: places[named!]! + 12 }
          }
          aria-hidden="true"
        >
          {shown.law && "law "}
          {shown.check}
          {shown.seen !== null && `: ${shown.seen}`}
        </div>
      )}
    </>
  );
}
