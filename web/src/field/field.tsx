import { session } from "../page-session.ts";
import type { FixtureKindName } from "@keen-pebble/core/world";
import { useEffect, useRef, useState } from "react";
import Form from "react-bootstrap/Form";
import { IconButton } from "../look/icon-button.tsx";
import type { IconName } from "../look/icon.tsx";
import type { Overlay } from "../session/bench/bench-store.ts";
import { PENS } from "../session/bench/bench-store.ts";
import { KIND_TYPE } from "../session/bench/fixtures.ts";
import { useBench, useProject } from "../use-session.ts";
import type { BodyHandle } from "./body-handles.ts";
import { handleAt } from "./body-handles.ts";
import { useStore } from "zustand";
import { FieldPainter } from "./field-painter.ts";

const OVERLAY_ICONS: readonly (readonly [Overlay, IconName])[] = [
  ["grid", "grid"],
  ["solid", "solid"],
  ["clearance", "clearance"],
  ["body", "body"],
  ["velocity", "velocity"],
  ["trail", "trail"],
  ["ghost", "ghost"],
  ["camera", "camera"],
];

/** The room on its canvas, with the tools above it. */
export function Field() {
  // A walk stands still while nobody sees it.
  useEffect(() => {
    session.walks.showsField(true);
    return () => session.walks.showsField(false);
  }, []);
  return (
    <section className="field" aria-label="Field">
      <ToolRow />
      <FieldCanvas />
    </section>
  );
}

function ToolRow() {
  const tool = useBench((state) => state.tool);
  const overlays = useBench((state) => state.overlays);
  const walking = useBench((state) => state.walk?.phase === "walking");
  const pen = useBench((state) => state.pen);
  const brush = useBench((state) => state.brush);
  const room = useBench((state) => state.room);
  const rooms = useProject((state) => state.project?.world.rooms ?? null);
  const sound = useStore(session.sound.store, (state) => state.on);
  return (
    <div className="tools">
      <IconButton command={session.commands.bench.walk} icon="walk" variant="plain" pressed={walking} />
      <span className="bar" />
      {PENS.map((each) => (
        <IconButton
          key={each}
          command={session.commands.bench[each]}
          icon={each}
          variant="plain"
          pressed={tool === "paint" && pen === each && !walking}
          badge={each === "brush" ? String(brush) : undefined}
        />
      ))}
      <IconButton
        command={session.commands.bench.place}
        icon="place"
        variant="plain"
        pressed={tool === "place" && !walking}
      />
      <span className="bar" />
      {OVERLAY_ICONS.map(([name, icon]) => (
        <IconButton key={name} command={session.commands.bench[name]} icon={icon} pressed={overlays[name]} />
      ))}
      <span className="grow" />
      <Form.Select
        className="room-choice"
        aria-label="Room"
        value={room}
        disabled={walking}
        onChange={(event) => session.shownRoom.chooseRoom(event.target.value)}
      >
        {rooms?.map((r) => (
          <option key={r.id} value={r.id}>
            {r.name}
          </option>
        ))}
      </Form.Select>
      <IconButton command={session.commands.bench.sound} icon="sound" pressed={sound} />
      <IconButton command={session.commands.bench.fit} icon="fit" variant="plain" />
    </div>
  );
}

/** What the pointer is at while a button is down. */
interface Drag {
  readonly kind: "paint" | "pan" | "body" | "place";
  x: number;
  y: number;
  /** The body's corner or probe that is dragged. */
  readonly handle?: BodyHandle;
  readonly stroke?: string;
}

