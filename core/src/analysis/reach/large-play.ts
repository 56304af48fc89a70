import type { Compiled } from "../../compiled/compiled.ts";
import { SimState } from "../../compiled/state.ts";
import { PLAYING, WON } from "../../world/vocabulary.ts";
import { USE_LEFT, canUse, goings, perform } from "./actions.ts";
import { isDoing } from "./doings.ts";
import { withLegsAtOnce } from "./legs-at-once.ts";
import { NearUses } from "./near-uses.ts";
import { Places } from "./places.ts";
import { NO_REGION, PlainRegions } from "./plain-regions.ts";
import { ASK, BLOCKED, PlainSteps } from "./plain-steps.ts";
import { StateLayout, columnOf, roomOf, rowOf } from "./state-layout.ts";
import { StateTable } from "./state-table.ts";

/** So many steps are asked for before it is given up that anything new comes. */
const MOST_ASKS = 60_000;
/** After so many items that are taken for good their cells become plain. */
const GONE_AT_ONCE = 16;
/** So many memories are told apart. */
const MOST_MEMORIES = 1 << 20;

/** Where one stands in a row of play: a region or a place of none, with a memory, and how one came there. */
interface Stand {
  readonly memory: number;
  readonly place: number;
  readonly from: Stand | null;
  /** The plain steps of its time. */
  readonly plain: PlainSteps | null;
  /** The actions from there. */
  readonly actions: readonly number[];
  readonly moves: number;
}

/** A play: where it stood, and the actions from there. */
export interface Played {
  readonly stand: Stand;
  readonly actions: readonly number[];
}

/** The moves of a play, from the start. */
export const movesOf = ({ stand, actions }: Played): number => stand.moves + actions.length;

/**
 * Plays a world that is too large to look at all of its states: again and again the nearest thing that was not done yet,
 * over regions and not over cells. What it does has a witness, not always the shortest (semantics.md section 10, "Large
 * worlds").
 */
export class LargePlay {
  /** By fixture the first play that did what it is there for. */
  readonly fixtures: (Played | null)[];
  goal: Played | null = null;
  /** By room and cell the moves after which one stood there first; -1 where one never did. */
  readonly first: readonly Int32Array[];
  /** The stands from which cells were first stood on; by place the number of its stand, plus 1. */
  private readonly stands: Stand[] = [];
  private readonly standOf: Int32Array;
  private readonly layout: StateLayout;
  private readonly places: Places;
  private plain: PlainSteps | null;
  private regions: PlainRegions | null;
  /** Items taken for good: the cells in which they stood become plain, some at a time. */
  private readonly gone = new Set<number>();
  private goneLately = 0;
  private readonly quick: Compiled;
  private readonly uses: NearUses | null;
  private readonly memories: StateTable;
  private readonly settled: boolean[] = [];
  private readonly here: SimState;
  private readonly there: SimState;
  private readonly words: Int32Array;
  private readonly ways: readonly number[];
  /** Of the region walk under way: by place the walk that met it, from where and by which way. */
  private readonly walkOf: Int32Array;
  private readonly walkFrom: Int32Array;
  private readonly walkWay: Uint8Array;
  private walks = 0;
  private readonly queue: Int32Array;
  private readonly depth: Int32Array;
  private didNew = false;

  constructor(
    private readonly c: Compiled,
    private readonly start: SimState,
  ) {
    this.layout = new StateLayout(c);
    this.places = new Places(c.rooms);
    this.plain = c.rules.gait === "glide" && c.rules.glide.keepGoing ? null : new PlainSteps(c);
    this.ways = goings(c);
    this.regions = this.plain && new PlainRegions(c, this.places, this.plain, this.ways.length - 1);
    this.quick = withLegsAtOnce(c, start);
    this.uses = c.fixtures.all.some(({ opensOnUse }) => opensOnUse) ? new NearUses(c) : null;
    this.memories = new StateTable(this.layout.words - 1, MOST_MEMORIES);
    this.here = new SimState(c);
    this.there = new SimState(c);
    this.here.copyFrom(start);
    this.there.copyFrom(start);
    this.words = new Int32Array(this.layout.words);
    this.fixtures = c.fixtures.all.map(() => null);
    this.first = c.rooms.map(({ width, height }) => new Int32Array(width * height).fill(-1));
    this.standOf = new Int32Array(this.places.cells);
    this.walkOf = new Int32Array(this.places.words.length);
    this.walkFrom = new Int32Array(this.places.words.length);
    this.walkWay = new Uint8Array(this.places.words.length);
    this.queue = new Int32Array(this.places.words.length);
    this.depth = new Int32Array(this.places.words.length);
    this.play();
  }

