import type { CompiledBody } from "../../ground/body.ts";
import { isFree } from "../../ground/free.ts";
import type { Compiled } from "../../compiled/compiled.ts";
import type { LogFinding, MistakeWatch, SeenFrame } from "../findings/mistake.ts";
import { Tally, wholeBody, whenText } from "../findings/mistake.ts";

/** "It slips through at the corner": only some points were tested, or corners may be cut. */
export class MissedCorner implements MistakeWatch {
  private readonly between = new Tally();
  private readonly cut = new Tally();
  /** A body that fills what lies between the probes; for one probe the whole frame-square. */
  private readonly filled: CompiledBody;

  constructor(private readonly c: Compiled) {
    const { body, tileUnits } = c;
    const spans =
      body.probes.length > 2
        ? { left: body.left, top: body.top, right: body.right + 1, bottom: body.bottom + 1 }
        : { left: 0, top: 0, right: tileUnits, bottom: tileUnits };
    this.filled = { kind: "box", ...spans, edgesCount: false, probes: new Int32Array(0) };
  }

  see({ c, s, account, ground }: SeenFrame): void {
    if (
      c.body.kind === "probes" &&
      isFree(s.ground, s.room, s.x, s.y) &&
      !isFree(s.ground.withBody(this.filled), s.room, s.x, s.y)
    )
      this.between.add(s.frame);
    for (const { dx, dy, taken, places } of account.choices.flat()) {
      if (!taken || dx === 0 || dy === 0) continue;
      const { x, y } = places[0]!;
      if (
        !isFree(ground, s.previousRoom, x, y - dy * c.tileUnits) ||
        !isFree(ground, s.previousRoom, x - dx * c.tileUnits, y)
      )
        this.cut.add(s.frame);
    }
  }

  findings(): LogFinding[] {
    const found: LogFinding[] = [];
    const { rules, body } = this.c;
    if (this.between.frames > 0) {
      const { frame, frames } = this.between;
      const why =
        body.probes.length > 2
          ? `what blocks lies between its ${body.probes.length / 2} probes`
          : "only one point is tested";
      found.push({
        kind: "missed corner",
        path: "walker.body",
        frame,
        frames,
        text: `Slips over a corner ${whenText(this.between)}: ${why}`,
        cures: [boxOf(this.c), wholeBody(this.c)],
      });
    }
    if (this.cut.frames > 0) {
      const { frame, frames } = this.cut;
      const path = `${rules.gait}.cutCorners`;
      found.push({
        kind: "missed corner",
        path,
        frame,
        frames,
        text: `Cuts the corner of what blocks it ${whenText(this.cut)}`,
        cures: [{ path, value: false }],
      });
    }
    return found;
  }
}

/** A box over all probes, at least 1 px wide and high. */
function boxOf(c: Compiled): LogFinding["cures"][number] {
  const { body } = c.rules.walker;
  const points = body.kind === "probes" ? body.points : [];
  const [xs, ys] = [points.map(([x]) => x), points.map(([, y]) => y)];
  const [left, top] = [Math.min(...xs), Math.min(...ys)];
  return {
    path: "walker.body",
    value: {
      kind: "box",
      box: [left, top, Math.max(1, Math.max(...xs) - left), Math.max(1, Math.max(...ys) - top)],
      flush: "free",
    },
  };
}
