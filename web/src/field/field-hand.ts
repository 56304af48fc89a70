import { session } from "../page-session.ts";
import type { Cell } from "../session/bench/paint-cells.ts";
import type { BodyHandle } from "./body-handles.ts";
import { handleAt } from "./body-handles.ts";
import type { FieldPainter } from "./field-painter.ts";

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
  | { readonly kind: "tool" };

/** What the pointer does on the field: pans, drags the body's corners, holds the tool. */
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
    const px = this.pxAt(event);
    return px === null ? null : session.fieldTool.cellOf(px);
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
    const px = this.pxAt(event);
    if (px === null) return null;
    if (event.altKey) {
      const cell = this.cellAt(event);
      if (cell !== null && session.benchStore.getState().walk === null) session.painting.pickTile(cell);
      return null;
    }
    return session.fieldTool.down(px, event.shiftKey || event.ctrlKey) ? { kind: "tool" } : null;
  }

  readonly move = (event: React.PointerEvent): void => {
    const painter = this.painter();
    if (painter === null) return;
    const px = painter.roomPixel(event.nativeEvent.offsetX, event.nativeEvent.offsetY);
    session.shownRoom.pointAt(px);
    session.fieldTool.move(px);
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
    }
  };

  readonly up = (): void => {
    const kind = this.drag?.kind;
    this.drag = null;
    if (kind === "tool") session.fieldTool.up();
    else if (kind === "body") session.project.endStroke();
    else if (kind === "pan") this.onPan(false);
  };
}
