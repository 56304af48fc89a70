import type { Compiled } from "../../compiled/compiled.ts";
import { isFree } from "../../ground/free.ts";
import { DIRECTION_X, DIRECTION_Y } from "./actions.ts";
import { ASK, BLOCKED } from "./plain-steps.ts";
import type { PlainSteps } from "./plain-steps.ts";
import type { Places } from "./places.ts";
import { columnOf, roomOf, rowOf } from "./state-layout.ts";

const UNKNOWN = 0;
/** Something is near it, or the walker would not fit: it is in no region. */
export const NO_REGION = -1;

/** Cells between which one goes to and fro by plain steps alone: from each of a region every other one can be come to. */
export class PlainRegions {
  private readonly known: Int32Array;
  private count = 0;

  constructor(
    private readonly c: Compiled,
    private readonly places: Places,
    private readonly plain: PlainSteps,
    private readonly ways: number,
  ) {
    this.known = new Int32Array(places.words.length);
  }

  /** The region of a place, from 1 on, or `NO_REGION`. */
  of(place: number): number {
    if (place >= this.places.cells) return NO_REGION;
    if (this.known[place] === UNKNOWN) this.flood(place);
    return this.known[place]!;
  }

  private flood(from: number): void {
    if (!this.isOpen(from)) {
      this.known[from] = NO_REGION;
      return;
    }
    const region = ++this.count;
    this.known[from] = region;
    const queue = [from];
    for (const place of queue) {
      const word = this.places.words[place]!;
      const [room, cx, cy] = [roomOf(word), columnOf(word), rowOf(word)];
      for (let way = 0; way < this.ways; way++) {
        const went = this.plain.step(room, cx, cy, way);
        if (went === ASK || went === BLOCKED) continue;
        const next = this.places.of(room, cx + DIRECTION_X[went]!, cy + DIRECTION_Y[went]!);
        if (this.known[next] !== UNKNOWN) continue;
        this.known[next] = region;
        queue.push(next);
      }
    }
  }

  private isOpen(place: number): boolean {
    const word = this.places.words[place]!;
    const [room, cx, cy] = [roomOf(word), columnOf(word), rowOf(word)];
    const t = this.c.tileUnits;
    return this.plain.isPlain(room, cx, cy) && isFree(this.c.ground, room, cx * t, cy * t);
  }
}
