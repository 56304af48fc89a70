import type { Compiled } from "../../compiled/compiled.ts";
import { SimState } from "../../compiled/state.ts";
import type { LogLine } from "../../logs/input-log.ts";
import { step } from "../../simulation/step.ts";
import { ARRIVE, PLAYING } from "../../world/vocabulary.ts";
import { USE_LEFT, keysOf } from "./actions.ts";
import type { Way } from "./answer.ts";

/** So long a leg is waited for. */
const MOST_FRAMES = 4096;

/**
 * Plays ways under rules by which the walker keeps going and carries what is left of a frame into its next leg. A choice
 * then falls inside a frame, where only the keys of that frame decide: the way holds its keys in that frame. Whether it
 * arrives at what it was found for is to be looked at (semantics.md section 10).
 */
export class CarriedWays {
  /** The state after the way that was played last. */
  readonly s: SimState;
  /** Frames that were played so far. */
  frames = 0;
  private readonly trial: SimState;

  constructor(
    private readonly c: Compiled,
    private readonly start: SimState,
  ) {
    this.s = new SimState(c);
    this.trial = new SimState(c);
  }

  /**
   * @param seen told of each frame
   * @returns null where a choice never comes, or the run ends before the last action
   */
  play(actions: readonly number[], seen: (s: SimState) => void): Way | null {
    const { s } = this;
    s.copyFrom(this.start);
    const lines: LogLine[] = [];
    const ends: number[] = [];
    const hold = (keys: number): void => {
      step(this.c, s, keys, null);
      this.frames++;
      lines.push({ kind: "keys", count: 1, keys, pointer: null, until: null });
      seen(s);
    };
    for (const action of actions) {
      if (!this.comeToChoice(keysOf(action), hold)) return null;
      if (action >= USE_LEFT && s.status === PLAYING) hold(0);
      ends.push(s.frame);
    }
    // On to the end of its last leg.
    for (let i = 0; s.status === PLAYING && (s.legX !== 0 || s.legY !== 0); i++) {
      if (i === MOST_FRAMES) return null;
      hold(0);
      if (hasArrived(s)) break;
    }
    if (ends.length > 0) ends[ends.length - 1] = s.frame;
    return { moves: actions.length, ends, lines };
  }

  /** Lets frames pass until one in which a choice is made, and holds something in that one. */
  private comeToChoice(keys: number, hold: (keys: number) => void): boolean {
    const { s, trial } = this;
    for (let i = 0; s.status === PLAYING && i < MOST_FRAMES; i++) {
      const rests = s.legX === 0 && s.legY === 0;
      const left = s.legProgress + this.c.glide.speed - this.c.tileUnits;
      trial.copyFrom(s);
      step(this.c, trial, keys, null);
      // Without anything left of the frame the choice is that of the next one.
      if (rests || (left > 0 && hasArrived(trial))) {
        hold(keys);
        return true;
      }
      hold(0);
    }
    return false;
  }
}

function hasArrived(s: SimState): boolean {
  for (let i = 0; i < s.eventCount; i++) if (s.eventKinds[i] === ARRIVE) return true;
  return false;
}
