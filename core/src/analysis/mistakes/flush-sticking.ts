import { isFree } from "../../ground/free.ts";
import type { Ground } from "../../ground/ground.ts";
import { X, Y } from "../../ground/sweep.ts";
import type { AxisMove } from "../../compiled/account.ts";
import { gapTowards } from "../../movement/gaps.ts";
import type { Compiled } from "../../compiled/compiled.ts";
import type { SimState } from "../../compiled/state.ts";
import type { LogFinding, MistakeWatch, SeenFrame } from "../findings/mistake.ts";
import { Tally, whenText } from "../findings/mistake.ts";

/** "I touch a wall and cannot move along it": lying flush counts as overlap, or both axes are taken back. */
export class FlushSticking implements MistakeWatch {
  private readonly flush = new Tally();
  private readonly both = new Tally();
  constructor(private readonly c: Compiled) {}

  see({ s, account, ground }: SeenFrame): void {
    const pushed = account.axes.filter(
      ({ dx, dy, movedX, movedY }) => movedX === 0 && movedY === 0 && (dx * s.intentX > 0 || dy * s.intentY > 0),
    );
    // The same ground under a body that may lie flush.
    const loose = this.c.body.edgesCount ? ground.withBody({ ...this.c.body, edgesCount: false }) : null;
    if (
      loose !== null &&
      (pushed.some((move) => onlyFlush(loose, s, move)) || choiceOnlyFlush(loose, s, account.choices))
    )
      this.flush.add(s.frame);
    else if (pushed.some((move) => move.axis === "both" && oneAloneIsFree(ground, s, move))) this.both.add(s.frame);
  }

  findings(): LogFinding[] {
    const { gait, walker } = this.c.rules;
    const found: LogFinding[] = [];
    if (this.flush.frames > 0) {
      const { frame, frames } = this.flush;
      found.push({
        kind: "flush sticking",
        path: "walker.body",
        frame,
        frames,
        text: `Sticks where it only lies flush, ${whenText(this.flush)}: flush counts as blocked`,
        cures: [{ path: "walker.body", value: { ...walker.body, flush: "free" } }],
      });
    }
    if (this.both.frames > 0) {
      const { frame, frames } = this.both;
      const path = `${gait}.response`;
      found.push({
        kind: "flush sticking",
        path,
        frame,
        frames,
        text: `Sticks to the wall instead of sliding, ${whenText(this.both)}: one axis was free, both were taken back`,
        cures: [
          { path, value: "undo-axis" },
          { path, value: "contact" },
        ],
      });
    }
    return found;
  }
}

/** What stopped this axis at once only touches the body's edges. */
function onlyFlush(loose: Ground, s: SimState, move: AxisMove): boolean {
  const { fromX, fromY, dx, dy, place } = move;
  if (place !== null) return isFree(loose, s.previousRoom, place.x, place.y);
  const gap = gapTowards(loose, s.previousRoom, fromX, fromY, move.axis === "x" ? X : Y, Math.sign(dx + dy));
  return gap === null || gap > 0;
}

function choiceOnlyFlush(loose: Ground, s: SimState, choices: SeenFrame["account"]["choices"]): boolean {
  return choices.some((tested) =>
    tested.some(({ taken, places }) => !taken && places.every(({ x, y }) => isFree(loose, s.previousRoom, x, y))),
  );
}

function oneAloneIsFree(ground: Ground, s: SimState, { fromX, fromY, dx, dy }: AxisMove): boolean {
  return (
    dx !== 0 &&
    dy !== 0 &&
    (isFree(ground, s.previousRoom, fromX + dx, fromY) || isFree(ground, s.previousRoom, fromX, fromY + dy))
  );
}
