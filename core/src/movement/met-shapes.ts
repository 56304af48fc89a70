import type { Ground } from "../ground/ground.ts";
import { ShapeVisitor, X, visitShapes } from "../ground/sweep.ts";
import type { SimState } from "../compiled/state.ts";
import type { Account, AxisMove, MetRange, MetShape } from "../compiled/account.ts";

/** Notes every shape near a way, with the displacements at which it is overlapped. */
class Noted extends ShapeVisitor {
  readonly shapes: MetShape[] = [];
  private ranges: MetRange[] = [];
  private anyInside = false;

  visit(): void {
    const { lo, hi, boxLo, boxHi } = this;
    if (this.inside) this.anyInside = true;
    if (lo <= hi) this.ranges.push({ lo, hi, boxLo, boxHi });
  }

  override shapeDone(): void {
    const { cx, cy, poly, ranges } = this;
    if (ranges.length > 0) this.shapes.push({ cx, cy, poly, inside: this.anyInside, ranges });
    this.ranges = [];
    this.anyInside = false;
  }
}

/**
 * Every shape that the body at `(x, y)` may meet when it is displaced along an axis. Slow and allocating.
 * @param displacement units along the axis, of either sign
 */
export function shapesOnWay(
  ground: Ground,
  room: number,
  x: number,
  y: number,
  axis: number,
  displacement: number,
): readonly MetShape[] {
  const noted = new Noted();
  visitShapes(ground, room, x, y, axis, Math.min(displacement, 0), Math.max(displacement, 0), noted);
  return noted.shapes;
}

/** The account of an axis whose way was tested, while it is being moved. */
class SweptMove implements AxisMove {
  readonly axis: "x" | "y";
  readonly dx: number;
  readonly dy: number;
  readonly place = null;
  movedX = 0;
  movedY = 0;
  stopAt = 0;
  readonly slope: { along: number; aside: number }[] = [];

  constructor(
    readonly fromX: number,
    readonly fromY: number,
    axis: number,
    displacement: number,
    readonly shapes: readonly MetShape[],
  ) {
    this.axis = axis === X ? "x" : "y";
    this.dx = axis === X ? displacement : 0;
    this.dy = axis === X ? 0 : displacement;
  }

  /**
   * Says how far it came.
   * @param stopAt displacement at which what stops it is met
   */
  moved(units: number, stopAt: number): void {
    this.stopAt = stopAt;
    // `+ 0`: nothing moved is 0, never -0.
    if (this.axis === "x") this.movedX = units + 0;
    else this.movedY = units + 0;
  }
}

/**
 * Begins the account of an axis whose way is tested: where it is, and every shape that is met on it.
 * @param displacement units along the axis, of either sign
 */
export function noteSweep(s: SimState, axis: number, displacement: number, account: Account): SweptMove {
  const move = new SweptMove(s.x, s.y, axis, displacement, shapesOnWay(s.ground, s.room, s.x, s.y, axis, displacement));
  account.axes.push(move);
  return move;
}
