import { OPPOSITE } from "@keen-pebble/core/edit";
import { session } from "../../page-session.ts";
import type { PlanPainter } from "./plan-painter.ts";
import type { PlanSpot } from "./plan-view.ts";
import { spotAt } from "./plan-view.ts";

/** What the pointer is at while its button is down; `x` and `y` in px of the page. */
type Drag =
  | { readonly kind: "room"; readonly spot: PlanSpot; readonly x: number; readonly y: number; moved: boolean }
  | { readonly kind: "link"; readonly spot: PlanSpot }
  | { readonly kind: "start"; readonly stroke: string }
  | { readonly kind: "pan"; x: number; y: number };

/** What the pointer does on the plan: pans, moves the start, moves rooms from inside, links them from a side. */
export class PlanHand {
  private drag: Drag | null = null;

  /**
   * @param painter what the plan is painted by
   * @param onOver told what is under the pointer while no button is down
   */
  constructor(
    private readonly painter: () => PlanPainter,
    private readonly onOver: (over: "room" | "side" | "") => void,
  ) {}

  /** The room, and perhaps its side, under the pointer. */
  spot(event: React.MouseEvent): PlanSpot | null {
    const world = session.project.store.getState().project?.world;
    return world === undefined
      ? null
      : spotAt(world, this.painter().view, event.nativeEvent.offsetX, event.nativeEvent.offsetY);
  }

  readonly down = (event: React.PointerEvent): void => {
    event.currentTarget.setPointerCapture(event.pointerId);
    const [x, y] = [event.clientX, event.clientY];
    const spot = this.spot(event);
    if (event.button === 1 || spot === null) {
      this.drag = { kind: "pan", x, y };
      if (event.button === 0) session.floorplan.chooseRoomOnPlan(null);
      return;
    }
    if (event.button !== 0) return;
    const { start } = session.project.store.getState().project!.world;
    if (spot.side === null && start.room === spot.room.id && start.cell[0] === spot.cx && start.cell[1] === spot.cy) {
      this.drag = { kind: "start", stroke: crypto.randomUUID() };
      return;
    }
    session.floorplan.chooseRoomOnPlan(spot.room.id);
    this.drag = spot.side !== null ? { kind: "link", spot } : { kind: "room", spot, x, y, moved: false };
  };

  readonly move = (event: React.PointerEvent): void => {
    const { drag } = this;
    if (drag === null) {
      const spot = this.spot(event);
      this.onOver(spot === null ? "" : spot.side !== null ? "side" : "room");
    } else if (drag.kind === "start") {
      const spot = this.spot(event);
      if (spot !== null) session.worldSettings.putStart(spot.room.id, [spot.cx, spot.cy], drag.stroke);
    } else if (drag.kind === "pan") {
      const { view } = this.painter();
      this.painter().show({
        ...view,
        left: view.left + event.clientX - drag.x,
        top: view.top + event.clientY - drag.y,
      });
      drag.x = event.clientX;
      drag.y = event.clientY;
    } else if (drag.kind === "room") {
      const { cell } = this.painter().view;
      const [dx, dy] = [Math.round((event.clientX - drag.x) / cell), Math.round((event.clientY - drag.y) / cell)];
      if (dx === 0 && dy === 0 && !drag.moved) return;
      drag.moved = true;
      const { room } = drag.spot;
      session.floorplan.dragRoom(room.id, room.plan[0] + dx, room.plan[1] + dy);
    } else {
      const { room, side, at } = drag.spot;
      const { offsetX: x, offsetY: y } = event.nativeEvent;
      session.floorplan.dragLink({ room: room.id, side: side!, at, x, y });
    }
  };

  readonly up = (event: React.PointerEvent): void => {
    const { drag } = this;
    this.drag = null;
    if (drag?.kind === "room") session.floorplan.endRoomDrag();
    if (drag?.kind === "start") session.project.endStroke();
    if (drag?.kind !== "link") return;
    session.floorplan.dragLink(null);
    const there = this.spot(event);
    const { room, side, at } = drag.spot;
    if (there === null || there.side !== OPPOSITE[side!]) return;
    session.floorplan.dropLink(
      { room: room.id, side: side!, at },
      { room: there.room.id, at: there.at },
      { oneWay: event.altKey, opening: event.shiftKey },
    );
  };
}
