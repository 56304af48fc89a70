import type { Compiled } from "../../compiled/compiled.ts";
import { SimState } from "../../compiled/state.ts";
import { PLAYING, TAKE, WON } from "../../world/vocabulary.ts";
import { isDoing } from "./doings.ts";
import { DIRECTION_X, DIRECTION_Y, USE_LEFT, canUse, goings, perform, wayOf } from "./actions.ts";
import type { Way } from "./answer.ts";
import { ASK, BLOCKED, PlainSteps } from "./plain-steps.ts";
import { StateLayout, columnOf, positionWord, roomOf, rowOf } from "./state-layout.ts";
import { NearUses } from "./near-uses.ts";
import { StateTable, longer } from "./state-table.ts";

/** How something was first come by: the state that was left and the action that did it. */
export interface Origin {
  readonly state: number;
  readonly action: number;
}

/**
 * Every state that the walker can be in at a choice moment, the nearest first, of rules that keep to the grid
 * (semantics.md section 10). The simulation is asked wherever something other than tiles could matter.
 */
export class GridSearch {
  readonly layout: StateLayout;
  readonly table: StateTable;
  /** Of each state the one that it was first come to from, with the action, and the number of moves. */
  parents: Int32Array;
  actions: Uint8Array;
  moves: Int32Array;
  /** The states that follow a state: `next` from `nextAt` of it to that of the one after. */
  nextAt: Int32Array;
  next: Int32Array;
  /** 1 for states from which an action wins. */
  wins: Uint8Array;
  /** By fixture: from where what it does was first done, and the number of moves; null before. */
  readonly origins: (Origin | null)[];
  /** By item fixture that is asked for: the states from which an action takes it. */
  readonly takers: readonly number[][];
  /** From where the goal was first met. */
  goal: Origin | null = null;
  /** Every state was looked at. */
  complete = false;
  /** The first state that has not been looked at. */
  private at = 0;
  private edges = 0;
  private readonly plain: PlainSteps | null;
  private readonly ways: readonly number[];
  private readonly hasUses: boolean;
  private readonly uses: NearUses;
  private readonly here: SimState;
  private readonly there: SimState;
  private readonly words: Int32Array;
  /** What the frames of the action under way say. */
  private won = false;

  /**
   * @param start the state of row 0; not changed
   * @param limit the most states that are looked at
   * @param asks whether the simulation is asked for every step: only tests do that
   */
  constructor(
    readonly c: Compiled,
    readonly start: SimState,
    limit: number,
    asks = false,
  ) {
    this.layout = new StateLayout(c);
    this.table = new StateTable(this.layout.words, limit);
    this.parents = new Int32Array(1024);
    this.actions = new Uint8Array(1024);
    this.moves = new Int32Array(1024);
    this.nextAt = new Int32Array(1025);
    this.next = new Int32Array(8192);
    this.wins = new Uint8Array(1024);
    this.origins = c.fixtures.all.map(() => null);
    this.takers = c.fixtures.all.map(() => []);
    // What keeps going is not decided by the tiles beside alone.
    this.plain = asks || (c.rules.gait === "glide" && c.rules.glide.keepGoing) ? null : new PlainSteps(c);
    this.ways = goings(c);
    this.hasUses = c.fixtures.all.some(({ opensOnUse }) => opensOnUse);
    this.uses = new NearUses(c);
    this.here = new SimState(c);
    this.there = new SimState(c);
    this.here.copyFrom(start);
    this.words = new Int32Array(this.layout.words);
    this.layout.save(start, this.words, 0);
    this.table.find(this.words, 0);
    this.parents[0] = -1;
  }

  /** Number of states that were met. */
  get states(): number {
    return this.table.count;
  }

  /**
   * Looks at so many states more.
   * @returns whether there is more to look at: not where every state was, or the limit is reached
   */
  run(states: number): boolean {
    const last = this.at + states;
    while (this.at < this.table.count) {
      if (this.at === last) return true;
      if (!this.expand(this.at)) return false;
      this.at++;
      if (this.at + 1 >= this.nextAt.length) this.nextAt = longer(this.nextAt, this.nextAt.length * 2);
      this.nextAt[this.at] = this.edges;
    }
    this.complete = true;
    return false;
  }

