import type { InputLog } from "../../logs/input-log.ts";
import { EMPTY_LOG } from "../../logs/input-log.ts";
import { mergeLines } from "../../logs/write-log.ts";
import type { Compiled } from "../../compiled/compiled.ts";
import { startState } from "../../simulation/start-state.ts";
import type { SimState } from "../../compiled/state.ts";
import { PLAYING } from "../../world/vocabulary.ts";
import { step } from "../../simulation/step.ts";
import type { Invariant } from "./broken-invariants.ts";
import { InvariantWatch } from "./broken-invariants.ts";
import { PlausibleKeys } from "./plausible-keys.ts";

/** A walk that breaks a law: the keys of its frames 1 to the one that shows it. */
export interface BrokenWalk {
  readonly law: Invariant;
  readonly frame: number;
  readonly keys: Uint8Array;
}

/** Walks at random, and looks for broken laws. Made once for many walks of one compiled world. */
export class RandomWalker {
  private readonly watch: InvariantWatch;
  private readonly begin: SimState;
  private readonly state: SimState;

  /** @throws {CoreError} where the world's start is nowhere */
  constructor(private readonly c: Compiled) {
    this.watch = new InvariantWatch(c);
    this.begin = startState(c);
    this.state = startState(c);
  }

  /**
   * One walk from the world's start.
   * @param frames how long at the most
   * @returns the first law that it breaks, or null
   */
  walk(seed: number, frames: number): BrokenWalk | null {
    const keys = new Uint8Array(frames);
    const plausible = new PlausibleKeys(this.c, seed);
    return this.run(keys, frames, plausible);
  }

  /** Walks again with these keys; the first law that is broken, or null. */
  replay(keys: Uint8Array): BrokenWalk | null {
    return this.run(keys, keys.length, null);
  }

  /** The place after each frame of a walk as one text: equal where the walker is the same, whatever it remembers. */
  places(keys: Uint8Array): string[] {
    const { c, state } = this;
    state.copyFrom(this.begin);
    const places: string[] = [];
    const note = (s: SimState): void =>
      void places.push(`${s.room} ${s.x} ${s.y} ${s.legX} ${s.legY} ${s.legProgress} ${s.vx} ${s.vy}`);
    note(state);
    for (let i = 0; i < keys.length && state.status === PLAYING; i++) {
      step(c, state, keys[i]!, null);
      note(state);
    }
    return places;
  }

  private run(keys: Uint8Array, frames: number, plausible: PlausibleKeys | null): BrokenWalk | null {
    const { c, state, watch } = this;
    state.copyFrom(this.begin);
    watch.begin();
    let broken = watch.row(state);
    for (let i = 0; broken === null && i < frames && state.status === PLAYING; i++) {
      if (plausible !== null) keys[i] = plausible.next(state);
      step(c, state, keys[i]!, null);
      broken = watch.row(state);
    }
    return broken === null ? null : { law: broken, frame: state.frame, keys: keys.slice(0, state.frame) };
  }
}

/** A broken walk as a log of its world: with the check that it fails, and a note that says what was found. */
export function walkLog(c: Compiled, walk: BrokenWalk, seed: number): InputLog {
  const { world, rules } = c;
  const lines = mergeLines(
    Array.from(walk.keys, (keys) => ({ kind: "keys", count: 1, keys, pointer: null, until: null }) as const),
  );
  // The world's own laws hold in every log anyway.
  const own = walk.law.check !== null && !world.laws.includes(walk.law.name);
  return {
    ...EMPTY_LOG,
    world: world.id,
    rules: rules.id,
    start: world.start,
    title: `Random walk ${seed}: ${walk.law.name}`.slice(0, 80),
    tags: ["wander"],
    notes: [
      `Found by a random walk: in frame ${walk.frame} the walker ${world.laws.includes(walk.law.name) ? `breaks the law ${walk.law.name}` : walk.law.name}.`,
    ],
    checks: own ? [walk.law.check] : [],
    lines: lines.length > 0 ? lines : [{ kind: "keys", count: 1, keys: 0, pointer: null, until: null }],
  };
}