  /** The actions of a play, from the start. */
  actionsOf({ stand, actions }: Played): number[] {
    const parts: (readonly number[])[] = [actions];
    for (let at: Stand | null = stand; at !== null; at = at.from) parts.push(at.actions);
    return parts.reverse().flat();
  }

  /** The play that first stood on a cell; null where none did. */
  toCell(room: number, cell: number): Played | null {
    const place = this.places.firstOf[room]! + cell;
    const stand = this.stands[this.standOf[place]! - 1];
    return stand ? { stand, actions: this.pathTo(stand, place) } : null;
  }

  private play(): void {
    let stand: Stand | null = {
      ...this.placeIn(this.start),
      from: null,
      plain: this.plain,
      actions: [],
      moves: 0,
    };
    while (stand !== null) {
      stand = this.toSomethingNew(stand);
      if (stand === null || this.plain === null || this.goneLately < GONE_AT_ONCE) continue;
      this.goneLately = 0;
      this.plain = new PlainSteps(this.c, this.gone);
      this.regions = new PlainRegions(this.c, this.places, this.plain, this.ways.length - 1);
      stand = { ...stand, plain: this.plain };
    }
  }

  /** Goes on to the nearest thing that was not done yet; null where none is found. */
  private toSomethingNew(begin: Stand): Stand | null {
    const seen = new Set<number>();
    const queue: Stand[] = [];
    const add = (stand: Stand): void => {
      const region = this.regionOf(stand);
      const key = stand.memory * 2 ** 22 + (region === NO_REGION ? stand.place : this.places.words.length + region);
      if (seen.has(key)) return;
      seen.add(key);
      queue.push(stand);
    };
    add(begin);
    let asks = 0;
    for (const stand of queue) {
      const inRegion = this.regionOf(stand) !== NO_REGION;
      const cells = inRegion ? this.walk(stand) : [stand.place];
      if (!inRegion) this.note(stand, stand.place, 0);
      for (const place of cells) {
        for (const action of this.asksAt(stand, place, inRegion)) {
          if (++asks > MOST_ASKS) return null;
          const made = this.ask(stand, place, action, inRegion);
          if (made === null) continue;
          if (this.didNew) return made;
          add(made);
        }
      }
    }
    return null;
  }

  private regionOf({ memory, place }: Stand): number {
    return this.regions === null || !this.settled[memory] ? NO_REGION : this.regions.of(place);
  }

  /** The actions at a place that the simulation must be asked for. */
  private asksAt(stand: Stand, place: number, inRegion: boolean): number[] {
    const word = this.places.words[place]!;
    const [room, cx, cy] = [roomOf(word), columnOf(word), rowOf(word)];
    const asked = inRegion
      ? this.ways.filter((way) => way < USE_LEFT && this.plain!.step(room, cx, cy, way) === ASK)
      : [...this.ways];
    if (this.uses?.isNear(room, cx, cy) !== true) return asked;
    this.load(stand.memory, place);
    for (let way = 0; way < 4; way++) if (canUse(this.c, this.here, way)) asked.push(USE_LEFT + way);
    return asked;
  }

