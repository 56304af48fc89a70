import type { Compiled } from "../../compiled/compiled.ts";
import { SimState } from "../../compiled/state.ts";
import { PLAYING, TAKE, WON } from "../../world/vocabulary.ts";
import { USE_LEFT, canUse, goings, perform, wayOf } from "./actions.ts";
import { DIRECTION_X, DIRECTION_Y } from "./actions.ts";
import type { Way } from "./answer.ts";
import { isDoing } from "./doings.ts";
import { withLegsAtOnce } from "./legs-at-once.ts";
import { NearUses } from "./near-uses.ts";
import { Places } from "./places.ts";
import { NO_REGION, PlainRegions } from "./plain-regions.ts";
import { ASK, BLOCKED, PlainSteps } from "./plain-steps.ts";
import { StateLayout, columnOf, roomOf, rowOf } from "./state-layout.ts";
import { StatePages } from "./state-pages.ts";
import { StateTable, longer } from "./state-table.ts";

/** How something was first come by: the state that was left and the action that did it. */
export interface Origin {
  readonly state: number;
  readonly action: number;
}

/**
 * Every state that the walker can be in at a choice moment, the nearest first, of rules that keep to the grid
 * (semantics.md section 10). A state is a place and a memory: what else matters, each kept once. The simulation is asked
 * wherever something other than tiles could matter.
 *
 * For looking back, states are gathered into nodes: those of one memory in one plain region are one, for each of them
 * can be come to from every other.
 */
export class GridSearch {
  readonly layout: StateLayout;
  readonly places: Places;
  /** The memories that were met. */
  readonly memories: StateTable;
  /** Number of states that were met. */
  states = 0;
  /** Of each state its place and memory, the state that it was first come to from, with the action, and the moves. */
  placeOf = new Int32Array(1024);
  memoryOf = new Int32Array(1024);
  parents = new Int32Array(1024);
  actions = new Uint8Array(1024);
  moves = new Int32Array(1024);
  /** Of each state its node; nodes are numbered by the first state of each. */
  nodeOf = new Int32Array(1024);
  nodes = 0;
  /** Steps from node to node: `edgeTo` is come to from `edgeFrom`. */
  edgeFrom = new Int32Array(4096);
  edgeTo = new Int32Array(4096);
  edges = 0;
  /** The nodes from which an action wins. */
  readonly winners: number[] = [];
  /** By fixture: from where what it does was first done; null before. */
  readonly origins: (Origin | null)[];
  /** By item fixture: the nodes from which an action takes it. */
  readonly takers: readonly number[][];
  /** From where the goal was first met. */
  goal: Origin | null = null;
  /** Every state was looked at. */
  complete = false;
  /** The first state that has not been looked at. */
  private at = 0;
  private readonly pages: StatePages;
  private readonly regionNodes = new Map<number, number>();
  private settled = new Uint8Array(64);
  /** By node 1 where it is a region. */
  private isRegion = new Uint8Array(1024);
  private readonly plain: PlainSteps | null;
  private readonly regions: PlainRegions | null;
  private readonly quick: Compiled;
  private readonly ways: readonly number[];
  private readonly uses: NearUses | null;
  private readonly here: SimState;
  private readonly there: SimState;
  private readonly words: Int32Array;
  /** What the frames of the action under way say. */
  private won = false;

  /**
   * @param start the state of row 0; not changed
   * @param limit the most states that are looked at
   * @param asks whether the simulation is asked for every frame of every step: only tests do that
   */
  constructor(
    readonly c: Compiled,
    readonly start: SimState,
    private readonly limit: number,
    asks = false,
  ) {
    this.layout = new StateLayout(c);
    this.places = new Places(c.rooms);
    this.memories = new StateTable(this.layout.words - 1, limit);
    this.pages = new StatePages(this.places.cells, this.places.words.length);
    this.origins = c.fixtures.all.map(() => null);
    this.takers = c.fixtures.all.map(() => []);
    // What keeps going is not decided by the tiles beside alone.
    this.plain = asks || (c.rules.gait === "glide" && c.rules.glide.keepGoing) ? null : new PlainSteps(c);
    this.ways = goings(c);
    this.regions = this.plain && new PlainRegions(c, this.places, this.plain, this.ways.length - 1);
    this.quick = asks ? c : withLegsAtOnce(c);
    this.uses = c.fixtures.all.some(({ opensOnUse }) => opensOnUse) ? new NearUses(c) : null;
    this.here = new SimState(c);
    this.there = new SimState(c);
    this.here.copyFrom(start);
    this.there.copyFrom(start);
    this.words = new Int32Array(this.layout.words);
    this.meet(this.there, -1, 0);
  }

