import type { Compiled } from "../../compiled/compiled.ts";
import { SimState } from "../../compiled/state.ts";
import { PLAYING, TAKE, WON } from "../../world/vocabulary.ts";
import { DIRECTION_X, DIRECTION_Y, USE_LEFT, canUse, goings, perform } from "./actions.ts";
import type { Way } from "./answer.ts";
import { isDoing } from "./doings.ts";
import { withLegsAtOnce } from "./legs-at-once.ts";
import { KnownSteps, reachesFar } from "./known-steps.ts";
import { MoveQueue } from "./move-queue.ts";
import { NearUses } from "./near-uses.ts";
import { Places } from "./places.ts";
import { ASK, BLOCKED, PlainSteps } from "./plain-steps.ts";
import { PlayedSteps } from "./played-steps.ts";
import { RegionWalks } from "./region-walks.ts";
import { SearchNodes } from "./search-nodes.ts";
import { SearchPoints } from "./search-points.ts";
import { StateLayout, columnOf, roomOf, rowOf } from "./state-layout.ts";
import { StateTable, longer } from "./state-table.ts";

/** How something was first come by: the point that was left and the action that did it. */
export interface Origin {
  readonly point: number;
  readonly action: number;
}

const START = 0;

/**
 * Every state that the walker can be in at a choice moment, the nearest first, of rules that keep to the grid
 * (semantics.md section 10). A state is a place and a memory: what else matters, each kept once. The simulation is asked
 * wherever something other than tiles could matter.
 *
 * The states of one memory in one plain region are one node: the ways through it are the same whatever the walker has.
 * Only its exits are looked at, at the moves that it takes to come to them.
 */
export class GridSearch {
  readonly layout: StateLayout;
  readonly places: Places;
  /** The memories that were met. */
  readonly memories: StateTable;
  /** How regions are gone through; null where every step is asked for. */
  readonly walks: RegionWalks | null;
  readonly points = new SearchPoints();
  readonly nodes = new SearchNodes();
  /** Number of states that were met, those within regions counted. */
  states = 0;
  /** The nodes from which an action wins. */
  readonly winners: number[] = [];
  /** By fixture: from where what it does was first done; null before. */
  readonly origins: (Origin | null)[];
  /** By item fixture: the nodes from which an action takes it. */
  readonly takers: readonly number[][];
  /** From where the goal was first met. */
  goal: Origin | null = null;
  /** By place of a region: from where, plus 1, and by which action the walker first came in there. */
  readonly enteredFrom: Int32Array;
  readonly enteredBy: Uint8Array;
  /** By room 1 where the walker was met there. */
  readonly roomsMet: Uint8Array;
  /** Every state was looked at. */
  complete = false;
  private readonly queue = new MoveQueue();
  /** The points that are in no region, by memory and place; and which number each has. */
  private readonly lone: StateTable;
  private lonePoints = new Int32Array(1024);
  private readonly loneKey = new Int32Array(2);
  private readonly regionNodes = new Map<number, number>();
  private settled = new Uint8Array(64);
  private readonly plain: PlainSteps | null;
  private readonly quick: Compiled;
  private readonly knownSteps: KnownSteps | null;
  private readonly ways: readonly number[];
  private readonly uses: NearUses | null;
  /** The state that is looked at, and its memory; what an action makes of it. */
  private readonly here: SimState;
  private hereMemory = -1;
  private herePlace = -1;
  private readonly there: SimState;
  private readonly words: Int32Array;
  /** The steps of ways that were asked for. */
  private played: PlayedSteps | null = null;
  /** The action under way, and what its frames say. */
  private askedPoint = 0;
  private askedAction = 0;
  private won = false;
  /** It can be told from what is near alone: what it takes, and whether nothing reaches far. */
  private takes = 0;
  private taken = -1;
  private isNear = true;
  private readonly seeFrame = (s: SimState): void => this.see(s);

