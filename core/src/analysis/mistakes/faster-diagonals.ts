import { GAIT_MOVEMENTS } from "../../movement/gaits.ts";
import { wholeRoot } from "../../base/root.ts";
import type { Compiled } from "../../compiled/compiled.ts";
import type { LogFinding, MistakeWatch, SeenFrame } from "../findings/mistake.ts";
import { Tally, roundPx, whenText } from "../findings/mistake.ts";

/** "Diagonals are faster": both axes move at full speed. */
export class FasterDiagonals implements MistakeWatch {
  private readonly tally = new Tally();
  private fastest = 0;
  private even = 0;

  constructor(private readonly c: Compiled) {}

  see({ c, s, account, began }: SeenFrame): void {
    if (c.free.evenDiagonal || s.intentX === 0 || s.intentY === 0) return;
    const all = account.axes.every(({ movedX, movedY, dx, dy }) => movedX === dx && movedY === dy);
    const dx = account.axes.reduce((sum, move) => sum + move.dx, 0);
    const dy = account.axes.reduce((sum, move) => sum + move.dy, 0);
    if (!all || dx === 0 || dy === 0) return;
    const speed = length(dx, dy);
    const even = length(...(GAIT_MOVEMENTS[c.rules.gait].evened?.(c, s, began, dx, dy) ?? [dx, dy]));
    if (speed <= even) return;
    this.tally.add(s.frame);
    if (speed > this.fastest) [this.fastest, this.even] = [speed, even];
  }

  findings(): LogFinding[] {
    const { frame, frames } = this.tally;
    if (frames === 0) return [];
    const path = `${this.c.rules.gait}.diagonal`;
    return [
      {
        kind: "faster diagonals",
        path,
        frame,
        frames,
        text: `Faster diagonally ${whenText(this.tally)}: ${roundPx(this.fastest)} px a frame, evened ${roundPx(this.even)}`,
        cures: [{ path, value: "even" }],
      },
    ];
  }
}

const length = (x: number, y: number): number => wholeRoot(x * x + y * y);
