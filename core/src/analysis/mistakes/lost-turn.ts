import { isFree } from "../../ground/free.ts";
import type { Ground } from "../../ground/ground.ts";
import { buttonX, buttonY } from "../../movement/intent.ts";
import type { Compiled } from "../../compiled/compiled.ts";
import type { LogFinding, MistakeWatch, SeenFrame } from "../findings/mistake.ts";
import { Tally } from "../findings/mistake.ts";

const NONE = -1;

/** "Why does the turn get lost?": it was pressed between cells, and let go before the next choice. */
export class LostTurn implements MistakeWatch {
  private readonly tally = new Tally();
  private button = NONE;
  private pressedAt = 0;
  private pressed = 0;
  /** The most frames that a lost press came early. */
  private early = 0;

  constructor(private readonly c: Compiled) {}

  see({ c, s, account, began, ground }: SeenFrame): void {
    if (c.rules.gait !== "glide") return;
    const onLeg = began.legX !== 0 || began.legY !== 0;
    if (onLeg) {
      for (let button = 0; button < 4; button++) {
        // A turn goes aside from the leg.
        const isTurn = buttonX(button) * began.legX + buttonY(button) * began.legY === 0;
        if (!isTurn || !(s.pressed & (1 << button))) continue;
        this.button = button;
        this.pressedAt = s.frame;
      }
    }
    if (account.choices.length > 0 && this.button !== NONE) this.choice(ground, s, account, began);
  }

  private choice(
    ground: Ground,
    s: SeenFrame["s"],
    { choices, advances }: SeenFrame["account"],
    began: SeenFrame["began"],
  ): void {
    const { button } = this;
    const early = s.frame - this.pressedAt;
    this.button = NONE;
    const [dx, dy] = [buttonX(button), buttonY(button)];
    // One that is still held has its say at the choice, one in memory too.
    if (s.held & (1 << button) || early <= this.c.glide.bufferFrames) return;
    if (choices[0]!.some((candidate) => candidate.dx === dx && candidate.dy === dy)) return;
    const before = began.legX !== 0 || began.legY !== 0 ? (advances[0] ?? null) : null;
    const x = s.previousX + (before?.dx ?? 0) + dx * ground.tileUnits;
    const y = s.previousY + (before?.dy ?? 0) + dy * ground.tileUnits;
    if (!isFree(ground, s.previousRoom, x, y)) return;
    this.early = Math.max(this.early, early);
    if (this.tally.add(s.frame)) this.pressed = this.pressedAt;
  }

  findings(): LogFinding[] {
    const { frame, frames } = this.tally;
    if (frames === 0) return [];
    const path = "glide.bufferFrames";
    const { bufferFrames, speed } = this.c.glide;
    const whole = Math.min(600, Math.ceil(this.c.tileUnits / speed));
    const others = frames === 1 ? "" : `, ${frames} turns in all`;
    return [
      {
        kind: "lost turn",
        path,
        frame,
        frames,
        text: `A turn is lost in frame ${frame}: pressed in frame ${this.pressed}, ${frame - this.pressed} frames before the choice; buffer is ${bufferFrames}${others}`,
        cures: [...new Set([this.early, whole])].map((value) => ({ path, value })),
      },
    ];
  }
}