  /**
   * @param start the state of row 0; not changed
   * @param limit the most points that are looked at
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
    this.lone = new StateTable(2, limit);
    this.origins = c.fixtures.all.map(() => null);
    this.takers = c.fixtures.all.map(() => []);
    this.enteredFrom = new Int32Array(this.places.cells);
    this.enteredBy = new Uint8Array(this.places.cells);
    this.roomsMet = new Uint8Array(c.rooms.length);
    // What keeps going is not decided by the tiles beside alone.
    this.plain = asks || (c.rules.gait === "glide" && c.rules.glide.keepGoing) ? null : new PlainSteps(c);
    this.ways = goings(c);
    this.uses = c.fixtures.all.some(({ opensOnUse }) => opensOnUse) ? new NearUses(c) : null;
    this.walks = this.plain && new RegionWalks(c, this.places, this.plain, this.ways.length - 1, this.uses);
    this.quick = asks ? c : withLegsAtOnce(c, start);
    // A checkpoint that holds what a death gives back looks at all rooms.
    const holds = c.world.respawnRestores === "checkpoint";
    this.knownSteps = this.plain === null || holds ? null : new KnownSteps(c, this.layout, this.places, limit);
    this.here = new SimState(c);
    this.there = new SimState(c);
    this.here.copyFrom(start);
    this.there.copyFrom(start);
    this.words = new Int32Array(this.layout.words);
    this.layout.save(this.there, this.words, 0);
    this.alone(this.remember(), this.placeIn(this.there), -1, 0, 0);
  }

  /**
   * Looks at so many points more.
   * @returns whether there is more to look at: not where every state was, or the limit is reached
   */
  run(points: number): boolean {
    for (let left = points; left > 0;) {
      const point = this.queue.take();
      if (point < 0) {
        this.complete = true;
        return false;
      }
      if (this.points.done[point] === 1) continue;
      this.points.done[point] = 1;
      left--;
      if (!this.expand(point)) return false;
    }
    return true;
  }

  /** The actions that lead to a point. */
  actionsTo(point: number): number[] {
    return this.actionsBack(point).reverse();
  }

  /** The actions that lead into a place of a region or of its own, from a point by an action; none for the start. */
  actionsBy(parent: number, action: number): number[] {
    return parent < 0 ? [] : [action, ...this.actionsBack(parent)].reverse();
  }

  /** The way of actions from the start. */
  wayOf(actions: readonly number[]): Way {
    return (this.played ??= new PlayedSteps(this.c, this.start, this.layout, this.plain)).wayOf(actions);
  }

  /** Whether a state of the simulation is at a choice moment in a place, with a memory where one is named. */
  isAt(s: SimState, place: number, memory: number | null): boolean {
    const t = this.c.tileUnits;
    if (s.status !== PLAYING || s.x % t !== 0 || s.y % t !== 0 || this.placeIn(s) !== place) return false;
    if (memory === null) return true;
    const { layout, memories, words } = this;
    layout.save(s, words, 0);
    const width = layout.words - 1;
    for (let w = 0; w < width; w++) if (words[w + 1] !== memories.words[memory * width + w]) return false;
    return true;
  }

  /** Puts a state into one of the simulation's. */
  load(memory: number, place: number, into: SimState): void {
    this.unpack(memory, place, this.words);
    this.layout.load(into, this.words, 0);
  }

  /** The words of a state. */
  unpack(memory: number, place: number, into: Int32Array): void {
    const width = this.layout.words - 1;
    into[0] = this.places.words[place]!;
    for (let w = 0; w < width; w++) into[w + 1] = this.memories.words[memory * width + w]!;
  }

  private actionsBack(point: number): number[] {
    const { placeOf, parents, actions, entries } = this.points;
    const back: number[] = [];
    for (let at = point; at !== START; at = parents[at]!) {
      for (const action of this.walks?.actionsBack(entries[at]!, placeOf[at]!) ?? []) back.push(action);
      back.push(actions[at]!);
    }
    return back;
  }