function FieldCanvas() {
  const canvas = useRef<HTMLCanvasElement>(null);
  const painter = useRef<FieldPainter | null>(null);
  const drag = useRef<Drag | null>(null);
  const [panning, setPanning] = useState(false);
  const tool = useBench((state) => state.tool);

  useEffect(() => {
    const made = new FieldPainter(canvas.current!);
    painter.current = made;
    const unasked = session.asked.fitRoom.answer(() => made.fit());
    void document.fonts.ready.then(() => made.pan(0, 0));
    const element = canvas.current!;
    // Not through React: its wheel listener cannot keep the page from scrolling.
    const wheel = (event: WheelEvent): void => {
      event.preventDefault();
      if (event.shiftKey) made.pan(-(event.deltaX || event.deltaY), 0);
      else made.zoom(event.deltaY < 0 ? 1 : -1, event.offsetX, event.offsetY);
    };
    element.addEventListener("wheel", wheel, { passive: false });
    return () => {
      element.removeEventListener("wheel", wheel);
      made.stop();
      unasked();
    };
  }, []);

  const cellAt = (event: React.MouseEvent): { x: number; y: number } | null => {
    const size = session.project.store.getState().project?.world.tileSize;
    if (size === undefined || painter.current === null) return null;
    const px = painter.current.roomPixel(event.nativeEvent.offsetX, event.nativeEvent.offsetY);
    return { x: Math.floor(px.x / size), y: Math.floor(px.y / size) };
  };

  const down = (event: React.PointerEvent): void => {
    // The field has the keyboard once it was clicked.
    canvas.current!.focus({ preventScroll: true });
    if (event.button === 1) {
      event.preventDefault();
      event.currentTarget.setPointerCapture(event.pointerId);
      drag.current = { kind: "pan", x: event.clientX, y: event.clientY };
      setPanning(true);
      return;
    }
    const handle =
      event.button === 0
        ? handleAt(painter.current?.handles() ?? [], event.nativeEvent.offsetX, event.nativeEvent.offsetY)
        : null;
    if (handle !== null) {
      event.currentTarget.setPointerCapture(event.pointerId);
      drag.current = { kind: "body", x: event.clientX, y: event.clientY, handle, stroke: crypto.randomUUID() };
      return;
    }
    const cell = cellAt(event);
    const state = session.benchStore.getState();
    if (event.button !== 0 || cell === null || state.walk !== null) return;
    if (event.altKey) {
      session.painting.pickTile(cell);
      return;
    }
    if (state.tool === "place") {
      event.currentTarget.setPointerCapture(event.pointerId);
      drag.current = { kind: "place", x: event.clientX, y: event.clientY };
      session.fixtures.beginPlacing(cell, event.shiftKey || event.ctrlKey);
      return;
    }
    if (state.tool !== "paint") return;
    event.currentTarget.setPointerCapture(event.pointerId);
    drag.current = { kind: "paint", ...cell };
    session.painting.beginStroke(cell);
  };

  const move = (event: React.PointerEvent): void => {
    if (painter.current !== null)
      session.shownRoom.pointAt(painter.current.roomPixel(event.nativeEvent.offsetX, event.nativeEvent.offsetY));
    const { current } = drag;
    if (current === null) return;
    if (current.kind === "pan") {
      painter.current!.pan(event.clientX - current.x, event.clientY - current.y);
      current.x = event.clientX;
      current.y = event.clientY;
      return;
    }
    if (current.kind === "body") {
      const zoom = painter.current!.zoomNow();
      const body = current.handle!.drag(
        Math.round((event.clientX - current.x) / zoom),
        Math.round((event.clientY - current.y) / zoom),
      );
      const rules = session.fixes.shownRules();
      if (rules !== null && JSON.stringify(body) !== JSON.stringify(rules.walker.body))
        session.ruleSets.changeRules(rules.id, { path: "walker.body", value: body }, current.stroke);
      return;
    }
    const cell = cellAt(event);
    if (cell === null) return;
    if (current.kind === "place") session.fixtures.movePlacing(cell);
    else session.painting.moveStroke(cell);
  };

  const up = (): void => {
    if (drag.current?.kind === "paint") session.painting.finishStroke();
    if (drag.current?.kind === "body") session.project.endStroke();
    if (drag.current?.kind === "place") session.fixtures.finishPlacing();
    drag.current = null;
    setPanning(false);
  };

  return (
    <canvas
      ref={canvas}
      className={`field-canvas ${panning ? "panning" : tool}`}
      tabIndex={0}
      role="img"
      aria-label="The room; the status line tells what is under the pointer"
      onPointerDown={down}
      onPointerMove={move}
      onPointerUp={up}
      onPointerCancel={up}
      onPointerLeave={() => session.shownRoom.pointAt(null)}
      onDragOver={(event) => {
        if (event.dataTransfer.types.includes(KIND_TYPE)) event.preventDefault();
      }}
      onDrop={(event) => {
        const kind = event.dataTransfer.getData(KIND_TYPE);
        const cell = cellAt(event);
        if (kind === "" || cell === null || session.benchStore.getState().walk !== null) return;
        event.preventDefault();
        session.fixtures.takeUpKind(kind as FixtureKindName);
        session.fixtures.beginPlacing(cell, false);
        session.fixtures.finishPlacing();
      }}
      onContextMenu={(event) => {
        event.preventDefault();
        const cell = cellAt(event);
        if (cell !== null && session.benchStore.getState().walk === null)
          session.walks.setDown(cell.x, cell.y, event.shiftKey);
      }}
    />
  );
}
