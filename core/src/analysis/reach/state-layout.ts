import type { Compiled } from "../../compiled/compiled.ts";
import type { CompiledFixture } from "../../compiled/compiled-fixture.ts";
import { LOCK_COLLECTED, LOCK_ITEM, LOCK_NONE } from "../../compiled/compiled-fixture.ts";
import type { Memory } from "../../compiled/memory.ts";
import { NO_ROOM } from "../../compiled/memory.ts";
import type { SimState } from "../../compiled/state.ts";
import { NO_BUTTON } from "../../compiled/state.ts";
import { follow } from "../../rooms/doors.ts";
import { isCheckpoint, isHazard } from "../../compiled/compiled-fixture.ts";
import { PLAYING } from "../../world/vocabulary.ts";

/** Cells are counted from here, so that places beyond a room's sides are whole numbers from 0 on too. */
const BEYOND = 1024;
/** More of an item than this is never told apart. */
const MOST_TOLD = 0xffff;

/**
 * How the states of one world are packed into words of 32 bits: what matters at a choice moment, and of that only what a
 * lock, a goal or another thing asks for (semantics.md section 10). The first word is the room and the cell.
 */
export class StateLayout {
  /** Words of a state. */
  readonly words: number;
  /** Of each word the bits that say that something is touched, or that the body was in a door that closes behind it. */
  readonly unsettled: Int32Array;
  /** By item: some lock asks for it; a lock or the goal does. */
  readonly lockItems: Uint8Array;
  readonly askedItems: Uint8Array;
  /** By item 1 where a door or the goal waits until all of it are taken, wherever they are. */
  readonly countedItems: Uint8Array;
  /** Item fixtures that are asked for. */
  readonly askedFixtures: readonly number[];
  /** Of each word the bits of items taken that a lock asks for, doors opened and circuits on: what makes a class of states. */
  readonly classes: Int32Array;
  /** What is packed besides flags; and of flags the index, the word and the bit, side by side for speed. */
  private readonly fields: readonly Field[];
  private readonly others: readonly Field[];
  private readonly flags: readonly Field[];
  private readonly flagIndices: Int32Array;
  private readonly flagWords: Int32Array;
  private readonly flagShifts: Int32Array;
  /** By fixture the bit of its being taken, for those that are asked for. */
  private readonly takenBits = new Map<number, Field>();

  constructor(private readonly c: Compiled) {
    const { all } = c.fixtures;
    this.lockItems = new Uint8Array(c.fixtures.giving.length);
    for (const { lock, item } of all) if (lock === LOCK_ITEM || lock === LOCK_COLLECTED) this.lockItems[item] = 1;
    this.askedItems = this.lockItems.slice();
    this.countedItems = new Uint8Array(c.fixtures.giving.length);
    for (const { lock, item } of all) if (lock === LOCK_COLLECTED) this.countedItems[item] = 1;
    if (c.goalItem >= 0) this.askedItems[c.goalItem] = this.countedItems[c.goalItem] = 1;
    this.askedFixtures = all.flatMap(({ gives, item }, i) => (gives && this.askedItems[item] === 1 ? [i] : []));
    const packer = new Packer();
    this.askFor(packer);
    this.fields = packer.fields;
    this.flags = packer.fields.filter(({ flag }) => flag >= 0);
    this.others = packer.fields.filter(({ flag }) => flag < 0);
    this.flagIndices = Int32Array.from(this.flags, ({ flag }) => flag);
    this.flagWords = Int32Array.from(this.flags, ({ word }) => word);
    this.flagShifts = Int32Array.from(this.flags, ({ shift }) => shift);
    this.words = packer.words;
    this.unsettled = new Int32Array(this.words);
    this.classes = new Int32Array(this.words);
    for (const { word, shift, unsettles, parts } of this.fields) {
      if (unsettles) this.unsettled[word]! |= 1 << shift;
      if (parts) this.classes[word]! |= 1 << shift;
    }
  }

  /** Packs what matters of a state at a choice moment. */
  save(s: SimState, into: Int32Array, at: number): void {
    const { tileUnits } = this.c;
    into[at] = positionWord(s.room, s.x / tileUnits, s.y / tileUnits);
    for (let w = 1; w < this.words; w++) into[at + w] = 0;
    const { flagIndices, flagShifts, flagWords, others } = this;
    const { flags } = s.memory;
    for (let i = 0; i < flagIndices.length; i++) into[at + flagWords[i]!]! |= flags[flagIndices[i]!]! << flagShifts[i]!;
    for (let i = 0; i < others.length; i++) into[at + others[i]!.word]! |= others[i]!.read(s) << others[i]!.shift;
  }

  /** Whether an item fixture that is asked for is taken in a packed state. */
  isTaken(words: Int32Array, at: number, fixture: number): boolean {
    const { word, shift } = this.takenBits.get(fixture)!;
    return ((words[at + word]! >>> shift) & 1) === 1;
  }

