import type { Compiled } from "../../compiled/compiled.ts";
import type { LogFinding, MistakeWatch, SeenFrame } from "../findings/mistake.ts";
import { Tally, whenText } from "../findings/mistake.ts";
import { speedFitText, speedsThatDivide } from "../findings/speed-fit.ts";

/** "It runs off and never stops": the count of a leg steps over the tile size. */
export class UnfitSpeed implements MistakeWatch {
  private readonly tally = new Tally();

  constructor(private readonly c: Compiled) {}

  see({ c, s, account }: SeenFrame): void {
    if (account.advances.some(({ progress: gone }) => gone > c.tileUnits)) this.tally.add(s.frame);
  }

  findings(): LogFinding[] {
    const { frame, frames } = this.tally;
    const { rules, world } = this.c;
    const fit = speedFitText(world.tileSize, rules.glide.speed);
    if (frames === 0 || fit === null) return [];
    const path = "glide.speed";
    const speeds = speedsThatDivide(world.tileSize).sort(
      (a, b) => Math.abs(a - rules.glide.speed) - Math.abs(b - rules.glide.speed),
    );
    return [
      {
        kind: "speed that does not fit",
        path,
        frame,
        frames,
        text: `${rules.glide.arrive === "equal" ? "Runs past the cell" : "Ends its legs off the grid"} ${whenText(this.tally)}: ${fit}`,
        cures: [...speeds.slice(0, 3).map((value) => ({ path, value })), { path: "glide.arrive", value: "land" }],
      },
    ];
  }
}
