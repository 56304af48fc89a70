import { X, Y } from "../../ground/sweep.ts";
import { gapTowards } from "../../movement/gaps.ts";
import type { Compiled } from "../../compiled/compiled.ts";
import type { LogFinding, MistakeWatch, SeenFrame } from "../findings/mistake.ts";
import { Tally, roundPx, whenText } from "../findings/mistake.ts";

/** "It stops a few pixels before the wall": the whole step is taken back. */
export class GapBeforeWall implements MistakeWatch {
  private readonly tally = new Tally();
  private gap = 0;

  constructor(private readonly c: Compiled) {}

  see({ c, s, account, ground }: SeenFrame): void {
    const { response } = c.free;
    if (response !== "undo-axis" && response !== "undo-both") return;
    for (const { fromX, fromY, dx, dy, place } of account.axes) {
      // Taken back on both axes at once no single gap can be named.
      if (place === null || place.free || (dx !== 0 && dy !== 0) || dx * s.intentX + dy * s.intentY <= 0) continue;
      const gap = gapTowards(ground, s.previousRoom, fromX, fromY, dx !== 0 ? X : Y, Math.sign(dx + dy));
      if (gap === null || gap === 0 || gap >= Math.abs(dx + dy)) continue;
      if (this.tally.add(s.frame)) this.gap = gap;
    }
  }

  findings(): LogFinding[] {
    const { frame, frames } = this.tally;
    const path = `${this.c.rules.gait}.response`;
    if (frames === 0) return [];
    return [
      {
        kind: "gap before the wall",
        path,
        frame,
        frames,
        text: `Stops ${roundPx(this.gap)} px before the wall, ${whenText(this.tally)}: the whole step is taken back`,
        cures: [
          { path, value: "contact" },
          { path, value: "snap" },
        ],
      },
    ];
  }
}
