import { session } from "../page-session.ts";
import type { FixtureKindName } from "@keen-pebble/core/world";
import { useEffect, useRef, useState } from "react";
import Form from "react-bootstrap/Form";
import { IconButton } from "../look/icon-button.tsx";
import type { IconName } from "../look/icon.tsx";
import type { Overlay } from "../session/bench/bench-store.ts";
import { PENS } from "../session/bench/bench-store.ts";
import { KIND_TYPE } from "../session/bench/placing.ts";
import { useBench, useProject } from "../use-session.ts";
import { useStore } from "zustand";
import { FieldHand } from "./field-hand.ts";
import { fieldShot } from "./field-shot.ts";
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

/** What has the keyboard after a click is the field again: Space plays. Who is here by keyboard stays. */
const backToField = (event: React.MouseEvent): void => {
  if (event.detail > 0) session.asked.focusField.ask();
};

function ToolRow() {
  const tool = useBench((state) => state.tool);
  const overlays = useBench((state) => state.overlays);
  const walking = useBench((state) => state.walk?.phase === "walking");
  const pen = useBench((state) => state.pen);
  const brush = useBench((state) => state.brush);
  const boxFrame = useBench((state) => state.boxFrame);
  const sound = useStore(session.sound.store, (state) => state.on);
  return (
    <div className="tools" onClick={backToField}>
      <IconButton command={session.commands.bench.walk} icon="walk" variant="plain" pressed={walking} />
      <span className="bar" />
      {PENS.map((each) => (
        <IconButton
          key={each}
          command={session.commands.bench[each]}
          icon={each === "box" && boxFrame ? "boxFrame" : each}
          variant="plain"
          pressed={tool === "paint" && pen === each && !walking}
          badge={each === "brush" || (each === "box" && boxFrame) ? String(brush) : undefined}
        />
      ))}
      <IconButton
        command={session.commands.bench.wall}
        icon="wall"
        variant="plain"
        pressed={tool === "wall" && !walking}
      />
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
      <RoomChoice walking={walking} />
      <IconButton command={session.commands.bench.sound} icon="sound" pressed={sound} />
      <IconButton command={session.commands.bench.fit} icon="fit" variant="plain" />
    </div>
  );
}

function RoomChoice({ walking }: { readonly walking: boolean }) {
  const room = useBench((state) => state.room);
  const rooms = useProject((state) => state.project?.world.rooms ?? null);
  return (
    <Form.Select
      className="room-choice"
      aria-label="Room"
      value={room}
      disabled={walking}
      onChange={(event) => {
        session.shownRoom.chooseRoom(event.target.value);
        session.asked.focusField.ask();
      }}
    >
      {rooms?.map((r) => (
        <option key={r.id} value={r.id}>
          {r.name}
        </option>
      ))}
    </Form.Select>
  );
}

function FieldCanvas() {
  const canvas = useRef<HTMLCanvasElement>(null);
  const painter = usePainter(canvas);
  const [panning, setPanning] = useState(false);
  const [hand] = useState(() => new FieldHand(() => painter.current, setPanning));
  const tool = useBench((state) => state.tool);
  return (
    <canvas
      ref={canvas}
      className={`field-canvas ${panning ? "panning" : tool}`}
      tabIndex={0}
      role="img"
      aria-label="The room; Ctrl and the arrow keys move a cursor over its cells, Enter uses the tool there"
      onPointerDown={hand.down}
      onPointerMove={hand.move}
      onPointerUp={hand.up}
      onPointerCancel={hand.up}
      onPointerLeave={() => session.shownRoom.pointAt(null)}
      onDragOver={(event) => {
        if (event.dataTransfer.types.includes(KIND_TYPE)) event.preventDefault();
      }}
      onDrop={(event) => {
        const kind = event.dataTransfer.getData(KIND_TYPE);
        const cell = hand.cellAt(event);
        if (kind === "" || cell === null || session.benchStore.getState().walk !== null) return;
        event.preventDefault();
        session.placing.takeUpKind(kind as FixtureKindName);
        session.placing.beginPlacing(cell, false);
        session.placing.finishPlacing();
      }}
      onContextMenu={(event) => {
        event.preventDefault();
        const cell = hand.cellAt(event);
        if (cell !== null && session.benchStore.getState().walk === null)
          session.walks.setDown(cell.x, cell.y, event.shiftKey);
      }}
    />
  );
}

/** Paints the field on its canvas as long as it is shown; the wheel zooms, with Shift it pans. */
function usePainter(canvas: React.RefObject<HTMLCanvasElement | null>): React.RefObject<FieldPainter | null> {
  const painter = useRef<FieldPainter | null>(null);
  useEffect(() => {
    const element = canvas.current!;
    const made = new FieldPainter(element);
    painter.current = made;
    const unasked = [
      session.asked.fitRoom.answer(() => made.fit()),
      session.asked.noteFault.answer(() => session.entries.beginFault(fieldShot(element))),
      session.asked.focusField.answer(() => element.focus({ preventScroll: true })),
      session.asked.showPlace.answer((x, y) => made.show(x, y)),
    ];
    void document.fonts.ready.then(() => made.pan(0, 0));
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
      for (const end of unasked) end();
    };
  }, []);
  return painter;
}
