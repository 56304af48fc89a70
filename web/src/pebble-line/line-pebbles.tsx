import { session } from "../page-session.ts";
import type { Check, Verdict } from "@keen-pebble/core/check";
import { useRef, useState } from "react";
import { Pebble } from "../look/pebble.tsx";
import { useBench } from "../use-session.ts";
import { CHECKS_Y } from "./draw-lanes.ts";
import type { LineScale } from "./line-scale.ts";
import { frameAt, isOnLine } from "./line-scale.ts";
import type { PebblePlace } from "./pebble-places.ts";
import { pebblePlaces } from "./pebble-places.ts";

/** Pointers that go less far only press. */
const DRAG_PX = 4;

interface Props {
  readonly verdicts: readonly Verdict[];
  readonly scale: LineScale;
  readonly lane: React.RefObject<HTMLDivElement | null>;
}

/** A pebble for each check, where it is decided; one that names a frame is dragged to another. */
export function LinePebbles({ verdicts, scale, lane }: Props) {
  const [named, setNamed] = useState<number | null>(null);
  const checks = useBench((state) => state.parsed?.checks ?? null);
  const open = named === null ? null : (verdicts[named]?.frame ?? null);
  const places = pebblePlaces(verdicts, scale, open);
  const shown = named === null ? null : verdicts[named];
  /** The log's check that a pebble stands for: laws and `until` lines have none of their own. */
  const own = (i: number): Check | null =>
    checks !== null && i < checks.length && verdicts[i]?.law !== true ? checks[i]! : null;
  return (
    <>
      {verdicts.map(
        (verdict, i) =>
          isOnLine(scale, verdict.frame) && (
            <LanePebble
              key={`${i} ${verdict.law ? verdict.check : ""}`}
              verdict={verdict}
              number={i}
              check={own(i)}
              place={places[i]!}
              frameUnder={(x) => frameAt(scale, x - lane.current!.getBoundingClientRect().left)}
              onNamed={(isNamed) => setNamed(isNamed ? i : null)}
            />
          ),
      )}
      {shown && (
        <div
          className={`lane-name ${shown.verdict}`}
          style={
            places[named!]!.left > scale.left + scale.width / 2
              ? { right: `calc(100% - ${places[named!]!.left - 12}px)` }
              : { left: places[named!]!.left + 12 }
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

interface PebbleProps {
  readonly verdict: Verdict;
  readonly number: number;
  /** The log's own check that it stands for, if any. */
  readonly check: Check | null;
  readonly place: PebblePlace;
  readonly frameUnder: (clientX: number) => number;
  readonly onNamed: (isNamed: boolean) => void;
}

/** One pebble: pressed to go to its frame, dragged or stepped to move its check, typed over to change it. */
function LanePebble({ verdict, number, check, place, frameUnder, onNamed }: PebbleProps) {
  const drag = useRef<{ readonly x: number; readonly stroke: string; moved: boolean } | null>(null);
  const frame = check !== null && "frame" in check.when ? check.when.frame : null;
  return (
    <button
      type="button"
      className={`lane-pebble${frame === null ? "" : " movable"}`}
      style={{ left: place.left - 8, top: CHECKS_Y - 8, zIndex: place.above }}
      aria-label={pebbleText(verdict)}
      aria-keyshortcuts={check === null ? undefined : "Delete E Alt+ArrowLeft Alt+ArrowRight"}
      onPointerDown={(event) => {
        if (event.button !== 0 || frame === null) return;
        event.currentTarget.setPointerCapture(event.pointerId);
        drag.current = { x: event.clientX, stroke: crypto.randomUUID(), moved: false };
      }}
      onPointerMove={(event) => {
        const { current } = drag;
        if (current === null || (!current.moved && Math.abs(event.clientX - current.x) < DRAG_PX)) return;
        current.moved = true;
        const under = frameUnder(event.clientX);
        if (under !== frame) session.checks.moveCheck(number, under, current.stroke);
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
      onDoubleClick={() => check !== null && session.checks.beginCheck(number)}
      onKeyDown={(event) => check !== null && changeByKey(event, number, frame)}
      onMouseEnter={() => onNamed(true)}
      onMouseLeave={() => onNamed(false)}
      onFocus={() => onNamed(true)}
      onBlur={() => onNamed(false)}
    >
      <Pebble kind={verdict.verdict} radius={6} label={null} />
      {place.stands > 1 && <span className="stack-count">{place.stands}</span>}
    </button>
  );
}

/** What the keys do with a pebble of the log's own check. */
function changeByKey(event: React.KeyboardEvent, number: number, frame: number | null): void {
  if (event.key === "Delete" || event.key === "Backspace") session.checks.removeCheck(number);
  else if (event.key === "F2" || event.key === "e") session.checks.beginCheck(number);
  else if (event.altKey && frame !== null && (event.key === "ArrowLeft" || event.key === "ArrowRight"))
    session.checks.moveCheck(
      number,
      frame + (event.key === "ArrowLeft" ? -1 : 1) * (event.shiftKey ? 10 : 1),
      `pebble ${number}`,
    );
  else return;
  event.preventDefault();
  event.stopPropagation();
}

function pebbleText({ verdict, frame, law, check, seen }: Verdict): string {
  const said = verdict === "pass" ? "passes" : verdict === "fail" ? "fails" : "not reached";
  return `${said} at frame ${frame}: ${law ? "law " : ""}${check}${seen === null ? "" : `; seen: ${seen}`}`;
}