  /**
   * Looks at so many states more.
   * @returns whether there is more to look at: not where every state was, or the limit is reached
   */
  run(states: number): boolean {
    const last = this.at + states;
    while (this.at < this.states) {
      if (this.at === last) return true;
      if (!this.expand(this.at)) return false;
      this.at++;
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
    const { words } = this;
    this.unpack(state, words);
    this.layout.load(into, words, 0);
  }

  /** The words of a state. */
  unpack(state: number, into: Int32Array): void {
    const width = this.layout.words - 1;
    into[0] = this.places.words[this.placeOf[state]!]!;
    for (let w = 0; w < width; w++) into[w + 1] = this.memories.words[this.memoryOf[state]! * width + w]!;
  }

  /** Tries every action from a state; false where the limit is reached. */
  private expand(state: number): boolean {
    const place = this.placeOf[state]!;
    const memory = this.memoryOf[state]!;
    const word = this.places.words[place]!;
    const [room, cx, cy] = [roomOf(word), columnOf(word), rowOf(word)];
    // Row 0 may be as no choice moment is: a goal that is met already.
    const plain = state > 0 && this.plain !== null && this.settled[memory] === 1 && this.plain.isPlain(room, cx, cy);
    const node = this.nodeOf[state]!;
    const inRegion = this.isRegion[node] === 1;
    let loaded = false;
    for (let i = 0; i < this.ways.length; i++) {
      const action = this.ways[i]!;
      if (plain) {
        if (action >= USE_LEFT) continue;
        const way = this.plain.step(room, cx, cy, action);
        if (way === BLOCKED) continue;
        if (way !== ASK) {
          const to = place + DIRECTION_X[way]! + DIRECTION_Y[way]! * this.c.rooms[room]!.width;
          // Within a region there is nothing to look back over.
          const known = this.pages.get(memory, to);
          if (known >= 0 && this.nodeOf[known] === node) continue;
          if (!this.arrive(memory, to, state, action, inRegion ? node : -1)) return false;
          continue;
        }
      }
      if (!loaded) this.load(state, this.here);
      loaded = true;
      // A slanting leg passes the cells beside.
      if (!this.ask(plain && action < 4 ? this.quick : this.c, state, action)) return false;
    }
    if (this.uses?.isNear(room, cx, cy) !== true) return true;
    if (!loaded) this.load(state, this.here);
    for (let way = 0; way < 4; way++)
      if (canUse(this.c, this.here, way) && !this.ask(this.c, state, USE_LEFT + way)) return false;
    return true;
  }

  /** Plays an action in the simulation. */
  private ask(c: Compiled, state: number, action: number): boolean {
    const { there } = this;
    there.copyFrom(this.here);
    this.won = false;
    perform(c, there, action, (s) => this.see(s, state, action));
    if (this.won) {
      this.goal ??= { state, action };
      const node = this.nodeOf[state]!;
      if (this.winners.at(-1) !== node) this.winners.push(node);
    }
    return there.status !== PLAYING || this.meet(there, state, action);
  }

  /** Takes note of what a frame of an action did. */
  private see(s: SimState, state: number, action: number): void {
    if (s.status === WON) this.won = true;
    for (let i = 0; i < s.eventCount; i++) {
      const kind = s.eventKinds[i]!;
      if (!isDoing(kind)) continue;
      const fixture = s.eventSubjects[i]!;
      this.origins[fixture] ??= { state, action };
      const node = this.nodeOf[state]!;
      if (kind === TAKE && this.takers[fixture]!.at(-1) !== node) this.takers[fixture]!.push(node);
    }
  }

  /** A state of the simulation was come to. */
  private meet(s: SimState, from: number, action: number): boolean {
    this.layout.save(s, this.words, 0);
    const before = this.memories.count;
    const memory = this.memories.find(this.words, 1);
    if (memory < 0) return false;
    if (memory === before) {
      if (memory === this.settled.length) this.settled = longer(this.settled, memory * 2);
      this.settled[memory] = this.isSettled() ? 1 : 0;
    }
    const t = this.c.tileUnits;
    return this.arrive(memory, this.places.of(s.room, s.x / t, s.y / t), from, action);
  }

  /** Nothing counts as touched, and nobody stands in a door that closes behind. */
  private isSettled(): boolean {
    const { unsettled } = this.layout;
    for (let w = 1; w < unsettled.length; w++) if ((this.words[w]! & unsettled[w]!) !== 0) return false;
    return true;
  }

  /**
   * An action has led to a memory and a place.
   * @param node the node of that state, where it is known already
   */
  private arrive(memory: number, place: number, from: number, action: number, node = -1): boolean {
    let state = this.pages.get(memory, place);
    if (state < 0) {
      if (this.states === this.limit) return false;
      state = this.states++;
      if (state === this.placeOf.length) this.grow();
      this.pages.set(memory, place, state);
      this.placeOf[state] = place;
      this.memoryOf[state] = memory;
      this.parents[state] = from;
      this.actions[state] = action;
      this.moves[state] = from < 0 ? 0 : this.moves[from]! + 1;
      this.nodeOf[state] = node >= 0 ? node : this.nodeFor(memory, place);
    }
    if (from >= 0) this.connect(this.nodeOf[from]!, this.nodeOf[state]!);
    return true;
  }

  private nodeFor(memory: number, place: number): number {
    if (this.regions === null || this.settled[memory] === 0) return this.nodes++;
    const region = this.regions.of(place);
    if (region === NO_REGION) return this.nodes++;
    const key = memory * this.places.words.length + region;
    const known = this.regionNodes.get(key);
    if (known !== undefined) return known;
    this.regionNodes.set(key, this.nodes);
    if (this.nodes >= this.isRegion.length) this.isRegion = longer(this.isRegion, this.nodes * 2);
    this.isRegion[this.nodes] = 1;
    return this.nodes++;
  }

  private connect(from: number, to: number): void {
    if (from === to) return;
    if (this.edges === this.edgeFrom.length) {
      this.edgeFrom = longer(this.edgeFrom, this.edges * 2);
      this.edgeTo = longer(this.edgeTo, this.edges * 2);
    }
    this.edgeFrom[this.edges] = from;
    this.edgeTo[this.edges++] = to;
  }

  private grow(): void {
    const length = this.placeOf.length * 2;
    this.placeOf = longer(this.placeOf, length);
    this.memoryOf = longer(this.memoryOf, length);
    this.parents = longer(this.parents, length);
    this.actions = longer(this.actions, length);
    this.moves = longer(this.moves, length);
    this.nodeOf = longer(this.nodeOf, length);
  }
}
