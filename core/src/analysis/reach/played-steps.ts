import type { Compiled } from "../../compiled/compiled.ts";
import { SimState } from "../../compiled/state.ts";
import { DIRECTION_X, DIRECTION_Y, USE_LEFT, perform, wayOf } from "./actions.ts";
import type { Way } from "./answer.ts";
import type { PlainSteps } from "./plain-steps.ts";
import { ASK, BLOCKED } from "./plain-steps.ts";
import type { StateLayout } from "./state-layout.ts";
import { columnOf, positionWord, roomOf, rowOf } from "./state-layout.ts";
import { StateTable, longer } from "./state-table.ts";

/** So many steps are kept; more are played each time. */
const MOST_STEPS = 1 << 18;

/**
 * Ways of actions, played from choice moment to choice moment in packed states. Many ways go the same first part, and
 * the same step from the same state takes as many frames each time: each is played once. That the simulation follows
 * the ways is tested.
 */
export class PlayedSteps {
  /** A step by the state before it and its action. */
  private readonly steps: StateTable;
  /** By step its frames, 0 where it was not played yet, and the state after it. */
  private frames = new Int32Array(256);
  private after: Int32Array;
  private readonly s: SimState;
  /** The state now, and its action after it. */
  private readonly words: Int32Array;
  /** How many frames a plain step takes, a straight and a slanting one; 0 where that is not known yet. */
  private readonly legFrames = [0, 0];

  constructor(
    private readonly c: Compiled,
    private readonly start: SimState,
    private readonly layout: StateLayout,
    private readonly plain: PlainSteps | null,
  ) {
    this.steps = new StateTable(layout.words + 1, MOST_STEPS);
    this.after = new Int32Array(256 * layout.words);
    this.words = new Int32Array(layout.words + 1);
    this.s = new SimState(c);
  }

  /** The way of actions from the start. */
  wayOf(actions: readonly number[]): Way {
    this.s.copyFrom(this.start);
    let isFirst = true;
    return wayOf(this.c, this.s, actions, (action) => {
      // Row 0 may be as no choice moment is.
      const frames = isFirst ? this.perform(action) : (this.walk(action) ?? this.play(action));
      isFirst = false;
      return frames;
    });
  }

  /** Takes a plain step without the simulation, once it is known how long one takes; null where it is none. */
  private walk(action: number): number | null {
    const { layout, plain, words } = this;
    if (plain === null || action >= USE_LEFT) return null;
    for (let w = 1; w < layout.words; w++) if ((words[w]! & layout.unsettled[w]!) !== 0) return null;
    const [room, cx, cy] = [roomOf(words[0]!), columnOf(words[0]!), rowOf(words[0]!)];
    if (!plain.isPlain(room, cx, cy)) return null;
    const way = plain.step(room, cx, cy, action);
    if (way === ASK || way === BLOCKED) return null;
    const slants = way < 4 ? 0 : 1;
    if (this.legFrames[slants] === 0) return (this.legFrames[slants] = this.play(action));
    this.come(positionWord(room, cx + DIRECTION_X[way]!, cy + DIRECTION_Y[way]!));
    return this.legFrames[slants]!;
  }

  private play(action: number): number {
    const { layout, words } = this;
    words[layout.words] = action;
    const step = this.steps.find(words, 0);
    if (step >= this.frames.length) {
      this.frames = longer(this.frames, step * 2);
      this.after = longer(this.after, step * 2 * layout.words);
    }
    if (step < 0 || this.frames[step] === 0) {
      layout.load(this.s, words, 0);
      const frames = this.perform(action);
      if (step < 0) return frames;
      this.frames[step] = frames;
      this.after.set(words.subarray(0, layout.words), step * layout.words);
      return frames;
    }
    for (let w = 0; w < layout.words; w++) words[w] = this.after[step * layout.words + w]!;
    this.come(words[0]!);
    return this.frames[step]!;
  }

  /** Plays an action in the simulation, from where `s` is. */
  private perform(action: number): number {
    const frames = perform(this.c, this.s, action, () => undefined);
    this.layout.save(this.s, this.words, 0);
    return frames;
  }

  /** Where the walker is now; what else it has is loaded when it is asked for. */
  private come(position: number): void {
    this.words[0] = position;
    this.s.room = roomOf(position);
    this.s.x = columnOf(position) * this.c.tileUnits;
    this.s.y = rowOf(position) * this.c.tileUnits;
  }
}
