import { FACINGS } from "../../world/facing.ts";
import type { Compiled } from "../../compiled/compiled.ts";
import type { LogFinding, MistakeWatch, SeenFrame } from "../findings/mistake.ts";
import { Tally } from "../findings/mistake.ts";

/** "It turns away when it stops": facing is set where there is no direction. */
export class FacingReset implements MistakeWatch {
  private readonly tally = new Tally();
  private from = 0;

  constructor(private readonly c: Compiled) {}

  see({ c, s, began }: SeenFrame): void {
    if (c.rules.facing.idle !== "reset" || c.rules.facing.source !== "intent") return;
    const nowhere = s.chosenX === 0 && s.chosenY === 0 && s.intentX === 0 && s.intentY === 0;
    if (nowhere && s.facing !== began.facing && this.tally.add(s.frame)) this.from = began.facing;
  }

  findings(): LogFinding[] {
    const { frame, frames } = this.tally;
    if (frames === 0) return [];
    const times = frames === 1 ? "" : `, ${frames} times in all`;
    return [
      {
        kind: "facing reset",
        path: "facing.idle",
        frame,
        frames,
        text: `Turns from ${FACINGS[this.from]!} to ${this.c.rules.facing.rest} when it stops, in frame ${frame}${times}`,
        cures: [{ path: "facing.idle", value: "keep" }],
      },
    ];
  }
}
