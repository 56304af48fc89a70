import { isFree } from "../../ground/free.ts";
import { X, Y } from "../../ground/sweep.ts";
import type { AxisMove } from "../../movement/account.ts";
import { gapTowards } from "../../movement/gaps.ts";
import type { Compiled } from "../../simulation/compiled.ts";
import type { SimState } from "../../simulation/state.ts";
import type { LogFinding, MistakeWatch, SeenFrame } from "../mistake.ts";
import { Tally, whenText } from "../mistake.ts";

/** "I touch a wall and cannot move along it": lying flush counts as overlap, or both axes are taken back. */
export class FlushSticking implements MistakeWatch {
  private readonly flush = new Tally();
  private readonly both = new Tally();
  /** The same ground under a body that may lie flush. */
  private readonly loose: Compiled;

  constructor(private readonly c: Compiled) {
    this.loose = { ...c, body: { ...c.body, edgesCount: false } };
  }

  see({ s, account }: SeenFrame): void {
    const pushed = account.axes.filter(({ dx, dy, movedX, movedY }) => movedX === 0 && movedY === 0 && (dx * s.intentX > 0 || dy * s.intentY > 0));
    if (this.c.body.edgesCount && (pushed.some((move) => this.onlyFlush(s, move)) || this.choiceOnlyFlush(s, account.choices))) this.flush.add(s.frame);
    else if (pushed.some((move) => move.axis === "both" && this.oneAloneIsFree(s, move))) this.both.add(s.frame);
  }

  /** What stopped this axis at once only touches the body's edges. */
  private onlyFlush(s: SimState, move: AxisMove): boolean {
    const { fromX, fromY, dx, dy, place } = move;
    if (place !== null) return isFree(this.loose, s.rowRoom, place.x, place.y);
    const gap = gapTowards(this.loose, s.rowRoom, fromX, fromY, move.axis === "x" ? X : Y, Math.sign(dx + dy));
    return gap === null || gap > 0;
  }

  private choiceOnlyFlush(s: SimState, choices: SeenFrame["account"]["choices"]): boolean {
    return choices.some((tested) => tested.some(({ taken, places }) => !taken && places.every(({ x, y }) => isFree(this.loose, s.rowRoom, x, y))));
  }

  private oneAloneIsFree(s: SimState, { fromX, fromY, dx, dy }: AxisMove): boolean {
    return dx !== 0 && dy !== 0 && (isFree(this.c, s.rowRoom, fromX + dx, fromY) || isFree(this.c, s.rowRoom, fromX, fromY + dy));
  }

  findings(): LogFinding[] {
    const { gait, walker } = this.c.rules;
    const found: LogFinding[] = [];
    if (this.flush.frames > 0) {
      const { frame, frames } = this.flush;
      found.push({ kind: "flush sticking", path: "walker.body", frame, frames, text: `Sticks where it only lies flush, ${whenText(this.flush)}: flush counts as blocked`, cures: [{ path: "walker.body", value: { ...walker.body, flush: "free" } }] });
    }
    if (this.both.frames > 0) {
      const { frame, frames } = this.both;
      const path = `${gait}.response`;
      found.push({ kind: "flush sticking", path, frame, frames, text: `Sticks to the wall instead of sliding, ${whenText(this.both)}: one axis was free, both were taken back`, cures: [{ path, value: "undo-axis" }, { path, value: "contact" }] });
    }
    return found;
  }
}