  /** Plays an action; null where the state stays the same or the run has ended. */
  private ask(stand: Stand, place: number, action: number, inRegion: boolean): Stand | null {
    const { there } = this;
    this.load(stand.memory, place);
    there.copyFrom(this.here);
    this.didNew = false;
    const path = inRegion ? this.pathOfWalk(place) : [];
    const moves = stand.moves + path.length + 1;
    const played = (): Played => ({ stand, actions: [...path, action] });
    perform(inRegion && action < 4 ? this.quick : this.c, there, action, (s) => {
      for (let i = 0; i < s.eventCount; i++) {
        const fixture = s.eventSubjects[i]!;
        if (!isDoing(s.eventKinds[i]!) || this.fixtures[fixture] !== null) continue;
        this.fixtures[fixture] = played();
        this.didNew = true;
        this.forget(fixture);
      }
      if (s.status === WON && this.goal === null) this.goal = played();
    });
    if (there.status !== PLAYING) {
      this.didNew = false;
      return null;
    }
    return { ...this.placeIn(there), from: stand, plain: this.plain, actions: [...path, action], moves };
  }

  /** An item that is taken for good does nothing any more. */
  private forget(fixture: number): void {
    const { gives, keeps } = this.c.fixtures.all[fixture]!;
    if (!gives || keeps !== 0 || this.c.world.respawnRestores !== "keeps") return;
    this.gone.add(fixture);
    this.goneLately++;
  }

  private placeIn(s: SimState): { readonly memory: number; readonly place: number } {
    this.layout.save(s, this.words, 0);
    const before = this.memories.count;
    const memory = this.memories.find(this.words, 1);
    if (memory === before)
      this.settled[memory] = this.layout.unsettled.every((mask, w) => w === 0 || (this.words[w]! & mask) === 0);
    const t = this.c.tileUnits;
    return { memory, place: this.places.of(s.room, s.x / t, s.y / t) };
  }

  private load(memory: number, place: number): void {
    const width = this.layout.words - 1;
    this.words[0] = this.places.words[place]!;
    for (let w = 0; w < width; w++) this.words[w + 1] = this.memories.words[memory * width + w]!;
    this.layout.load(this.here, this.words, 0);
  }

  /** Walks over a region from a stand; gives the places at which the simulation must be asked, the nearest first. */
  private walk(stand: Stand): number[] {
    const { queue, depth, walkOf, walkFrom, walkWay, places, standOf } = this;
    const plain = stand.plain!;
    // Plain steps stay in their room.
    const room = roomOf(places.words[stand.place]!);
    const first = places.firstOf[room]!;
    const offsets = plain.offsets[room]!;
    const mine = ++this.walks;
    const ways = this.ways.length - 1;
    const exits: number[] = [];
    let count = 1;
    queue[0] = stand.place;
    depth[0] = 0;
    walkOf[stand.place] = mine;
    walkFrom[stand.place] = -1;
    for (let i = 0; i < count; i++) {
      const place = queue[i]!;
      if (standOf[place] === 0) this.note(stand, place, depth[i]!);
      let asks = this.uses?.isNear(room, columnOf(places.words[place]!), rowOf(places.words[place]!)) === true;
      for (let way = 0; way < ways; way++) {
        const went = plain.stepAt(room, place - first, way);
        if (went === ASK) asks = true;
        if (went === ASK || went === BLOCKED) continue;
        const next = place + offsets[went]!;
        if (walkOf[next] === mine) continue;
        walkOf[next] = mine;
        walkFrom[next] = place;
        walkWay[next] = way;
        depth[count] = depth[i]! + 1;
        queue[count++] = next;
      }
      if (asks) exits.push(place);
    }
    return exits;
  }

  /** The ways of the last walk to a place. */
  private pathOfWalk(place: number): number[] {
    const path: number[] = [];
    for (let at = place; this.walkFrom[at]! >= 0; at = this.walkFrom[at]!) path.push(this.walkWay[at]!);
    return path.reverse();
  }

  private pathTo(stand: Stand, to: number): number[] {
    if (stand.place === to) return [];
    this.walk(stand);
    return this.pathOfWalk(to);
  }

  /** Takes note that one stands on a cell after so many moves more. */
  private note(stand: Stand, place: number, more: number): void {
    if (place >= this.places.cells || this.standOf[place] !== 0) return;
    if (this.stands.at(-1) !== stand) this.stands.push(stand);
    this.standOf[place] = this.stands.length;
    const room = roomOf(this.places.words[place]!);
    this.first[room]![place - this.places.firstOf[room]!] = stand.moves + more;
  }
}
