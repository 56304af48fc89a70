import { cellsOfBody } from "../../ground/free.ts";
import type { Compiled } from "../../compiled/compiled.ts";
import { tileAt } from "../../simulation/tile-at.ts";
import type { LogFinding, MistakeWatch, SeenFrame } from "../findings/mistake.ts";
import { Tally, whenText } from "../findings/mistake.ts";

/** "This tile does not stop me, although it is flagged": no rule set is blocked by any of its flags. */
export class UnaskedFlag implements MistakeWatch {
  /** By tile number, the tiles that carry flags of which none is asked for. */
  private readonly tiles = new Set<number>();
  private readonly seen = new Map<number, Tally>();

  constructor(private readonly c: Compiled) {
    const asked = new Set(c.world.rules.flatMap((rules) => rules.walker.blockedBy));
    c.world.tiles.forEach((tile, number) => {
      if (tile.flags.length > 0 && !tile.flags.some((flag) => asked.has(flag))) this.tiles.add(number);
    });
  }

  see({ c, s }: SeenFrame): void {
    if (this.tiles.size === 0) return;
    for (const { cx, cy } of cellsOfBody(c, s.x, s.y)) {
      const tile = tileAt(c, c.ground, s.room, cx, cy);
      if (!this.tiles.has(tile)) continue;
      if (!this.seen.has(tile)) this.seen.set(tile, new Tally());
      this.seen.get(tile)!.add(s.frame);
    }
  }

  findings(): LogFinding[] {
    const { world, rules } = this.c;
    return [...this.seen].map(([number, tally]) => {
      const { name, flags } = world.tiles[number]!;
      return {
        kind: "unasked flag",
        path: "walker.blockedBy",
        frame: tally.frame,
        frames: tally.frames,
        text: `Walks over ${name} ${whenText(tally)}: no rule set asks for ${flags.join(" or ")}`,
        cures: flags.map((flag) => ({ path: "walker.blockedBy", value: [...rules.walker.blockedBy, flag] })),
      };
    });
  }
}