  /** Tries every action from a point; false where the limit is reached. */
  private expand(point: number): boolean {
    const place = this.points.placeOf[point]!;
    const memory = this.nodes.memoryOf[this.points.nodeOf[point]!]!;
    const word = this.places.words[place]!;
    const [room, cx, cy] = [roomOf(word), columnOf(word), rowOf(word)];
    // Row 0 may be as no choice moment is: a goal that is met already.
    const plain =
      point !== START && this.plain !== null && this.settled[memory] === 1 && this.plain.isPlain(room, cx, cy);
    const inRegion = plain && this.walks!.numberOf(place) > 0;
    for (let i = 0; i < this.ways.length; i++) {
      const action = this.ways[i]!;
      if (plain) {
        if (action >= USE_LEFT) continue;
        const way = this.plain.step(room, cx, cy, action);
        if (way === BLOCKED) continue;
        if (way !== ASK) {
          // Within a region a step leads to another of its cells.
          if (inRegion) continue;
          const to = place + DIRECTION_X[way]! + DIRECTION_Y[way]! * this.c.rooms[room]!.width;
          if (!this.arrive(memory, to, point, action)) return false;
          continue;
        }
      }
      // A slanting leg passes the cells beside.
      if (!this.ask(plain && action < 4 ? this.quick : this.c, point, action)) return false;
    }
    if (this.uses?.isNear(room, cx, cy) !== true) return true;
    this.loadHere(memory, place);
    for (let way = 0; way < 4; way++)
      if (canUse(this.c, this.here, way) && !this.ask(this.c, point, USE_LEFT + way)) return false;
    return true;
  }

  private loadHere(memory: number, place: number): void {
    if (memory === this.hereMemory && place === this.herePlace) return;
    if (memory === this.hereMemory) this.layout.place(this.here, this.places.words[place]!);
    else this.load(memory, place, this.here);
    this.hereMemory = memory;
    this.herePlace = place;
  }

  /** Plays an action in the simulation, or as it was played before where all that matters in the room was the same. */
  private ask(c: Compiled, point: number, action: number): boolean {
    const { knownSteps, there, words } = this;
    const place = this.points.placeOf[point]!;
    const node = this.points.nodeOf[point]!;
    const memory = this.nodes.memoryOf[node]!;
    let step = -1;
    if (knownSteps !== null) {
      this.unpack(memory, place, words);
      step = knownSteps.find(words, place, action);
      if (step >= 0 && knownSteps.isKnown(step)) {
        const taken = knownSteps.takenBy(step);
        if (taken >= 0) this.noteTaker(taken, node);
        const to = knownSteps.apply(step, words, place);
        const after = this.remember();
        return after >= 0 && this.arrive(after, to, point, action);
      }
    }
    this.loadHere(memory, place);
    there.copyFrom(this.here);
    this.won = false;
    this.takes = 0;
    this.taken = -1;
    this.isNear = true;
    this.askedPoint = point;
    this.askedAction = action;
    perform(c, there, action, this.seeFrame);
    if (this.won) {
      this.goal ??= { point, action };
      if (this.winners.at(-1) !== node) this.winners.push(node);
    }
    if (there.status !== PLAYING) return true;
    this.layout.save(there, words, 0);
    const to = this.placeIn(there);
    if (step >= 0 && this.isNear && this.takes <= 1) knownSteps!.learn(step, words, to, this.taken);
    const after = this.remember();
    return after >= 0 && this.arrive(after, to, point, action);
  }

  /** Takes note of what a frame of an action did. */
  private see(s: SimState): void {
    if (s.status === WON) this.won = true;
    const { askedPoint: point, askedAction: action } = this;
    for (let i = 0; i < s.eventCount; i++) {
      const kind = s.eventKinds[i]!;
      if (reachesFar(kind)) this.isNear = false;
      if (!isDoing(kind)) continue;
      const fixture = s.eventSubjects[i]!;
      this.origins[fixture] ??= { point, action };
      if (kind !== TAKE) continue;
      // Whether it is the last one, other rooms know.
      if (this.layout.countedItems[this.c.fixtures.all[fixture]!.item] === 1) this.isNear = false;
      this.takes++;
      this.taken = fixture;
      this.noteTaker(fixture, this.points.nodeOf[point]!);
    }
  }

