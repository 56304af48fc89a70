import { session } from "../../page-session.ts";
import { OPPOSITE, seamsOf } from "@keen-pebble/core/edit";
import { occupiedX, occupiedY } from "@keen-pebble/core/world";
import { useEffect, useRef, useState } from "react";
import { useNavigate } from "react-router";
import { useStore } from "zustand";
import { RoomPicture } from "../../field/room-picture.ts";
import { onPaletteChange, palette } from "../../look/palette.ts";
import { drawPlan } from "./draw-plan.ts";
import type { PlanSpot, PlanView } from "./plan-view.ts";
import { fitPlan, spotAt, zoomPlan } from "./plan-view.ts";

/** Draws the plan on its canvas whenever a store changed, once a frame of the screen at most. */
class PlanPainter {
  view: PlanView = { cell: 1, left: 0, top: 0 };
  private fitted = "";
  private asked = 0;
  private picture: RoomPicture | null = null;
  private seams: { readonly world: object; readonly value: ReturnType<typeof seamsOf> } | null = null;
  private readonly stops: (() => void)[];

  constructor(private readonly canvas: HTMLCanvasElement) {
    const ask = (): void => this.ask();
    const sizes = new ResizeObserver(() => this.fit());
    sizes.observe(canvas);
    this.stops = [
      session.benchStore.subscribe(ask),
      session.project.store.subscribe(ask),
      session.sheets.store.subscribe(ask),
      session.floorplan.store.subscribe(ask),
      onPaletteChange(ask),
      () => sizes.disconnect(),
    ];
  }

  stop(): void {
    for (const stop of this.stops) stop();
    cancelAnimationFrame(this.asked);
  }

  fit(): void {
    this.fitted = "";
    this.ask();
  }

  show(view: PlanView): void {
    this.view = view;
    this.ask();
  }

  ask(): void {
    if (this.asked !== 0) return;
    this.asked = requestAnimationFrame(() => {
      this.asked = 0;
      this.paint();
    });
  }

  private paint(): void {
    const world = session.project.store.getState().project?.world;
    const { clientWidth: width, clientHeight: height } = this.canvas;
    const c = this.canvas.getContext("2d");
    if (world === undefined || c === null || width === 0) return;
    const ratio = window.devicePixelRatio;
    const [across, down] = [Math.round(width * ratio), Math.round(height * ratio)];
    if (this.canvas.width !== across || this.canvas.height !== down) {
      this.canvas.width = across;
      this.canvas.height = down;
    }
    c.setTransform(ratio, 0, 0, ratio, 0, 0);
    const key = `${world.id}/${world.rooms.length}/${width}x${height}`;
    if (this.fitted !== key) {
      this.fitted = key;
      this.view = fitPlan(world, width, height);
    }
    this.picture ??= new RoomPicture(world);
    if (this.seams?.world !== world) this.seams = { world, value: seamsOf(world) };
    const { run, frame, explanation } = session.benchStore.getState();
    const { room, linking } = session.floorplan.store.getState();
    drawPlan(
      c,
      {
        world,
        seams: this.seams.value,
        picture: this.picture,
        images: session.sheets.store.getState().images,
        chosen: room,
        rows: run?.rows ?? null,
        frame,
        remembered: explanation?.remembered ?? null,
        linking,
      },
      this.view,
      width,
      height,
      palette(),
    );
  }
}

/** What the pointer is at while its button is down. */
type Drag =
  | { readonly kind: "room"; readonly spot: PlanSpot; readonly x: number; readonly y: number; moved: boolean }
  | { readonly kind: "link"; readonly spot: PlanSpot }
  | { readonly kind: "pan"; x: number; y: number };

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

/** The rooms of the world on a free plan: dragged from inside to move, from a side to link, double-clicked to go there. */
export function PlanCanvas() {
  const canvas = useRef<HTMLCanvasElement>(null);
  const painter = useRef<PlanPainter | null>(null);
  const drag = useRef<Drag | null>(null);
  const navigate = useNavigate();
  const [over, setOver] = useState<"room" | "side" | "">("");
  const linking = useStore(session.floorplan.store, (state) => state.linking !== null);

  useEffect(() => {
    const made = new PlanPainter(canvas.current!);
    painter.current = made;
    made.ask();
    void document.fonts.ready.then(() => made.ask());
    const element = canvas.current!;
    const wheel = (event: WheelEvent): void => {
      event.preventDefault();
      made.show(zoomPlan(made.view, event.deltaY < 0 ? 1 : -1, event.offsetX, event.offsetY));
    };
    element.addEventListener("wheel", wheel, { passive: false });
    return () => {
      element.removeEventListener("wheel", wheel);
      made.stop();
    };
  }, []);

  const spot = (event: React.MouseEvent): PlanSpot | null => {
    const world = session.project.store.getState().project?.world;
    return world === undefined
      ? null
      : spotAt(world, painter.current!.view, event.nativeEvent.offsetX, event.nativeEvent.offsetY);
  };

  const down = (event: React.PointerEvent): void => {
    event.currentTarget.setPointerCapture(event.pointerId);
    const there = spot(event);
    if (event.button === 1 || there === null) {
      drag.current = { kind: "pan", x: event.clientX, y: event.clientY };
      if (event.button === 0) session.floorplan.chooseRoomOnPlan(null);
      return;
    }
    if (event.button !== 0) return;
    session.floorplan.chooseRoomOnPlan(there.room.id);
    drag.current =
      there.side !== null
        ? { kind: "link", spot: there }
        : { kind: "room", spot: there, x: event.clientX, y: event.clientY, moved: false };
  };

  const move = (event: React.PointerEvent): void => {
    const { current } = drag;
    const { view } = painter.current!;
    if (current === null) {
      const there = spot(event);
      setOver(there === null ? "" : there.side !== null ? "side" : "room");
      return;
    }
    if (current.kind === "pan") {
      painter.current!.show({
        ...view,
        left: view.left + event.clientX - current.x,
        top: view.top + event.clientY - current.y,
      });
      current.x = event.clientX;
      current.y = event.clientY;
    } else if (current.kind === "room") {
      const [dx, dy] = [
        Math.round((event.clientX - current.x) / view.cell),
        Math.round((event.clientY - current.y) / view.cell),
      ];
      if (dx === 0 && dy === 0 && !current.moved) return;
      current.moved = true;
      const { room } = current.spot;
      session.floorplan.dragRoom(room.id, room.plan[0] + dx, room.plan[1] + dy);
    } else {
      const { room, side, at } = current.spot;
      session.floorplan.dragLink({
        room: room.id,
        side: side!,
        at,
        x: event.nativeEvent.offsetX,
        y: event.nativeEvent.offsetY,
      });
    }
  };

  const up = (event: React.PointerEvent): void => {
    const { current } = drag;
    drag.current = null;
    if (current?.kind === "room") session.floorplan.endRoomDrag();
    if (current?.kind !== "link") return;
    session.floorplan.dragLink(null);
    const there = spot(event);
    const { room, side, at } = current.spot;
    if (there === null || there.side !== OPPOSITE[side!]) return;
    session.floorplan.dropLink(
      { room: room.id, side: side!, at },
      { room: there.room.id, at: there.at },
      { oneWay: event.altKey, opening: event.shiftKey },
    );
  };

  return (
    <canvas
      ref={canvas}
      className={`plan-canvas ${linking ? "side" : over}`}
      tabIndex={0}
      role="img"
      aria-label="Plan of the rooms; the table beside it tells what each remembers"
      onPointerDown={down}
      onPointerMove={move}
      onPointerUp={up}
      onDoubleClick={(event) => {
        const there = spot(event);
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
