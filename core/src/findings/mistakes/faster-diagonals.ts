import type { Compiled } from "../../simulation/compiled.ts";
import type { LogFinding, MistakeWatch, SeenFrame } from "../mistake.ts";
import { Tally, roundPx, whenText } from "../mistake.ts";

/** "Diagonals are faster": both axes move at full speed. */
export class FasterDiagonals implements MistakeWatch {
  private readonly tally = new Tally();
  private fastest = 0;
  private readonly straight: number;

  constructor(private readonly c: Compiled) {
    this.straight = c.rules.gait === "drift" ? c.free.maxSpeed : Math.max(c.free.speedX, c.free.speedY);
  }

  see({ c, s, account }: SeenFrame): void {
    if (c.free.evenDiagonal || s.intentX === 0 || s.intentY === 0) return;
    const wanted = account.axes.reduce((sum, { dx, dy }) => [sum[0] + dx, sum[1] + dy] as [number, number], [0, 0] as [number, number]);
    const moved = account.axes.every(({ movedX, movedY, dx, dy }) => movedX === dx && movedY === dy);
    const speed = Math.hypot(...wanted);
    if (!moved || wanted[0] === 0 || wanted[1] === 0 || speed <= this.straight) return;
    this.tally.add(s.frame);
    this.fastest = Math.max(this.fastest, speed);
  }

  findings(): LogFinding[] {
    const { frame, frames } = this.tally;
    if (frames === 0) return [];
    const path = `${this.c.rules.gait}.diagonal`;
    return [{ kind: "faster diagonals", path, frame, frames, text: `Faster diagonally ${whenText(this.tally)}: ${roundPx(this.fastest)} px a frame, straight ${roundPx(this.straight)}`, cures: [{ path, value: "even" }] }];
  }
}
