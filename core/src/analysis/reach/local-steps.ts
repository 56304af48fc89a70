import type { Compiled } from "../../compiled/compiled.ts";
import { ENTER, HURT, LEAVE, PORTAL_TAKEN, RESPAWN, TAKE, WRAPPED } from "../../world/vocabulary.ts";
import type { Places } from "./places.ts";
import { bodyReach } from "./plain-steps.ts";
import type { StateLayout } from "./state-layout.ts";
import { columnOf, roomOf, rowOf } from "./state-layout.ts";
import { StateTable, longer } from "./state-table.ts";

/** Actions are numbers below this. */
const ACTIONS = 16;

/** Events of a step that leads away from where it began, or must be counted each time. */
const NOT_LOCAL = new Uint8Array(32);
for (const kind of [TAKE, WRAPPED, LEAVE, ENTER, HURT, RESPAWN, PORTAL_TAKEN]) NOT_LOCAL[kind] = 1;

/** Whether a step with such an event is to be asked for each time. */
export const leadsAway = (kind: number): boolean => NOT_LOCAL[kind] === 1;

/**
 * What actions came to that began and ended in the same room. They come to the same wherever all that can matter there
 * is the same, whatever else is remembered: the simulation is asked once for all of those.
 */
export class LocalSteps {
  /** By place the bits that matter. */
  private readonly bits: Int32Array[] = [];
  /** By place 1 where nothing of another room is near. */
  private readonly inside: Uint8Array;
  /** A step by its place and action, and what mattered. */
  private readonly steps: StateTable;
  /** By step the place that it leads to, plus 1, and the words of the memory then. */
  private to = new Int32Array(1024);
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
    const near = (this.near = bodyReach(c) + 1);
    this.inside = Uint8Array.from(places.words.subarray(0, places.cells), (word) => {
      const { width, height } = c.rooms[roomOf(word)]!;
      const [cx, cy] = [columnOf(word), rowOf(word)];
      return cx >= near && cy >= near && cx < width - near && cy < height - near ? 1 : 0;
    });
  }

  /** The number of a step; -1 for one that other rooms may have to do with. */
  find(words: Int32Array, place: number, action: number): number {
    if (place >= this.places.cells || this.inside[place] === 0) return -1;
    const { key, layout } = this;
    const bits = this.bitsAt(place);
    key[0] = place * ACTIONS + action;
    for (let w = 1; w < layout.words; w++) {
      // Who has left something behind elsewhere is not done with it yet.
      if ((words[w]! & layout.unsettled[w]! & ~bits[w]!) !== 0) return -1;
      key[w] = words[w]! & bits[w]!;
    }
    const step = this.steps.find(key, 0);
    if (step >= this.to.length) {
      this.to = longer(this.to, step * 2);
      this.after = longer(this.after, step * 2 * layout.words);
    }
    return step;
  }

  isKnown(step: number): boolean {
    return this.to[step]! > 0;
  }

  /**
   * Makes a memory what a known step makes of it.
   * @returns the place that it leads to
   */
  apply(step: number, words: Int32Array, from: number): number {
    const { after, layout } = this;
    const to = this.to[step]! - 1;
    const bits = this.bitsAt(from);
    for (let w = 1; w < layout.words; w++)
      words[w] = (words[w]! & ~bits[w]!) | (after[step * layout.words + w]! & bits[w]!);
    return to;
  }

  /** Takes note of what a step has come to that stayed in its room. */
  learn(step: number, words: Int32Array, place: number): void {
    this.to[step] = place + 1;
    for (let w = 1; w < this.layout.words; w++) this.after[step * this.layout.words + w] = words[w]!;
  }

  private bitsAt(place: number): Int32Array {
    return (this.bits[place] ??= this.layout.bitsNear(this.fixturesNear(this.places.words[place]!)));
  }

  private fixturesNear(word: number): Set<number> {
    const [room, x, y] = [roomOf(word), columnOf(word), rowOf(word)];
    const { near } = this;
    return new Set(
      this.c.fixtures.all.flatMap(({ room: its, cx, cy, across, down }, i) =>
        its === room && cx - near <= x && cy - near <= y && x < cx + across + near && y < cy + down + near ? [i] : [],
      ),
    );
  }
}
