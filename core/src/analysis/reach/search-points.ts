import { longer } from "./state-table.ts";

/** More moves than there are: what was not come to yet. */
export const FAR = 0x7fffffff;

/** The states of a search that are looked at one by one: those at exits of regions, and those in no region. */
export class SearchPoints {
  count = 0;
  /** Of each point its place, its node and its moves. */
  placeOf = new Int32Array(4096);
  nodeOf = new Int32Array(4096);
  moves = new Int32Array(4096);
  /** How it was come to: from which point, by which action, and the cell of its region into which that led. */
  parents = new Int32Array(4096);
  actions = new Uint8Array(4096);
  entries = new Int32Array(4096);
  /** 1 once it was looked at. */
  done = new Uint8Array(4096);

  /** @returns its number */
  add(place: number, node: number): number {
    if (this.count === this.placeOf.length) this.grow();
    const point = this.count++;
    this.placeOf[point] = place;
    this.nodeOf[point] = node;
    this.moves[point] = FAR;
    return point;
  }

  /** Takes note of a shorter way to a point. */
  come(point: number, moves: number, parent: number, action: number, entry: number): void {
    this.moves[point] = moves;
    this.parents[point] = parent;
    this.actions[point] = action;
    this.entries[point] = entry;
  }

  private grow(): void {
    const length = this.count * 2;
    this.placeOf = longer(this.placeOf, length);
    this.nodeOf = longer(this.nodeOf, length);
    this.moves = longer(this.moves, length);
    this.parents = longer(this.parents, length);
    this.actions = longer(this.actions, length);
    this.entries = longer(this.entries, length);
    this.done = longer(this.done, length);
  }
}
