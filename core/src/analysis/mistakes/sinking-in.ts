import { isFree } from "../../ground/free.ts";
import { overlapDepth } from "../../movement/gaps.ts";
import type { Compiled } from "../../compiled/compiled.ts";
import type { LogFinding, MistakeWatch, SeenFrame } from "../findings/mistake.ts";
import { Tally, roundPx, whenText } from "../findings/mistake.ts";

/** "It sinks into the wall": tested one pixel ahead, moved five. */
export class SinkingIn implements MistakeWatch {
  private readonly tally = new Tally();
  private deepest = 0;
  private moved = 0;

  constructor(private readonly c: Compiled) {}

  see({ c, s, account, ground }: SeenFrame): void {
    const moving = account.axes.filter(({ movedX, movedY }) => movedX !== 0 || movedY !== 0);
    if (moving.length === 0 || c.free.response === "contact") return;
    // Not where the walker is now: it may have crossed a side since.
    const x = s.previousX + moving.reduce((sum, { movedX }) => sum + movedX, 0);
    const y = s.previousY + moving.reduce((sum, { movedY }) => sum + movedY, 0);
    if (isFree(ground, s.previousRoom, x, y) || !isFree(ground, s.previousRoom, s.previousX, s.previousY)) return;
    if (this.tally.add(s.frame))
      this.moved = Math.max(...moving.map(({ movedX, movedY }) => Math.abs(movedX + movedY)));
    this.deepest = Math.max(this.deepest, overlapDepth(ground, s.previousRoom, x, y));
  }

  findings(): LogFinding[] {
    const { frame, frames } = this.tally;
    if (frames === 0) return [];
    const { free, rules } = this.c;
    const path = `${rules.gait}.response`;
    const why =
      free.response === "ahead"
        ? `tested ${roundPx(free.aheadUnits)} px ahead, moved ${roundPx(this.moved)}`
        : `moved ${roundPx(this.moved)} px and drawn back from what it ended in alone`;
    return [
      {
        kind: "sinking in",
        path,
        frame,
        frames,
        text: `Sinks ${roundPx(this.deepest)} px into what blocks it, ${whenText(this.tally)}: ${why}`,
        cures: [{ path, value: "contact" }],
      },
    ];
  }
}
