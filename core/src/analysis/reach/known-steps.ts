import type { Compiled } from "../../compiled/compiled.ts";
import { resolveCell, resolved } from "../../ground/ground.ts";
import { HURT, RESPAWN, WRAPPED } from "../../world/vocabulary.ts";
import { USE_LEFT } from "./actions.ts";
import type { Places } from "./places.ts";
import { bodyReach } from "./plain-steps.ts";
import type { StateLayout } from "./state-layout.ts";
import { columnOf, roomOf, rowOf } from "./state-layout.ts";
import { StateTable, longer } from "./state-table.ts";

/** Actions are numbers below this. */
const ACTIONS = 16;

/** Events of a step that depends on more than what is near. */
const FAR_REACHING = new Uint8Array(32);
for (const kind of [WRAPPED, HURT, RESPAWN]) FAR_REACHING[kind] = 1;

/** Whether a step with such an event is to be asked for each time. */
export const reachesFar = (kind: number): boolean => FAR_REACHING[kind] === 1;

/** What can have to do with a step from a place. */
interface Surroundings {
  /** Of each word the bits that matter, or change. */
  readonly bits: Int32Array;
  /** Something of another room, or of the room's other side, is near. */
  readonly atSide: boolean;
}

/**
 * What actions came to. They come to the same wherever all that can matter is the same, whatever else is remembered: the
 * simulation is asked once for all of those.
 */
export class KnownSteps {
  /** By place its surroundings' number, plus 1. */
  private readonly numbers: Int32Array;
  private readonly surroundings: Surroundings[] = [];
  /** A step by its place and action, and what mattered. */
  private readonly steps: StateTable;
  /** By step the place that it leads to, plus 1, the item fixture that it takes, plus 1, and the words of the memory then. */
  private to = new Int32Array(1024);
  private takes = new Int32Array(1024);
  private after: Int32Array;
  private readonly key: Int32Array;

  /** So many cells round a place can have to do with a step from there: the cell beside it, and as far as the body reaches there. */
  private readonly near: number;

  constructor(
    private readonly c: Compiled,
    private readonly layout: StateLayout,
    private readonly places: Places,
    limit: number,
  ) {
    this.steps = new StateTable(layout.words, limit);
    this.after = new Int32Array(1024 * layout.words);
    this.key = new Int32Array(layout.words);
    this.near = bodyReach(c) + 1;
    this.numbers = new Int32Array(places.cells);
  }

  /** The number of a step; -1 for one that more may have to do with than what is near. */
  find(words: Int32Array, place: number, action: number): number {
    if (place >= this.places.cells) return -1;
    const { key, layout } = this;
    const { atSide, bits } = this.around(place);
    // By a slanting leg over a corner one comes elsewhere than the cell there lies.
    if (atSide && action >= 4 && action < USE_LEFT) return -1;
    key[0] = place * ACTIONS + action;
    for (let w = 1; w < layout.words; w++) {
      // Who has left something behind elsewhere is not done with it yet.
      if ((words[w]! & layout.unsettled[w]! & ~bits[w]!) !== 0) return -1;
      key[w] = words[w]! & bits[w]!;
    }
    const step = this.steps.find(key, 0);
    if (step >= this.to.length) {
      this.to = longer(this.to, step * 2);
      this.takes = longer(this.takes, step * 2);
      this.after = longer(this.after, step * 2 * layout.words);
    }
    return step;
  }

  isKnown(step: number): boolean {
    return this.to[step]! > 0;
  }

  /** The item fixture that a known step takes; -1 for none. */
  takenBy(step: number): number {
    return this.takes[step]! - 1;
  }

  /**
   * Makes a memory what a known step makes of it.
   * @returns the place that it leads to
   */
  apply(step: number, words: Int32Array, from: number): number {
    const { after, layout } = this;
    const { bits } = this.around(from);
    for (let w = 1; w < layout.words; w++)
      words[w] = (words[w]! & ~bits[w]!) | (after[step * layout.words + w]! & bits[w]!);
    return this.to[step]! - 1;
  }

  /**
   * Takes note of what a step has come to: it reaches nothing far, and takes one item at most, which is not
   * counted.
   * @param taken the item fixture, or -1
   */
  learn(step: number, words: Int32Array, place: number, taken: number): void {
    this.to[step] = place + 1;
    this.takes[step] = taken + 1;
    for (let w = 1; w < this.layout.words; w++) this.after[step * this.layout.words + w] = words[w]!;
  }

  private around(place: number): Surroundings {
    if (this.numbers[place] === 0) this.numbers[place] = this.surroundings.push(this.lookRound(place));
    return this.surroundings[this.numbers[place]! - 1]!;
  }

  private lookRound(place: number): Surroundings {
    const { c, near } = this;
    const word = this.places.words[place]!;
    const [room, x, y] = [roomOf(word), columnOf(word), rowOf(word)];
    const { width, height } = c.rooms[room]!;
    const fixtures = this.fixturesNear(room, x, y);
    let [atSide, leaves] = [false, false];
    for (let cy = y - near; cy <= y + near; cy++)
      for (let cx = x - near; cx <= x + near; cx++) {
        if (cx >= 0 && cy >= 0 && cx < width && cy < height) continue;
        atSide = true;
        if (!resolveCell(c.ground, room, cx, cy)) continue;
        leaves = true;
        const there = c.rooms[resolved.room]!.width;
        const [thereX, thereY] = [resolved.cell % there, Math.floor(resolved.cell / there)];
        for (const fixture of this.fixturesNear(resolved.room, thereX, thereY)) fixtures.add(fixture);
      }
    for (const number of [...fixtures]) {
      const { leads, toRoom, toX, toY } = c.fixtures.all[number]!;
      if (!leads) continue;
      leaves = true;
      for (const fixture of this.fixturesNear(toRoom, toX, toY)) fixtures.add(fixture);
    }
    // Who leaves the room lets go of what keeps for a visit; in rooms where nobody is it has been let go of.
    if (leaves) for (const fixture of c.fixtures.visit[room]!) fixtures.add(fixture);
    return { bits: this.layout.bitsNear(fixtures), atSide };
  }

  private fixturesNear(room: number, x: number, y: number): Set<number> {
    const { near } = this;
    return new Set(
      this.c.fixtures.all.flatMap(({ room: its, cx, cy, across, down }, i) =>
        its === room && cx - near <= x && cy - near <= y && x < cx + across + near && y < cy + down + near ? [i] : [],
      ),
    );
  }
}
