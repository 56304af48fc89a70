import { session } from "../page-session.ts";
import type { TraceRows } from "@keen-pebble/core/simulate";
import { useEffect, useMemo, useRef, useState } from "react";
import { onPaletteChange, palette } from "../look/palette.ts";
import type { BenchState } from "../session/bench/bench-store.ts";
import { useBench, useProject } from "../use-session.ts";
import type { World } from "@keen-pebble/core/world";
import { PHASE_SAYS, allActors } from "@keen-pebble/core/world";
import type { PhasesOf } from "./draw-phases.ts";
import { drawLanes } from "./draw-lanes.ts";
import { WholeLine, useLineKeys, usePart } from "./line-part.tsx";
import { LinePebbles } from "./line-pebbles.tsx";
import type { LineScale } from "./line-scale.ts";
import { frameAt, frameX, isOnLine, lineScale } from "./line-scale.ts";
import type { Near } from "./near-marks.ts";
import { eventsNear, untilEnds, untilNear } from "./near-marks.ts";

const HEIGHT = 119;

/** While one walks, the line has room for at least this many frames. */
const LEAST_WALK_FRAMES = 240;

/** The line of frames: ruler, lanes, pebbles and the playhead. Dragging on it scrubs the field. */
export function Lanes() {
  const box = useRef<HTMLDivElement>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const width = useWidth(box);
  const rows = useBench((state) => state.walk?.rows ?? state.run?.rows ?? null);
  const walking = useBench((state) => state.walk !== null);
  const verdicts = useBench((state) => (state.walk === null ? (state.run?.verdicts ?? null) : null));
  const rooms = useProject((state) => state.project?.world.rooms ?? null);
  const tileSize = useProject((state) => state.project?.world.tileSize ?? 1);
  const [near, setNear] = useState<Near | null>(null);
  const fixtures = useProject((state) => state.project?.world ?? null);
  const end = rows === null ? 0 : rows.count - 1;
  const frames = walking ? Math.max(LEAST_WALK_FRAMES, end) : end;
  const log = useBench((state) => state.log);
  const { part, look } = usePart(log, frames, walking);
  const scale = useMemo(() => lineScale(width, frames, part), [width, frames, part]);
  useLineKeys(box, scale, frames, look);
  const parsed = useBench((state) => (state.walk === null ? state.parsed : null));
  const lineEnds = useBench((state) => (state.walk === null ? (state.run?.lineEnds ?? null) : null));
  const untils = useMemo(() => untilEnds(parsed, lineEnds), [parsed, lineEnds]);
  const apart = useBench((state) => (state.walk === null ? (state.gameGhost?.apart ?? null) : null));
  const phases = useShownPhases(fixtures);
  const names = rooms?.map((room) => room.name).join("\n") ?? "";

  useDrawnLanes(canvas, width, scale, rows === null ? null : { rows, tileSize, names, untils, apart, phases });

  const scrub = (event: React.PointerEvent): void => {
    if (walking || (event.buttons & 1) === 0) return;
    session.playing.showFrame(frameAt(scale, event.clientX - box.current!.getBoundingClientRect().left));
  };

  return (
    <div
      ref={box}
      className="lanes"
      onPointerDown={(event) => {
        if (event.button !== 0 || (event.target as Element).closest("button")) return;
        event.currentTarget.setPointerCapture(event.pointerId);
        session.playing.pause();
        scrub(event);
      }}
      onPointerMove={(event) => {
        scrub(event);
        const { left, top } = box.current!.getBoundingClientRect();
        const [x, y] = [event.clientX - left, event.clientY - top];
        setNear(
          rows === null || fixtures === null
            ? null
            : (eventsNear(rows, fixtures, scale, x, y) ?? untilNear(untils, scale, x, y)),
        );
      }}
      onPointerLeave={() => setNear(null)}
    >
      <canvas ref={canvas} aria-hidden="true" style={{ width, height: HEIGHT }} />
      {rows === null && <NoRun />}
      {near !== null && <NearName near={near} scale={scale} />}
      {verdicts && <LinePebbles verdicts={verdicts} scale={scale} lane={box} />}
      {part !== null && rows !== null && <WholeLine part={part} frames={frames} onAll={() => look(null)} />}
      {rows !== null && <Differs scale={scale} />}
      {rows !== null && <Playhead scale={scale} />}
    </div>
  );
}