  /** Makes a state of the same compiled world what was packed; what does not matter is as at rest. Allocates nothing. */
  load(s: SimState, from: Int32Array, at: number): void {
    this.place(s, from[at]!);
    const { memory } = s;
    // What is not packed does not matter; it is not touched either.
    memory.letGo();
    const { flagIndices, flagShifts, flagWords, flags, others } = this;
    for (let i = 0; i < flagIndices.length; i++) {
      const bit = (from[at + flagWords[i]!]! >>> flagShifts[i]!) & 1;
      if (memory.flags[flagIndices[i]!] !== bit) flags[i]!.write(s, bit);
    }
    for (let i = 0; i < others.length; i++) {
      const { word, shift, mask, write } = others[i]!;
      write(s, (from[at + word]! >>> shift) & mask);
    }
    follow(this.c, s, false);
    memory.nearRoom = NO_ROOM;
    memory.pushedCount = 0;
    memory.pushedBeforeCount = 0;
  }

  /** Puts a state that was loaded, and not stepped since, to another place. */
  place(s: SimState, position: number): void {
    const { tileUnits } = this.c;
    s.room = position >>> 24;
    s.x = (((position & 0xfff) - BEYOND) * tileUnits) | 0;
    s.y = ((((position >>> 12) & 0xfff) - BEYOND) * tileUnits) | 0;
    rest(s);
    s.memory.nearRoom = NO_ROOM;
  }

  /**
   * Of each word the bits that can matter, or change, in a step that has to do with some fixtures only, ends no life and
   * collects nothing that is counted: those of these fixtures, circuits, and what their locks ask for.
   */
  bitsNear(near: ReadonlySet<number>): Int32Array {
    const { all } = this.c.fixtures;
    const fixtures = [...near].map((i) => all[i]!);
    const awaited = new Set(fixtures.flatMap(({ lock, item }) => (lock === LOCK_COLLECTED ? [item] : [])));
    const usesBag = fixtures.some(({ gives, lock }) => gives || lock === LOCK_ITEM);
    const setsCheckpoint = fixtures.some(isCheckpoint);
    const bits = new Int32Array(this.words);
    for (const { flag, tells, word, shift, mask } of this.fields) {
      const fixture = flag >= 0 && flag < 4 * all.length ? flag % all.length : -1;
      const counts =
        fixture < 0
          ? tells === "circuit" || (tells === "bag" && usesBag) || (tells === "checkpoint" && setsCheckpoint)
          : near.has(fixture) || (all[fixture]!.gives && awaited.has(all[fixture]!.item));
      if (counts) bits[word]! |= mask << shift;
    }
    return bits;
  }

  private askFor(packer: Packer): void {
    const { all } = this.c.fixtures;
    const hurts = all.some(isHazard);
    const returns = this.askForThings(packer);
    this.askForTouches(packer, hurts);
    this.askForBag(packer, ({ memory }) => memory.bag);
    if (hurts && this.c.world.respawnRestores === "checkpoint") {
      // What a respawn would give back.
      for (const index of returns)
        packer.add({
          bits: 1,
          unsettles: false,
          read: ({ memory }) => memory.held!.flags[index]!,
          write: ({ memory }, value) => (memory.held!.flags[index] = value),
        });
      this.askForBag(packer, ({ memory }) => memory.held!.bag);
    }
    this.askForWalker(packer, hurts);
  }

  /** Items taken, doors opened and circuits on; their places among the memory's flags. */
  private askForThings(packer: Packer): number[] {
    const { all } = this.c.fixtures;
    const count = all.length;
    const returns: number[] = [];
    const flag = (
      index: number,
      parts: boolean,
      write: (memory: Memory, on: boolean) => void,
      tells?: "circuit",
    ): Field => {
      returns.push(index);
      return packer.add({ ...flagField(index, false, write), parts, ...(tells && { tells }) });
    };
    all.forEach((fixture, i) => {
      if (fixture.gives && this.askedItems[fixture.item] === 1)
        this.takenBits.set(
          i,
          flag(i, this.lockItems[fixture.item] === 1, (memory, on) => memory.take(i, on)),
        );
      if (!opensByHand(fixture)) return;
      flag(count + i, true, (memory, on) => memory.setOpen(i, on));
      if (!fixture.closesBehind) return;
      returns.push(3 * count + i);
      packer.add(flagField(3 * count + i, true, (memory, on) => (memory.passed[i] = on ? 1 : 0)));
    });
    this.c.world.circuits.forEach((_, circuit) =>
      flag(4 * count + circuit, true, (memory, on) => memory.setCircuit(circuit, on), "circuit"),
    );
    return returns;
  }

  /** What counts as touched and would do something if it did not. */
  private askForTouches(packer: Packer, hurts: boolean): void {
    const { all } = this.c.fixtures;
    all.forEach(({ kind, leads, circuit, blocks }, i) => {
      const toggles = circuit >= 0 && !blocks;
      if (leads || toggles || isHazard({ kind }) || (hurts && isCheckpoint({ kind })))
        packer.add(flagField(2 * all.length + i, true, (memory, on) => memory.setTouched(i, on)));
    });
  }

