import { isSolidFor, rulesById } from "@keen-pebble/core/world";
import type { Room, World } from "@keen-pebble/core/world";
import { NEVER, UNDECIDED } from "@keen-pebble/core/analyse";
import { useRef } from "react";
import { palette } from "../../look/palette.ts";
import { session } from "../../page-session.ts";
import { usePlanPainter } from "../floorplan/plan-canvas.tsx";
import type { PlanShows } from "../floorplan/plan-painter.ts";
import { spotAt } from "../floorplan/plan-view.ts";
import type { PlanCursorState } from "../../session/floorplan/plan-cursor.ts";
import { farthestOf, tintOf, tintStep } from "./tints.ts";

const NO_CURSOR: PlanCursorState = { at: null, held: null };

/** The rooms tinted by the moves to the first arrival, the shown way over them. */
const REACH: PlanShows = {
  stores: [session.reach.store],
  what: () => {
    const { way, frame, shown, world } = session.reach.store.getState();
    const now = session.project.store.getState().project?.world ?? null;
    const step = shown === null ? 1 : tintStep(farthestOf(shown.answer.first));
    return {
      chosen: null,
      rows: way?.found?.played.rows ?? null,
      frame,
      remembered: null,
      linking: null,
      cursor: NO_CURSOR,
      over:
        shown === null || world === null || now === null
          ? null
          : (c, room, x, y, cell) => drawTints(c, room, shown.answer.first, world, step, { x, y, cell }),
    };
  },
};

/** Tints the cells of a room; hatches those that are free and never reached, dots those of which it is open. */
function drawTints(
  c: CanvasRenderingContext2D,
  room: Room,
  firsts: readonly Int32Array[],
  world: World,
  step: number,
  { x, y, cell }: { readonly x: number; readonly y: number; readonly cell: number },
): void {
  const number = world.rooms.findIndex(({ id }) => id === room.id);
  const first = firsts[number];
  // While a new answer is worked out, a room may have another size than in the old one.
  if (first === undefined || world.rooms[number]!.width !== room.width) return;
  const blockedBy = rulesById(world, world.activeRules)?.walker.blockedBy ?? [];
  const isSolid = world.tiles.map((tile) => isSolidFor(blockedBy, tile));
  const colours = palette();
  const never = new Path2D();
  for (let at = 0; at < Math.min(first.length, room.cells.length); at++) {
    const [left, top] = [x + (at % room.width) * cell, y + Math.floor(at / room.width) * cell];
    const n = first[at]!;
    if (n >= 0) {
      c.globalAlpha = 0.82;
      c.fillStyle = tintOf(n, step);
      c.fillRect(left, top, cell, cell);
      c.globalAlpha = 1;
    } else if (n === NEVER && !isSolid[room.cells[at]!]) {
      c.fillStyle = colours.paper;
      c.fillRect(left, top, cell, cell);
      for (let by = 0; by < 2; by++) {
        const shift = (by * cell) / 2;
        never.moveTo(left + shift, top + cell);
        never.lineTo(left + cell, top + shift);
        if (by === 0) continue;
        never.moveTo(left, top + shift);
        never.lineTo(left + shift, top);
      }
    } else if (n === UNDECIDED && !isSolid[room.cells[at]!]) {
      c.fillStyle = colours.quiet;
      c.fillRect(left + cell / 2 - 1, top + cell / 2 - 1, 2, 2);
    }
  }
  c.strokeStyle = colours.quiet;
  c.lineWidth = 1;
  c.stroke(never);
}

/** The plan of Reach: a click asks for the way to a cell, a drag moves the plan, the wheel zooms. */
export function ReachCanvas() {
  const canvas = useRef<HTMLCanvasElement>(null);
  const painter = usePlanPainter(canvas, REACH);
  const drag = useRef<{ x: number; y: number; moved: boolean } | null>(null);
  return (
    <canvas
      ref={canvas}
      className="reach-canvas"
      tabIndex={0}
      role="img"
      aria-label="Plan of the rooms, tinted by the number of moves to each cell; the list beside it tells the things"
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        drag.current = { x: event.clientX, y: event.clientY, moved: false };
      }}
      onPointerMove={(event) => {
        const { current } = drag;
        if (current === null || painter.current === null) return;
        const [dx, dy] = [event.clientX - current.x, event.clientY - current.y];
        if (!current.moved && Math.hypot(dx, dy) < 4) return;
        const { view } = painter.current;
        painter.current.show({ ...view, left: view.left + dx, top: view.top + dy });
        drag.current = { x: event.clientX, y: event.clientY, moved: true };
      }}
      onPointerUp={(event) => {
        const moved = drag.current?.moved ?? true;
        drag.current = null;
        const { world } = session.reach.store.getState();
        if (moved || world === null || painter.current === null) return;
        const spot = spotAt(world, painter.current.view, event.nativeEvent.offsetX, event.nativeEvent.offsetY);
        if (spot === null) return;
        const room = world.rooms.indexOf(spot.room);
        void session.reach.showWay(`${spot.cx},${spot.cy} in ${spot.room.name}`, {
          kind: "cell",
          room,
          cell: spot.cy * spot.room.width + spot.cx,
        });
      }}
    />
  );
}
