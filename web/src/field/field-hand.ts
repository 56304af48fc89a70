import { session } from "../page-session.ts";
import type { BodyHandle } from "./body-handles.ts";
import { handleAt } from "./body-handles.ts";
import type { FieldPainter } from "./field-painter.ts";

interface Cell {
  readonly x: number;
  readonly y: number;
}

/** What the pointer is at while a button is down; `x` and `y` in px of the page. */
type Drag =
  | { readonly kind: "pan"; x: number; y: number }
  | {
      readonly kind: "body";
      readonly x: number;
      readonly y: number;
      readonly handle: BodyHandle;
      readonly stroke: string;
    }
  | { readonly kind: "place" }
  | { readonly kind: "wall" }
  | { readonly kind: "start" }
  | { readonly kind: "actor" }
  | { readonly kind: "paint" };

/** What the pointer does on the field: pans, drags the body's corners, places fixtures and actors, draws walls, paints. */
export class FieldHand {
  private drag: Drag | null = null;

  /**
   * @param painter what the field is painted by, or null while it is not there
   * @param onPan told when panning begins and when it ends
   */
  constructor(
    private readonly painter: () => FieldPainter | null,
    private readonly onPan: (isPanning: boolean) => void,
  ) {}

  /** The px of the room under the pointer, beyond the room too; null while nothing is shown. */
  private pxAt(event: React.MouseEvent): { readonly x: number; readonly y: number } | null {
    return this.painter()?.roomPixel(event.nativeEvent.offsetX, event.nativeEvent.offsetY) ?? null;
  }

  /** The cell under the pointer, beyond the room too; null while nothing is shown. */
  cellAt(event: React.MouseEvent): Cell | null {
    const size = session.project.store.getState().project?.world.tileSize;
    const px = this.pxAt(event);
    return size === undefined || px === null ? null : { x: Math.floor(px.x / size), y: Math.floor(px.y / size) };
  }

  readonly down = (event: React.PointerEvent<HTMLElement>): void => {
    // The field has the keyboard once it was clicked.
    event.currentTarget.focus({ preventScroll: true });
    this.drag = this.begin(event);
    if (this.drag === null) return;
    event.currentTarget.setPointerCapture(event.pointerId);
    if (this.drag.kind === "pan") this.onPan(true);
  };

  private begin(event: React.PointerEvent): Drag | null {
    const [x, y] = [event.clientX, event.clientY];
    if (event.button === 1) {
      event.preventDefault();
      return { kind: "pan", x, y };
    }
    if (event.button !== 0) return null;
    const handle = handleAt(this.painter()?.handles() ?? [], event.nativeEvent.offsetX, event.nativeEvent.offsetY);
    if (handle !== null) return { kind: "body", x, y, handle, stroke: crypto.randomUUID() };
    const cell = this.cellAt(event);
    const { walk, tool } = session.benchStore.getState();
    if (cell === null || walk !== null) return null;
    if (event.altKey) {
      session.painting.pickTile(cell);
      return null;
    }
    if (session.benchStore.getState().kit === "world" && session.worldSettings.beginDrag(cell))
      return { kind: "start" };
    if (tool === "look" && session.benchStore.getState().kit === "actors")
      return session.actors.down(cell) ? { kind: "actor" } : null;
    if (tool === "place") {
      session.placing.beginPlacing(cell, event.shiftKey || event.ctrlKey);
      return { kind: "place" };
    }
    if (tool === "wall") {
      session.walls.down(this.pxAt(event)!);
      return { kind: "wall" };
    }
    if (tool !== "paint") return null;
    session.painting.beginStroke(cell);
    return { kind: "paint" };
  }

  readonly move = (event: React.PointerEvent): void => {
    const painter = this.painter();
    if (painter === null) return;
    const px = painter.roomPixel(event.nativeEvent.offsetX, event.nativeEvent.offsetY);
    session.shownRoom.pointAt(px);
    if (session.benchStore.getState().tool === "wall") session.walls.move(px);
    const { drag } = this;
    if (drag === null) return;
    if (drag.kind === "pan") {
      painter.pan(event.clientX - drag.x, event.clientY - drag.y);
      drag.x = event.clientX;
      drag.y = event.clientY;
    } else if (drag.kind === "body") {
      const zoom = painter.zoomNow();
      const body = drag.handle.drag(
        Math.round((event.clientX - drag.x) / zoom),
        Math.round((event.clientY - drag.y) / zoom),
      );
      const rules = session.fixes.shownRules();
      if (rules !== null && JSON.stringify(body) !== JSON.stringify(rules.walker.body))
        session.ruleSets.changeRules(rules.id, { path: "walker.body", value: body }, drag.stroke);
    } else if (drag.kind !== "wall") {
      const cell = this.cellAt(event);
      if (cell === null) return;
      if (drag.kind === "start") session.worldSettings.moveDrag(cell);
      else if (drag.kind === "actor") session.actors.move(cell);
      else if (drag.kind === "place") session.placing.movePlacing(cell);
      else session.painting.moveStroke(cell);
    }
  };

  readonly up = (): void => {
    const kind = this.drag?.kind;
    this.drag = null;
    if (kind === "paint") session.painting.finishStroke();
    else if (kind === "body") session.project.endStroke();
    else if (kind === "place") session.placing.finishPlacing();
    else if (kind === "wall") session.walls.up();
    else if (kind === "start") session.worldSettings.endDrag();
    else if (kind === "actor") session.actors.up();
    else if (kind === "pan") this.onPan(false);
  };
}
