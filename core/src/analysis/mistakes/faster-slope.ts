import { wholeRoot } from "../../base/root.ts";
import type { Compiled } from "../../compiled/compiled.ts";
import type { LogFinding, MistakeWatch, SeenFrame } from "../findings/mistake.ts";
import { Tally, roundPx, whenText } from "../findings/mistake.ts";

/** "It is faster along a slanted wall": what a slope moves aside comes on top of what is walked along the axis. */
export class FasterSlope implements MistakeWatch {
  private readonly tally = new Tally();
  private fastest = 0;
  private walking = 0;

  constructor(private readonly c: Compiled) {}

  see({ s, account }: SeenFrame): void {
    if (account.axes.every(({ slope }) => slope.length === 0)) return;
    let [dx, dy, movedX, movedY] = [0, 0, 0, 0];
    for (const move of account.axes) {
      dx += move.dx;
      dy += move.dy;
      movedX += move.movedX;
      movedY += move.movedY;
      for (const { along, aside } of move.slope) {
        movedX += move.axis === "x" ? along : aside;
        movedY += move.axis === "x" ? aside : along;
      }
    }
    const speed = length(movedX, movedY);
    const walking = length(dx, dy);
    if (speed <= walking) return;
    this.tally.add(s.frame);
    if (speed - walking > this.fastest - this.walking) [this.fastest, this.walking] = [speed, walking];
  }

  findings(): LogFinding[] {
    const { frame, frames } = this.tally;
    if (frames === 0) return [];
    const path = `${this.c.rules.gait}.slopes`;
    return [
      {
        kind: "faster slope",
        path,
        frame,
        frames,
        text: `Faster along a slope ${whenText(this.tally)}: ${roundPx(this.fastest)} px a frame, walking ${roundPx(this.walking)}`,
        cures: [{ path, value: "stop" }],
      },
    ];
  }
}

const length = (x: number, y: number): number => wholeRoot(x * x + y * y);
