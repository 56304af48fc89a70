import type { GridSearch } from "./grid-search.ts";
import { MoveQueue } from "./move-queue.ts";
import { FAR } from "./search-points.ts";

const NOWHERE = -1;

/** The nearest state of each place that a search met, whatever the walker then has. */
export class NearestStates {
  /** By place the moves to it; -1 where the walker was never met there. */
  readonly moves: Int32Array;
  /** By place the point there, where that is the nearest; else -1. */
  private readonly points: Int32Array;
  /** By place of a region the cell in which the walker came into the region on the nearest way. */
  private readonly entries: Int32Array;

  constructor(private readonly search: GridSearch) {
    const { points, places } = search;
    this.moves = new Int32Array(places.words.length).fill(NOWHERE);
    this.points = new Int32Array(places.words.length).fill(NOWHERE);
    this.entries = new Int32Array(places.words.length).fill(NOWHERE);
    this.walkOn();
    for (let point = 0; point < points.count; point++) {
      const place = points.placeOf[point]!;
      // What lies further in a region was walked to.
      if (points.entries[point] !== place || points.moves[point] === FAR) continue;
      const known = this.moves[place]!;
      if (known >= 0 && known <= points.moves[point]!) continue;
      this.moves[place] = points.moves[point]!;
      this.points[place] = point;
    }
  }

  /** The actions of the nearest way to a place that was met. */
  actionsTo(place: number): number[] {
    const { search } = this;
    if (this.points[place]! >= 0) return search.actionsTo(this.points[place]!);
    const entry = this.entries[place]!;
    const into = search.actionsBy(search.enteredFrom[entry]! - 1, search.enteredBy[entry]!);
    return [...into, ...[...search.walks!.actionsBack(entry, place)].reverse()];
  }

  /** From where the walker came into regions, on through them. */
  private walkOn(): void {
    const { enteredFrom, points, walks } = this.search;
    if (walks === null) return;
    const queue = new MoveQueue();
    const come = (place: number, entry: number, moves: number): void => {
      if (this.moves[place]! >= 0 && this.moves[place]! <= moves) return;
      this.moves[place] = moves;
      this.entries[place] = entry;
      queue.add(place, moves);
    };
    enteredFrom.forEach((from, place) => {
      if (from > 0) come(place, place, points.moves[from - 1]! + 1);
    });
    for (let place = queue.take(); place >= 0; place = queue.take()) {
      if (queue.moves > this.moves[place]!) continue;
      for (let way = 0; way < walks.ways; way++) {
        const next = walks.next(place, way);
        if (next >= 0) come(next, this.entries[place]!, queue.moves + 1);
      }
    }
  }
}