  private noteTaker(fixture: number, node: number): void {
    if (this.takers[fixture]!.at(-1) !== node) this.takers[fixture]!.push(node);
  }

  /** The number of the memory that the words tell; -1 where the limit is reached. */
  private remember(): number {
    const before = this.memories.count;
    const memory = this.memories.find(this.words, 1);
    if (memory === before) {
      if (memory === this.settled.length) this.settled = longer(this.settled, memory * 2);
      this.settled[memory] = this.isSettled() ? 1 : 0;
    }
    return memory;
  }

  private placeIn(s: SimState): number {
    const t = this.c.tileUnits;
    return this.places.of(s.room, s.x / t, s.y / t);
  }

  /** Nothing counts as touched, and nobody stands in a door that closes behind. */
  private isSettled(): boolean {
    const { unsettled } = this.layout;
    for (let w = 1; w < unsettled.length; w++) if ((this.words[w]! & unsettled[w]!) !== 0) return false;
    return true;
  }

  /** An action has led from a point to a memory and a place; false where the limit is reached. */
  private arrive(memory: number, place: number, from: number, action: number): boolean {
    const moves = this.points.moves[from]! + 1;
    const region =
      this.walks !== null && place < this.places.cells && this.settled[memory] === 1 ? this.walks.numberOf(place) : 0;
    const node =
      region > 0
        ? this.enter(memory, region, place, from, action, moves)
        : this.alone(memory, place, from, action, moves);
    if (node < 0) return false;
    this.roomsMet[roomOf(this.places.words[place]!)] = 1;
    this.nodes.connect(this.points.nodeOf[from]!, node);
    return true;
  }

  /** Somewhere in no region, or the start. */
  private alone(memory: number, place: number, from: number, action: number, moves: number): number {
    const { lone, loneKey } = this;
    const before = lone.count;
    loneKey[0] = memory;
    loneKey[1] = place;
    const number = lone.find(loneKey, 0);
    if (number < before) return number < 0 ? -1 : this.points.nodeOf[this.lonePoints[number]!]!;
    if (this.points.count === this.limit) return -1;
    if (number === this.lonePoints.length) this.lonePoints = longer(this.lonePoints, number * 2);
    this.lonePoints[number] = this.points.count;
    const node = this.nodes.add(memory, 1, place, from, action);
    const point = this.points.add(place, node);
    this.nodes.firstPoints[node] = point;
    this.points.come(point, moves, from, action, place);
    this.queue.add(point, moves);
    this.states++;
    return node;
  }

  /** Into a region: its exits are come to from there, if that is sooner than from where one came in before. */
  private enter(memory: number, region: number, place: number, from: number, action: number, moves: number): number {
    const walks = this.walks!;
    const key = memory * walks.most + region;
    let node = this.regionNodes.get(key);
    if (node === undefined) {
      const { cells, exits } = walks.of(region);
      if (this.points.count + exits.length > this.limit) return -1;
      // The start is a point of its own.
      const isStarts = memory === 0 && walks.numberOf(this.points.placeOf[START]!) === region;
      const size = cells.length - (isStarts ? 1 : 0);
      node = this.nodes.add(memory, size, place, from, action);
      this.regionNodes.set(key, node);
      this.nodes.firstPoints[node] = this.points.count;
      for (let i = 0; i < exits.length; i++) this.points.add(exits[i]!, node);
      this.states += size;
    }
    if (this.enteredFrom[place] === 0) {
      this.enteredFrom[place] = from + 1;
      this.enteredBy[place] = action;
    }
    const first = this.nodes.firstPoints[node]!;
    const exit = walks.exitNumber(place);
    // From where one is already there sooner, every exit is.
    if (exit >= 0 && this.points.moves[first + exit]! <= moves) return node;
    const far = walks.movesToExits(region, place);
    for (let i = 0; i < far.length; i++) {
      const sum = moves + far[i]!;
      if (sum >= this.points.moves[first + i]!) continue;
      this.points.come(first + i, sum, from, action, place);
      this.queue.add(first + i, sum);
    }
    return node;
  }
}
