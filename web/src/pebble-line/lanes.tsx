import type { TraceRows, Verdict, World } from "@keen-pebble/core";
import { ARRIVE, ENTER, EVENT_NAMES, LEAVE, allFixtures } from "@keen-pebble/core";
import { useEffect, useMemo, useRef, useState } from "react";
import { onPaletteChange, palette } from "../look/palette.ts";
import { Pebble } from "../look/pebble.tsx";
import { pause, showFrame } from "../session/bench.ts";
import { benchStore } from "../session/bench-store.ts";
import { beginCheck, moveCheck, removeCheck } from "../session/checks.ts";
import { useBench, useProject } from "../session/hooks.ts";
import { lineHandle } from "../session/line-handle.ts";
import { CHECKS_Y, EVENTS_Y, drawLanes } from "./draw-lanes.ts";
import type { LineScale } from "./line-scale.ts";
import type { LineWindow } from "./line-scale.ts";
import { frameAt, frameX, isOnLine, lineScale, lineWith, movedLine, zoomedLine } from "./line-scale.ts";

const HEIGHT = 119;

/** While one walks, the line has room for at least this many frames. */
const LEAST_WALK_FRAMES = 240;

/** The line of frames: ruler, lanes, pebbles and the playhead. Dragging on it scrubs the field. */
export function Lanes() {
  const box = useRef<HTMLDivElement>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const [width, setWidth] = useState(960);
  const rows = useBench((state) => state.walk?.rows ?? state.run?.rows ?? null);
  const walking = useBench((state) => state.walk !== null);
  const verdicts = useBench((state) => (state.walk === null ? (state.run?.verdicts ?? null) : null));
  const rooms = useProject((state) => state.project?.world.rooms ?? null);
  const tileSize = useProject((state) => state.project?.world.tileSize ?? 1);
  const [near, setNear] = useState<NearEvents | null>(null);
  const fixtures = useProject((state) => state.project?.world ?? null);
  const end = rows === null ? 0 : rows.count - 1;
  const frames = walking ? Math.max(LEAST_WALK_FRAMES, end) : end;
  const log = useBench((state) => state.log);
  const { part, look } = usePart(log, frames, walking);
  const scale = useMemo(() => lineScale(width, frames, part), [width, frames, part]);
  useLineHandle(box, scale, frames, look);
  const names = rooms?.map((room) => room.name).join("\n") ?? "";

  useEffect(() => {
    const sizes = new ResizeObserver(([entry]) => setWidth(Math.round(entry!.contentRect.width)));
    sizes.observe(box.current!);
    return () => sizes.disconnect();
  }, []);

  useEffect(() => {
    const draw = (): void => {
      const { current } = canvas;
      const c = current!.getContext("2d")!;
      const ratio = window.devicePixelRatio;
      // Setting its size makes a canvas forget all it knows, fonts too: slow, and rarely needed.
      const [across, down] = [Math.round(width * ratio), HEIGHT * ratio];
      if (current!.width !== across || current!.height !== down) {
        current!.width = across;
        current!.height = down;
      }
      c.setTransform(ratio, 0, 0, ratio, 0, 0);
      c.clearRect(0, 0, width, HEIGHT);
      if (rows !== null) drawLanes(c, scale, { rows, tileSize, roomNames: names.split("\n") }, palette());
    };
    draw();
    if (document.fonts.status !== "loaded") void document.fonts.ready.then(draw);
    return onPaletteChange(draw);
  }, [rows, scale, tileSize, names, width]);

  const scrub = (event: React.PointerEvent): void => {
    if (walking || (event.buttons & 1) === 0) return;
    showFrame(frameAt(scale, event.clientX - box.current!.getBoundingClientRect().left));
  };

  return (
    <div
      ref={box}
      className="lanes"
      onPointerDown={(event) => {
        if (event.button !== 0 || (event.target as Element).closest("button")) return;
        event.currentTarget.setPointerCapture(event.pointerId);
        pause();
        scrub(event);
      }}
      onPointerMove={(event) => {
        scrub(event);
        setNear(rows === null ? null : eventsNear(rows, scale, event.clientX - box.current!.getBoundingClientRect().left, event.clientY - box.current!.getBoundingClientRect().top));
      }}
      onPointerLeave={() => setNear(null)}
    >
      <canvas ref={canvas} aria-hidden="true" style={{ width, height: HEIGHT }} />
      {rows === null && <NoRun />}
      {near !== null && fixtures !== null && (
        <div className="lane-name event" style={near.x > scale.left + scale.width / 2 ? { right: `calc(100% - ${near.x - 8}px)` } : { left: near.x + 8 }} aria-hidden="true">
          {near.frame}: {near.events.map(([kind, subject]) => eventText(fixtures, kind, subject)).join(", ")}
        </div>
      )}
      {verdicts && <Pebbles verdicts={verdicts} scale={scale} lane={box} />}
      {part !== null && rows !== null && <WholeLine part={part} frames={frames} onAll={() => look(null)} />}
      {rows !== null && <Differs scale={scale} />}
      {rows !== null && <Playhead scale={scale} />}
    </div>
  );
}

