import type { Compiled } from "../../compiled/compiled.ts";
import { isFree } from "../../ground/free.ts";
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
  private readonly queue: Int32Array;
  private count = 0;

  constructor(
    private readonly c: Compiled,
    private readonly places: Places,
    private readonly plain: PlainSteps,
    private readonly ways: number,
  ) {
    this.known = new Int32Array(places.cells);
    this.queue = new Int32Array(places.cells);
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
    // Plain steps stay in their room.
    const room = roomOf(this.places.words[from]!);
    const first = this.places.firstOf[room]!;
    const offsets = this.plain.offsets[room]!;
    const { known, plain, queue, ways } = this;
    let count = 0;
    queue[count++] = from;
    for (let i = 0; i < count; i++) {
      const place = queue[i]!;
      for (let way = 0; way < ways; way++) {
        const went = plain.stepAt(room, place - first, way);
        if (went === ASK || went === BLOCKED) continue;
        const next = place + offsets[went]!;
        if (known[next] !== UNKNOWN) continue;
        known[next] = region;
        queue[count++] = next;
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
