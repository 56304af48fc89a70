import { occupiedX, occupiedY } from "@keen-pebble/core/world";
import { useEffect, useRef, useState } from "react";
import { useNavigate } from "react-router";
import { useStore } from "zustand";
import { session } from "../../page-session.ts";
import { PlanHand } from "./plan-hand.ts";
import type { PlanShows } from "./plan-painter.ts";
import { PlanPainter } from "./plan-painter.ts";
import type { PlanSpot } from "./plan-view.ts";
import { zoomPlan } from "./plan-view.ts";

/** The first frame from the shown one on, or else the first at all, in which the walker occupies a cell; null where it never does. */
function frameIn({ room, cx, cy }: PlanSpot): number | null {
  const world = session.project.store.getState().project?.world;
  const { run, frame } = session.benchStore.getState();
  if (world === undefined || run === null) return null;
  const { rows } = run;
  const number = world.rooms.findIndex(({ id }) => id === room.id);
  const units = world.tileSize * 256;
  const isIn = (at: number): boolean =>
    rows.room[at] === number && occupiedX(units, rows.x[at]!) === cx && occupiedY(units, rows.y[at]!) === cy;
  for (let at = frame; at < rows.count; at++) if (isIn(at)) return at;
  for (let at = 0; at < frame; at++) if (isIn(at)) return at;
  return null;
}

/** The shown log's walk, and what is remembered in the shown frame. */
const FLOORPLAN: PlanShows = {
  stores: [session.benchStore, session.floorplan.store, session.planCursor.store],
  what: () => {
    const { run, frame, explanation } = session.benchStore.getState();
    const { room, linking } = session.floorplan.store.getState();
    return {
      chosen: room,
      rows: run?.rows ?? null,
      frame,
      remembered: explanation?.remembered ?? null,
      linking,
      over: null,
      cursor: session.planCursor.store.getState(),
    };
  },
};

/** The rooms of the world on a free plan: dragged from inside to move, from a side to link, double-clicked to go there. */
export function PlanCanvas() {
  const canvas = useRef<HTMLCanvasElement>(null);
  const painter = usePlanPainter(canvas, FLOORPLAN);
  const [over, setOver] = useState<"room" | "side" | "">("");
  const [hand] = useState(() => new PlanHand(() => painter.current!, setOver));
  const navigate = useNavigate();
  const linking = useStore(session.floorplan.store, (state) => state.linking !== null);
  return (
    <canvas
      ref={canvas}
      className={`plan-canvas ${linking ? "side" : over}`}
      tabIndex={0}
      role="img"
      aria-label="Plan of the rooms; Ctrl and the arrow keys move a cursor over it, Enter links sides and carries the start. The table beside it tells what each room remembers"
      onPointerDown={hand.down}
      onPointerMove={hand.move}
      onPointerUp={hand.up}
      onDoubleClick={(event) => {
        const there = hand.spot(event);
        if (there === null) return;
        const { log, frame } = session.benchStore.getState();
        const passed = frameIn(there);
        if (passed !== null) session.playing.showFrame(passed);
        session.shownRoom.chooseRoom(there.room.id);
        void navigate(
          `../bench?${new URLSearchParams({ ...(log === null ? {} : { log }), room: there.room.id, f: String(passed ?? frame) }).toString()}`,
          { relative: "path" },
        );
      }}
    />
  );
}

/** Paints the plan on its canvas as long as it is shown; the wheel zooms. */
export function usePlanPainter(
  canvas: React.RefObject<HTMLCanvasElement | null>,
  shows: PlanShows,
): React.RefObject<PlanPainter | null> {
  const painter = useRef<PlanPainter | null>(null);
  useEffect(() => {
    const element = canvas.current!;
    const made = new PlanPainter(element, shows);
    painter.current = made;
    made.ask();
    void document.fonts.ready.then(() => made.ask());
    const wheel = (event: WheelEvent): void => {
      event.preventDefault();
      made.show(zoomPlan(made.view, event.deltaY < 0 ? 1 : -1, event.offsetX, event.offsetY));
    };
    element.addEventListener("wheel", wheel, { passive: false });
    return () => {
      element.removeEventListener("wheel", wheel);
      made.stop();
    };
  }, [canvas, shows]);
  return painter;
}