  private askForBag(packer: Packer, bag: (s: SimState) => Int32Array): void {
    this.askedItems.forEach((asked, item) => {
      const most = asked === 1 ? this.mostAsked(item) : 0;
      if (most === 0) return;
      packer.add({
        bits: bitsFor(most),
        unsettles: false,
        tells: "bag",
        read: (s) => Math.min(bag(s)[item]!, most),
        write: (s, value) => (bag(s)[item] = value),
      });
    });
  }

  /** Where the walker keeps going, would respawn, and its lives. */
  private askForWalker(packer: Packer, hurts: boolean): void {
    const { c } = this;
    if (c.rules.gait === "glide" && c.rules.glide.keepGoing)
      packer.add({
        bits: 4,
        unsettles: false,
        read: (s) => (s.keepX + 1) * 3 + s.keepY + 1,
        write: (s, value) => {
          s.keepX = Math.floor(value / 3) - 1;
          s.keepY = (value % 3) - 1;
        },
      });
    if (hurts && c.fixtures.all.some(isCheckpoint))
      packer.add({
        bits: bitsFor(c.fixtures.all.length),
        unsettles: false,
        tells: "checkpoint",
        read: ({ memory }) => memory.checkpoint + 1,
        write: ({ memory }, value) => (memory.checkpoint = value - 1),
      });
    if (hurts && c.countsLives)
      packer.add({
        bits: 7,
        unsettles: false,
        read: ({ memory }) => memory.lives,
        write: ({ memory }, value) => (memory.lives = value),
      });
  }

  /** How many of an item are told apart: all that locks can ever ask for, where each is opened once. */
  private mostAsked(item: number): number {
    const locks = this.c.fixtures.all.filter((fixture) => fixture.lock === LOCK_ITEM && fixture.item === item);
    const kept = Math.max(0, ...locks.filter(({ spends }) => !spends).map(({ count }) => count));
    const spending = locks.filter(({ spends }) => spends);
    const again = spending.some(({ keeps, closesBehind }) => keeps !== 0 || closesBehind);
    if (again || (spending.length > 0 && this.c.world.respawnRestores !== "keeps")) return MOST_TOLD;
    return Math.min(MOST_TOLD, kept + spending.reduce((sum, { count }) => sum + count, 0));
  }
}

/** The word of a place: room, row and column. */
export function positionWord(room: number, cx: number, cy: number): number {
  return (room << 24) | ((cy + BEYOND) << 12) | (cx + BEYOND);
}

export const roomOf = (position: number): number => position >>> 24;
export const columnOf = (position: number): number => (position & 0xfff) - BEYOND;
export const rowOf = (position: number): number => ((position >>> 12) & 0xfff) - BEYOND;

/** A door that somebody opens, not one that follows what is switched or collected. */
export function opensByHand({ blocks, lock }: CompiledFixture): boolean {
  return blocks && (lock === LOCK_NONE || lock === LOCK_ITEM);
}

/** The walker as it is at a choice moment with nothing held. */
function rest(s: SimState): void {
  s.status = PLAYING;
  s.held = 0;
  s.pressed = 0;
  s.pressRank.fill(0);
  s.rawX = s.rawY = s.intentX = s.intentY = s.secondX = s.secondY = 0;
  s.legX = s.legY = s.legProgress = 0;
  s.keepX = s.keepY = 0;
  s.bufferedButton = NO_BUTTON;
  s.bufferedAge = 0;
  s.bumping = false;
  s.repeatAge = 0;
  s.vx = s.vy = 0;
  s.eventCount = 0;
  s.goalTouched = false;
}

interface FieldSpec {
  readonly bits: number;
  readonly unsettles: boolean;
  /** It tells classes of states apart. */
  readonly parts?: boolean;
  /** The one of the memory's flags that it is; none where it is something else. */
  readonly flag?: number;
  /** What it says that is no fixture's. */
  readonly tells?: "circuit" | "bag" | "checkpoint";
  readonly read: (s: SimState) => number;
  readonly write: (s: SimState, value: number) => void;
}

/** One of the memory's flags. */
function flagField(index: number, unsettles: boolean, write: (memory: Memory, on: boolean) => void): FieldSpec {
  return {
    bits: 1,
    unsettles,
    flag: index,
    read: ({ memory }) => memory.flags[index]!,
    write: ({ memory }, value) => write(memory, value === 1),
  };
}

interface Field extends FieldSpec {
  /** -1 for none. */
  readonly flag: number;
  readonly word: number;
  readonly shift: number;
  readonly mask: number;
}

/** Lays fields one after the other into words; none lies across two. */
class Packer {
  readonly fields: Field[] = [];
  words = 1;
  private used = 32;

  add(spec: FieldSpec): Field {
    if (this.used + spec.bits > 32) {
      this.words++;
      this.used = 0;
    }
    const field = { flag: -1, ...spec, word: this.words - 1, shift: this.used, mask: 2 ** spec.bits - 1 };
    this.fields.push(field);
    this.used += spec.bits;
    return field;
  }
}

const bitsFor = (most: number): number => 32 - Math.clz32(most);