  /** The actions that lead to a state. */
  actionsTo(state: number): number[] {
    const actions: number[] = [];
    for (let i = state; this.parents[i]! >= 0; i = this.parents[i]!) actions.push(this.actions[i]!);
    return actions.reverse();
  }

  /** The way of actions from the start. */
  wayOf(actions: readonly number[]): Way {
    this.there.copyFrom(this.start);
    return wayOf(this.c, this.there, actions);
  }

  /** Puts a state into one of the simulation's. */
  load(state: number, into: SimState): void {
    this.layout.load(into, this.table.words, state * this.layout.words);
  }

  /** Tries every action from a state; false where the limit is reached. */
  private expand(state: number): boolean {
    const width = this.layout.words;
    const from = state * width;
    const { words } = this.table;
    const position = words[from]!;
    const room = roomOf(position);
    const cx = columnOf(position);
    const cy = rowOf(position);
    // Row 0 may be as no choice moment is: a goal that is met already, something touched.
    const plain = state > 0 && this.plain !== null && this.plain.isPlain(room, cx, cy) && this.isSettled(from);
    let loaded = false;
    for (let i = 0; i < this.ways.length; i++) {
      const action = this.ways[i]!;
      if (plain) {
        if (action >= USE_LEFT) continue;
        const way = this.plain.step(room, cx, cy, action);
        if (way === BLOCKED) continue;
        if (way !== ASK) {
          const { words: now } = this.table;
          this.words[0] = positionWord(room, cx + DIRECTION_X[way]!, cy + DIRECTION_Y[way]!);
          for (let w = 1; w < width; w++) this.words[w] = now[from + w]!;
          if (!this.arrive(state, action)) return false;
          continue;
        }
      }
      if (!loaded) this.load(state, this.here);
      loaded = true;
      if (!this.ask(state, action)) return false;
    }
    if (!this.hasUses || !this.uses.isNear(room, cx, cy)) return true;
    if (!loaded) this.load(state, this.here);
    for (let way = 0; way < 4; way++)
      if (canUse(this.c, this.here, way) && !this.ask(state, USE_LEFT + way)) return false;
    return true;
  }

  /** Nothing counts as touched, and no open door waits to close behind. */
  private isSettled(from: number): boolean {
    const { words } = this.table;
    const { unsettled } = this.layout;
    for (let w = 1; w < unsettled.length; w++) if ((words[from + w]! & unsettled[w]!) !== 0) return false;
    return true;
  }

  /** Plays an action in the simulation. */
  private ask(state: number, action: number): boolean {
    const { there } = this;
    there.copyFrom(this.here);
    this.won = false;
    perform(this.c, there, action, (s) => this.see(s, state, action));
    if (this.won && this.goal === null) this.goal = { state, action };
    if (this.won) this.wins[state] = 1;
    if (there.status !== PLAYING) return true;
    this.layout.save(there, this.words, 0);
    return this.arrive(state, action);
  }

  /** Takes note of what a frame of an action did. */
  private see(s: SimState, state: number, action: number): void {
    if (s.status === WON) this.won = true;
    for (let i = 0; i < s.eventCount; i++) {
      const kind = s.eventKinds[i]!;
      if (!isDoing(kind)) continue;
      const fixture = s.eventSubjects[i]!;
      this.origins[fixture] ??= { state, action };
      if (kind === TAKE && this.takers[fixture]!.at(-1) !== state) this.takers[fixture]!.push(state);
    }
  }

  /** An action has led from a state to the one in `words`. */
  private arrive(state: number, action: number): boolean {
    const before = this.table.count;
    const found = this.table.find(this.words, 0);
    if (found < 0) return false;
    if (found === before) {
      if (found >= this.parents.length) this.grow();
      this.parents[found] = state;
      this.actions[found] = action;
      this.moves[found] = this.moves[state]! + 1;
    }
    if (found === state) return true;
    if (this.edges === this.next.length) this.next = longer(this.next, this.next.length * 2);
    this.next[this.edges++] = found;
    return true;
  }

  private grow(): void {
    const length = Math.min(this.parents.length * 2, this.table.limit);
    this.parents = longer(this.parents, length);
    this.actions = longer(this.actions, length);
    this.moves = longer(this.moves, length);
    this.wins = longer(this.wins, length);
  }
}
