import type { Compiled } from "../../compiled/compiled.ts";
import type { NearUses } from "./near-uses.ts";
import type { Places } from "./places.ts";
import { NO_REGION, PlainRegions } from "./plain-regions.ts";
import { ASK, BLOCKED } from "./plain-steps.ts";
import type { PlainSteps } from "./plain-steps.ts";
import { columnOf, roomOf, rowOf } from "./state-layout.ts";

/** A region with more exits than this is not gone through as one: the table of all ways between them would be too large. */
const MOST_EXITS = 2048;

/** A region of plain cells, and its exits: the cells from which a step leads to where the simulation must be asked. */
export interface Region {
  readonly cells: Int32Array;
  readonly exits: Int32Array;
}

const NO_ACTIONS: readonly number[] = [];

/**
 * How far it is, in moves, through regions of plain cells: from where one comes in to each exit. It is the same whatever
 * the walker has, so that it is worked out once.
 */
export class RegionWalks {
  /** More than there are regions. */
  readonly most: number;
  /** By region; null for what is too large. */
  private readonly known: (Region | null | undefined)[] = [];
  /** By place its number among its region's exits, plus 1. */
  private readonly exitNumbers: Int32Array;
  /** By place where one came in, the moves to the exits. */
  private readonly toExits: Int32Array[] = [];
  /** By both places the actions between them, for ways that were asked for. */
  private readonly backs = new Map<number, readonly number[]>();
  private readonly regions: PlainRegions;
  /** Of the walk under way: by place the walk that met it, its moves, and the way by which it was come to, and from where. */
  private readonly walkOf: Int32Array;
  private readonly depth: Int32Array;
  private readonly cameBy: Uint8Array;
  private readonly cameFrom: Int32Array;
  private readonly queue: Int32Array;
  private walks = 0;

  constructor(
    c: Compiled,
    private readonly places: Places,
    private readonly plain: PlainSteps,
    readonly ways: number,
    private readonly uses: NearUses | null,
  ) {
    this.regions = new PlainRegions(c, places, plain, ways);
    this.most = places.cells + 1;
    this.exitNumbers = new Int32Array(places.cells);
    this.walkOf = new Int32Array(places.cells);
    this.depth = new Int32Array(places.cells);
    this.cameBy = new Uint8Array(places.cells);
    this.cameFrom = new Int32Array(places.cells);
    this.queue = new Int32Array(places.cells);
  }

  /** The region of a place as a number from 1 on; 0 where it is in none. */
  numberOf(place: number): number {
    const number = this.regions.of(place);
    if (number === NO_REGION) return 0;
    if (this.known[number] === undefined) this.known[number] = this.gather(place);
    return this.known[number] === null ? 0 : number;
  }

  of(number: number): Region {
    return this.known[number]!;
  }

  /** The number of a place among the exits of its region; -1 where it is none. */
  exitNumber(place: number): number {
    return this.exitNumbers[place]! - 1;
  }

  /** By exit of a region the moves to it from one of its cells. */
  movesToExits(number: number, from: number): Int32Array {
    let moves = this.toExits[from];
    if (moves === undefined) {
      this.walk(from);
      moves = this.of(number).exits.map((exit) => this.depth[exit]!);
      this.toExits[from] = moves;
    }
    return moves;
  }

  /** The actions by which one goes from a cell of a region to another one of it, the last one first. */
  actionsBack(from: number, to: number): readonly number[] {
    if (from === to) return NO_ACTIONS;
    const key = from * this.most + to;
    const known = this.backs.get(key);
    if (known !== undefined) return known;
    const actions: number[] = [];
    this.backs.set(key, actions);
    this.walk(from, to);
    for (let place = to; place !== from; place = this.cameFrom[place]!) actions.push(this.cameBy[place]!);
    return actions;
  }

  /** Where a plain step of a cell leads; -1 where it leads nowhere, or the simulation must be asked. */
  next(place: number, way: number): number {
    const room = roomOf(this.places.words[place]!);
    const went = this.plain.stepAt(room, place - this.places.firstOf[room]!, way);
    return went === ASK || went === BLOCKED ? -1 : place + this.plain.offsets[room]![went]!;
  }

  /**
   * The cells of a region in the order of their moves from one of them, until the next walk.
   * @param to where it may end
   */
  private walk(from: number, to = -1): Int32Array {
    const walk = ++this.walks;
    const { cameBy, cameFrom, depth, plain, queue, walkOf, ways } = this;
    // Plain steps stay in their room.
    const room = roomOf(this.places.words[from]!);
    const first = this.places.firstOf[room]!;
    const offsets = plain.offsets[room]!;
    walkOf[from] = walk;
    depth[from] = 0;
    let count = 0;
    queue[count++] = from;
    for (let i = 0; i < count; i++) {
      const place = queue[i]!;
      for (let way = 0; way < ways; way++) {
        const went = plain.stepAt(room, place - first, way);
        if (went === ASK || went === BLOCKED) continue;
        const next = place + offsets[went]!;
        if (walkOf[next] === walk) continue;
        walkOf[next] = walk;
        depth[next] = depth[place]! + 1;
        cameBy[next] = way;
        cameFrom[next] = place;
        if (next === to) return queue.subarray(0, count);
        queue[count++] = next;
      }
    }
    return queue.subarray(0, count);
  }

  private gather(place: number): Region | null {
    const cells = this.walk(place).slice();
    const exits = cells.filter((cell) => this.isExit(cell));
    if (exits.length > MOST_EXITS) return null;
    exits.forEach((exit, i) => (this.exitNumbers[exit] = i + 1));
    return { cells, exits };
  }

  private isExit(place: number): boolean {
    const word = this.places.words[place]!;
    const [room, cx, cy] = [roomOf(word), columnOf(word), rowOf(word)];
    for (let way = 0; way < this.ways; way++) if (this.plain.step(room, cx, cy, way) === ASK) return true;
    return this.uses?.isNear(room, cx, cy) === true;
  }
}