/** The part of the run that is looked at; it follows the shown frame, and is all of it for another log. */
function usePart(log: string | null, frames: number, walking: boolean) {
  const [looked, setLooked] = useState<{ readonly log: string | null; readonly part: LineWindow | null }>({ log, part: null });
  const part = looked.log !== log || walking || looked.part === null || looked.part.frames >= frames ? null : looked.part;
  useEffect(() => {
    if (part === null) return;
    return benchStore.subscribe(({ frame }, before) => {
      if (frame === before.frame) return;
      const next = lineWith(part, frames, frame);
      if (next !== part) setLooked({ log, part: next });
    });
  }, [part, frames, log]);
  return { part, look: (next: LineWindow | null) => setLooked({ log, part: next }) };
}

/** Wheel and keys come nearer to the line and move along it. */
function useLineHandle(box: React.RefObject<HTMLDivElement | null>, scale: LineScale, frames: number, look: (part: LineWindow | null) => void): void {
  useEffect(() => {
    const { current } = box;
    const part = (): LineWindow | null => (scale.frames >= frames ? null : { from: scale.from, frames: scale.frames });
    lineHandle.zoom = (factor) => look(zoomedLine(scale, frames, factor, frameX(scale, benchStore.getState().frame)));
    // React's own listener could not keep the page from zooming.
    const wheel = (event: WheelEvent): void => {
      event.preventDefault();
      const sideways = event.shiftKey || Math.abs(event.deltaX) > Math.abs(event.deltaY);
      const by = event.deltaX === 0 || (event.shiftKey && event.deltaY !== 0) ? event.deltaY : event.deltaX;
      if (sideways) look(movedLine(part(), frames, (Math.sign(by) * scale.frames) / 8));
      else look(zoomedLine(scale, frames, event.deltaY < 0 ? 1.5 : 1 / 1.5, event.clientX - current!.getBoundingClientRect().left));
    };
    current!.addEventListener("wheel", wheel, { passive: false });
    return () => current!.removeEventListener("wheel", wheel);
  });
}

/** Where the shown part lies in the whole run, and the way back to all of it. */
function WholeLine({ part, frames, onAll }: { readonly part: LineWindow; readonly frames: number; readonly onAll: () => void }) {
  const share = (n: number): string => `${(n / frames) * 100}%`;
  return (
    <button type="button" className="whole-line" title="Show the whole run" aria-label={`Frames ${part.from} to ${part.from + part.frames} of ${frames} are shown; show the whole run`} onClick={onAll}>
      <span style={{ left: share(part.from), width: share(part.frames) }} />
    </button>
  );
}

/** Events of one frame, by kind and subject, and where their mark is. */
interface NearEvents {
  readonly x: number;
  readonly frame: number;
  readonly events: readonly (readonly [number, number])[];
}

/** The events whose mark is under the pointer; arrivals have none. */
function eventsNear(rows: TraceRows, scale: LineScale, x: number, y: number): NearEvents | null {
  if (Math.abs(y - EVENTS_Y) > 7) return null;
  let best: number | null = null;
  for (let i = 0; i < rows.events.length; i += 3) {
    if (rows.events[i + 1] === ARRIVE) continue;
    const apart = Math.abs(frameX(scale, rows.events[i]!) - x);
    if (apart <= 5 && (best === null || apart < Math.abs(frameX(scale, best) - x))) best = rows.events[i]!;
  }
  if (best === null) return null;
  const events: (readonly [number, number])[] = [];
  for (let i = 0; i < rows.events.length; i += 3) if (rows.events[i] === best && rows.events[i + 1] !== ARRIVE) events.push([rows.events[i + 1]!, rows.events[i + 2]!]);
  return { x: frameX(scale, best), frame: best, events };
}