/** The phases of the actor that is chosen in the Kit; null where none is. */
function useShownPhases(world: World | null): PhasesOf | null {
  const shownActor = useBench((state) => (state.kit === "actors" ? state.actor : null));
  return useMemo((): PhasesOf | null => {
    const all = world === null ? [] : allActors(world);
    const actor = all.findIndex(({ id }) => id === shownActor);
    return actor < 0 ? null : { actor, phases: all[actor]!.plan.map((phase) => PHASE_SAYS[phase.do]) };
  }, [world, shownActor]);
}

/** Width of an element in px, as it is now. */
function useWidth(box: React.RefObject<HTMLElement | null>): number {
  const [width, setWidth] = useState(960);
  useEffect(() => {
    const sizes = new ResizeObserver(([entry]) => setWidth(Math.round(entry!.contentRect.width)));
    sizes.observe(box.current!);
    return () => sizes.disconnect();
  }, []);
  return width;
}

interface DrawnLanes {
  readonly rows: TraceRows;
  readonly tileSize: number;
  /** Names of the rooms, a line each. */
  readonly names: string;
  readonly untils: ReturnType<typeof untilEnds>;
  readonly apart: Float32Array | null;
  readonly phases: PhasesOf | null;
}

/** Draws the lanes whenever something of them is another. */
function useDrawnLanes(
  canvas: React.RefObject<HTMLCanvasElement | null>,
  width: number,
  scale: LineScale,
  lanes: DrawnLanes | null,
): void {
  const { rows, tileSize, names, untils, apart, phases } = lanes ?? {};
  const growing = useBench((state) => state.walk?.phase === "walking");
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
      if (lanes !== null)
        drawLanes(
          c,
          scale,
          {
            rows: lanes.rows,
            growing,
            tileSize: lanes.tileSize,
            roomNames: lanes.names.split("\n"),
            untils: lanes.untils,
            apart: lanes.apart,
            phases: lanes.phases,
          },
          palette(),
        );
    };
    draw();
    if (document.fonts.status !== "loaded") void document.fonts.ready.then(draw);
    return onPaletteChange(draw);
  }, [rows, growing, scale, tileSize, names, width, untils, apart, phases]);
}

/** What the mark under the pointer says. */
function NearName({ near, scale }: { readonly near: Near; readonly scale: LineScale }) {
  const isRight = near.x > scale.left + scale.width / 2;
  return (
    <div
      className="lane-name event"
      style={isRight ? { right: `calc(100% - ${near.x - 8}px)` } : { left: near.x + 8 }}
      aria-hidden="true"
    >
      {near.frame}: {near.text}
    </div>
  );
}

function NoRun() {
  const refused = useBench((state) => state.refused);
  const log = useBench((state) => state.log);
  if (refused !== null)
    return <p className="lanes-empty attention">This log cannot be run: {refused}. Its text is kept as it is.</p>;
  return log === null ? (
    <p className="lanes-empty">
      No log yet. Press R, walk through the room, and keep the walk: it shows here, frame by frame.
    </p>
  ) : null;
}

/** The first frame in which what lies beside is otherwise: another run, or a game's walk. */
function firstDiffering({ beside, gameGhost }: BenchState): number | null {
  return beside !== null ? beside.differs : (gameGhost?.conformance.first?.frame ?? null);
}

/** Marks the first frame in which another rule set's run differs. */
function Differs({ scale }: { readonly scale: LineScale }) {
  const frame = useBench((state) => (state.walk === null ? firstDiffering(state) : null));
  if (frame === null || !isOnLine(scale, frame)) return null;
  return (
    <button
      type="button"
      className="differs-mark"
      style={{ left: Math.round(frameX(scale, frame)) }}
      aria-label={`First differs at frame ${frame}`}
      title={`First differs at frame ${frame}`}
      onClick={() => {
        session.playing.pause();
        session.playing.showFrame(frame);
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
      // It may be told once more while it is taken off the page.
      if (head.current === null || text.current === null) return;
      const { frame } = session.benchStore.getState();
      head.current.style.transform = `translateX(${Math.round(frameX(scale, frame))}px)`;
      text.current.textContent = String(frame);
    };
    follow();
    return session.benchStore.subscribe(follow);
  }, [scale]);
  return (
    <div ref={head} className="playhead" aria-hidden="true">
      <span ref={text} />
    </div>
  );
}
