import { isFree } from "../../ground/free.ts";
import type { Ground } from "../../ground/ground.ts";
import { X, Y } from "../../ground/sweep.ts";
import { UNITS_PER_PX } from "../../base/units.ts";
import type { AxisMove, MetShape } from "../../compiled/account.ts";
import { shapesOnWay } from "../../movement/met-shapes.ts";
import type { Compiled } from "../../compiled/compiled.ts";
import type { LogFinding, MistakeWatch, SeenFrame } from "../findings/mistake.ts";
import { Tally, roundPx, wholeBody, whenText } from "../findings/mistake.ts";

/** "It passes through thin walls when fast": a step longer than the wall, or a cell entered without a look at the way. */
export class JumpThrough implements MistakeWatch {
  private readonly tally = new Tally();
  private step = 0;

  constructor(private readonly c: Compiled) {}

  see({ c, s, account, ground }: SeenFrame): void {
    if (c.onGrid) {
      for (const { dx, dy, taken, places } of account.choices.flat()) {
        if (!taken || (dx !== 0 && dy !== 0)) continue;
        const { x, y } = places[0]!;
        this.look(
          s.frame,
          jumped(
            ground,
            s.previousRoom,
            x - dx * c.tileUnits,
            y - dy * c.tileUnits,
            dx * c.tileUnits,
            dy * c.tileUnits,
          ),
          c.tileUnits,
        );
      }
    } else if (c.free.response !== "contact") {
      for (const move of account.axes) {
        const { fromX, fromY, movedX, movedY } = move;
        if (movedX === 0 && movedY === 0) continue;
        const over =
          movedX !== 0 && movedY !== 0
            ? jumpedAslant(ground, s.previousRoom, move)
            : jumped(ground, s.previousRoom, fromX, fromY, movedX, movedY);
        this.look(s.frame, over, Math.max(Math.abs(movedX), Math.abs(movedY)));
      }
    }
  }

  private look(frame: number, over: boolean, step: number): void {
    if (over && this.tally.add(frame)) this.step = step;
  }

  findings(): LogFinding[] {
    const { frame, frames } = this.tally;
    if (frames === 0) return [];
    const { gait } = this.c.rules;
    const { onGrid } = this.c;
    const path = onGrid ? "walker.body" : `${gait}.response`;
    const why = onGrid
      ? "only the next cell is tested, not the way to it"
      : `one step is ${roundPx(this.step)} px and only its end is tested`;
    return [
      {
        kind: "jump through a wall",
        path,
        frame,
        frames,
        text: `Passes through what blocks it ${whenText(this.tally)}: ${why}`,
        cures: onGrid ? [wholeBody(this.c)] : [{ path, value: "contact" }],
      },
    ];
  }
}

/** Along one axis: something was overlapped on the way that is overlapped neither before nor after. */
function jumped(ground: Ground, room: number, x: number, y: number, dx: number, dy: number): boolean {
  const way = dx + dy;
  const between = ({ inside, ranges }: MetShape): boolean =>
    !inside &&
    !ranges.some(({ lo, hi }) => lo <= way && way <= hi) &&
    ranges.some(({ lo, hi }) => (way > 0 ? hi >= 1 && lo < way : lo <= -1 && hi > way));
  return shapesOnWay(ground, room, x, y, dx !== 0 ? X : Y, way).some(between);
}

/** Both axes at once: px by px on the straight way, which begins and ends free. */
function jumpedAslant(ground: Ground, room: number, { fromX, fromY, movedX, movedY }: AxisMove): boolean {
  if (!isFree(ground, room, fromX, fromY) || !isFree(ground, room, fromX + movedX, fromY + movedY)) return false;
  const steps = Math.ceil(Math.max(Math.abs(movedX), Math.abs(movedY)) / UNITS_PER_PX);
  for (let i = 1; i < steps; i++)
    if (!isFree(ground, room, fromX + Math.trunc((movedX * i) / steps), fromY + Math.trunc((movedY * i) / steps)))
      return true;
  return false;
}
