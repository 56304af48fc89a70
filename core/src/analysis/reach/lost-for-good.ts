import { SimState } from "../../compiled/state.ts";
import type { GridSearch } from "./grid-search.ts";
import { StateTable } from "./state-table.ts";

/** A stuck state for each different set of items taken, doors open and circuits on (semantics.md section 10, "Stuck"). */
export interface StuckClass {
  readonly taken: readonly string[];
  readonly open: readonly string[];
  readonly on: readonly string[];
  /** The node of its nearest state. */
  readonly node: number;
}

/** The most classes that are named. */
const MOST_CLASSES = 200;

/** Looks back over the nodes of a search that is complete: from where something can still be had. */
export class LookBack {
  /** The nodes that lead to a node: `before` from `beforeAt` of it on. */
  private readonly beforeAt: Int32Array;
  private readonly before: Int32Array;

  constructor(private readonly search: GridSearch) {
    const { count: nodes, edges, edgeFrom, edgeTo } = search.nodes;
    this.beforeAt = new Int32Array(nodes + 2);
    for (let e = 0; e < edges; e++) this.beforeAt[edgeTo[e]! + 2]!++;
    for (let i = 0; i <= nodes; i++) this.beforeAt[i + 1]! += this.beforeAt[i]!;
    this.before = new Int32Array(edges);
    for (let e = 0; e < edges; e++) this.before[this.beforeAt[edgeTo[e]! + 1]!++] = edgeFrom[e]!;
  }

  /** 1 for each node from which one of some nodes can be come to, those included. */
  canComeTo(goals: readonly number[]): Uint8Array {
    const found = new Uint8Array(this.search.nodes.count);
    const queue = new Int32Array(this.search.nodes.count);
    let count = 0;
    const add = (node: number): void => {
      if (found[node] === 1) return;
      found[node] = 1;
      queue[count++] = node;
    };
    for (const node of goals) add(node);
    for (let i = 0; i < count; i++)
      for (let e = this.beforeAt[queue[i]!]!; e < this.beforeAt[queue[i]! + 1]!; e++) add(this.before[e]!);
    return found;
  }

  /** The states from which nobody can win any more, and their classes, the nearest first. */
  stuck(): { readonly states: number; readonly classes: readonly StuckClass[] } {
    const { search } = this;
    const { c, layout, nodes } = search;
    const wins = this.canComeTo(search.winners);
    const s = new SimState(c);
    const classes: StuckClass[] = [];
    const met = new StateTable(layout.words, MOST_CLASSES);
    const key = new Int32Array(layout.words);
    let states = 0;
    for (let node = 0; node < nodes.count; node++) {
      if (wins[node] === 1) continue;
      states += nodes.sizeOf[node]!;
      const [memory, place] = [nodes.memoryOf[node]!, nodes.nearestPlace[node]!];
      search.unpack(memory, place, key);
      key[0] = 0;
      for (let w = 1; w < layout.words; w++) key[w]! &= layout.classes[w]!;
      // Nodes are numbered by the moves to their nearest states: the first of a class is its nearest.
      if (met.find(key, 0) !== classes.length) continue;
      search.load(memory, place, s);
      classes.push({ ...this.classOf(s), node });
    }
    return { states, classes };
  }

  private classOf({ memory }: SimState): Omit<StuckClass, "node"> {
    const { c, layout } = this.search;
    const named = (which: (i: number) => boolean): string[] =>
      c.fixtures.all.flatMap(({ id }, i) => (which(i) ? [id] : []));
    return {
      taken: named((i) => {
        const { gives, item } = c.fixtures.all[i]!;
        return gives && layout.lockItems[item] === 1 && memory.taken[i] === 1;
      }),
      open: named((i) => memory.open[i] === 1),
      on: c.world.circuits.filter((_, i) => memory.on[i] === 1),
    };
  }

  /** By item fixture that is asked for and can be taken: the nearest state in which it is lost for good. */
  losable(): { readonly fixture: number; readonly node: number }[] {
    const { search } = this;
    const { layout, memories, nodes } = search;
    const width = layout.words - 1;
    return layout.askedFixtures.flatMap((fixture) => {
      const takers = search.takers[fixture]!;
      if (takers.length === 0) return [];
      const can = this.canComeTo(takers);
      for (let node = 0; node < nodes.count; node++) {
        if (can[node] === 1) continue;
        // Its bit is never in the place's word, which memories do not have.
        if (!layout.isTaken(memories.words, nodes.memoryOf[node]! * width - 1, fixture)) return [{ fixture, node }];
      }
      return [];
    });
  }
}
