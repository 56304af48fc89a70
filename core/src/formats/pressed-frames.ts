import type { InputLog, LogLine } from "../logs/input-log.ts";
import { EMPTY_LOG, MOST_FRAMES, MOST_LINE_FRAMES } from "../logs/input-log.ts";
import { mergeLines } from "../logs/write-log.ts";

/**
 * A log out of what was held from which frame on, as recordings give it: a row for each frame, or only where the keys
 * change. Nothing is held before the first, and the last counts one frame.
 */
export class PressedFrames {
  private readonly lines: LogLine[] = [];
  private from = 1;
  private held = 0;
  private begun = false;

  /**
   * From this frame on these keys are held; 1 is the first step.
   * @returns what is wrong with the frame, or null
   */
  hold(frame: number, keys: number): string | null {
    if (frame < this.from || (this.begun && frame === this.from)) return "is not after the row before";
    if (frame > MOST_FRAMES) return `is too late: a log has at most ${MOST_FRAMES} frames`;
    this.add(frame - this.from);
    this.from = frame;
    this.held = keys;
    this.begun = true;
    return null;
  }

  log(): InputLog {
    this.add(1);
    return { ...EMPTY_LOG, lines: mergeLines(this.lines) };
  }

  private add(count: number): void {
    for (let left = count; left > 0; left -= MOST_LINE_FRAMES)
      this.lines.push({
        kind: "keys",
        count: Math.min(left, MOST_LINE_FRAMES),
        keys: this.held,
        pointer: null,
        until: null,
      });
  }
}