/** An event in words, such as `take crank-1`. */
function eventText(world: World, kind: number, subject: number): string {
  const name = EVENT_NAMES[kind]!;
  if (subject < 0) return name;
  return `${name} ${(kind === LEAVE || kind === ENTER ? world.rooms[subject]?.name : allFixtures(world)[subject]?.id) ?? ""}`;
}

function NoRun() {
  const refused = useBench((state) => state.refused);
  const log = useBench((state) => state.log);
  if (refused !== null) return <p className="lanes-empty attention">This log cannot be run: {refused}. Its text is kept as it is.</p>;
  return log === null ? <p className="lanes-empty">No log yet. Press R, walk through the room, and keep the walk: it shows here, frame by frame.</p> : null;
}

/** Pointers that go less far only press. */
const DRAG_PX = 4;

function Pebbles({ verdicts, scale, lane }: { readonly verdicts: readonly Verdict[]; readonly scale: LineScale; readonly lane: React.RefObject<HTMLDivElement | null> }) {
  const [named, setNamed] = useState<number | null>(null);
  const checks = useBench((state) => state.parsed?.checks ?? null);
  const drag = useRef<{ readonly at: number; readonly x: number; readonly stroke: string; moved: boolean } | null>(null);
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
    if (event.key === "Delete" || event.key === "Backspace") removeCheck(i);
    else if (event.key === "F2" || event.key === "e") beginCheck(i);
    else if (event.altKey && frame !== null && (event.key === "ArrowLeft" || event.key === "ArrowRight")) moveCheck(i, frame + (event.key === "ArrowLeft" ? -1 : 1) * (event.shiftKey ? 10 : 1), `pebble ${i}`);
    else return;
    event.preventDefault();
    event.stopPropagation();
  };
  return (
    <>
      {verdicts.map((verdict, i) => isOnLine(scale, verdict.frame) && (
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
            if (frame !== frameOf(i)) moveCheck(i, frame, current.stroke);
          }}
          onPointerUp={() => {
            // The click that follows a drag jumps nowhere.
            if (drag.current?.moved) requestAnimationFrame(() => (drag.current = null));
            else drag.current = null;
          }}
          onClick={() => {
            if (drag.current?.moved) return;
            pause();
            showFrame(verdict.frame);
          }}
          onDoubleClick={() => own(i) !== null && beginCheck(i)}
          onKeyDown={(event) => press(event, i)}
          onMouseEnter={() => setNamed(i)}
          onMouseLeave={() => setNamed(null)}
          onFocus={() => setNamed(i)}
          onBlur={() => setNamed(null)}
        >
          <Pebble kind={verdict.verdict} radius={6} label={null} />
        </button>
      ))}
      {shown && (
        <div className={`lane-name ${shown.verdict}`} style={places[named!]! > scale.left + scale.width / 2 ? { right: `calc(100% - ${places[named!]! - 12}px)` } : { left: places[named!]! + 12 }} aria-hidden="true">
          {shown.law && "law "}
          {shown.check}
          {shown.seen !== null && `: ${shown.seen}`}
        </div>
      )}
    </>
  );
}

/** Marks the first frame in which another rule set's run differs. */
function Differs({ scale }: { readonly scale: LineScale }) {
  const frame = useBench((state) => (state.walk === null ? (state.beside?.differs ?? null) : null));
  if (frame === null || !isOnLine(scale, frame)) return null;
  return (
    <button
      type="button"
      className="differs-mark"
      style={{ left: Math.round(frameX(scale, frame)) }}
      aria-label={`First differs at frame ${frame}`}
      title={`First differs at frame ${frame}`}
      onClick={() => {
        pause();
        showFrame(frame);
      }}
    />
  );
}

/** Follows the shown frame by itself: React does not draw again for a frame. */
function Playhead({ scale }: { readonly scale: LineScale }) {
  const head = useRef<HTMLDivElement>(null);
  const text = useRef<HTMLSpanElement>(null);
  useEffect(() => {
    const follow = (): void => {
      const { frame } = benchStore.getState();
      head.current!.style.transform = `translateX(${Math.round(frameX(scale, frame))}px)`;
      text.current!.textContent = String(frame);
    };
    follow();
    return benchStore.subscribe(follow);
  }, [scale]);
  return (
    <div ref={head} className="playhead" aria-hidden="true">
      <span ref={text} />
    </div>
  );
}
