import { longer } from "./state-table.ts";

/**
 * What a search looks back over: a region with a memory, or a single state; from each state of a node every other one of
 * it can be come to. Numbered in the order of the moves to their nearest states.
 */
export class SearchNodes {
  count = 0;
  /** Of each node its memory, how many states it has, and the point of its first exit, or its only point. */
  memoryOf = new Int32Array(1024);
  sizeOf = new Int32Array(1024);
  firstPoints = new Int32Array(1024);
  /** Its nearest state: the place, and the point and action that led there; -1 for the start. */
  nearestPlace = new Int32Array(1024);
  parents = new Int32Array(1024);
  actions = new Uint8Array(1024);
  /** Steps from node to node: `edgeTo` is come to from `edgeFrom`. */
  edgeFrom = new Int32Array(4096);
  edgeTo = new Int32Array(4096);
  edges = 0;

  /** @returns its number */
  add(memory: number, size: number, place: number, parent: number, action: number): number {
    if (this.count === this.memoryOf.length) this.grow();
    const node = this.count++;
    this.memoryOf[node] = memory;
    this.sizeOf[node] = size;
    this.nearestPlace[node] = place;
    this.parents[node] = parent;
    this.actions[node] = action;
    return node;
  }

  connect(from: number, to: number): void {
    if (from === to) return;
    if (this.edges === this.edgeFrom.length) {
      this.edgeFrom = longer(this.edgeFrom, this.edges * 2);
      this.edgeTo = longer(this.edgeTo, this.edges * 2);
    }
    this.edgeFrom[this.edges] = from;
    this.edgeTo[this.edges++] = to;
  }

  private grow(): void {
    const length = this.count * 2;
    this.memoryOf = longer(this.memoryOf, length);
    this.sizeOf = longer(this.sizeOf, length);
    this.firstPoints = longer(this.firstPoints, length);
    this.nearestPlace = longer(this.nearestPlace, length);
    this.parents = longer(this.parents, length);
    this.actions = longer(this.actions, length);
  }
}
