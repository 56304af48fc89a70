import { longer } from "./state-table.ts";

/** Places of a page; two to a power. */
const PAGE = 256;
const SHIFT = 8;
/** The most numbers that lie side by side, for memories that have all their places at once. */
const MOST_DENSE = 1 << 22;

/**
 * Which state a memory and a place make. The first memories have room for all their places, which is found at once; the
 * others a page of them at a time, where anything was met.
 */
export class StatePages {
  /** By memory and place a state, from 1 on; 0 where there is none yet. */
  private dense: Int32Array;
  private readonly denseMemories: number;
  /** By memory the numbers of its pages, from 1 on; 0 where there is none yet. */
  private readonly pagesOf: Int32Array[] = [];
  /** By page and place within it a state, from 1 on. */
  private states = new Int32Array(64 * PAGE);
  private pages = 0;

  /**
   * @param cells places that there are
   * @param places those and the few that come later
   */
  constructor(
    private readonly cells: number,
    private readonly places: number,
  ) {
    this.denseMemories = Math.floor(MOST_DENSE / cells);
    this.dense = new Int32Array(Math.min(this.denseMemories, 16) * cells);
  }

  /** The state, or -1 where it was not met yet. */
  get(memory: number, place: number): number {
    if (memory < this.denseMemories && place < this.cells) {
      const at = memory * this.cells + place;
      return at < this.dense.length ? this.dense[at]! - 1 : -1;
    }
    const page = this.pagesOf[memory]?.[place >> SHIFT] ?? 0;
    return page === 0 ? -1 : this.states[(page - 1) * PAGE + (place & (PAGE - 1))]! - 1;
  }

  set(memory: number, place: number, state: number): void {
    if (memory < this.denseMemories && place < this.cells) {
      const at = memory * this.cells + place;
      while (at >= this.dense.length)
        this.dense = longer(this.dense, Math.min(this.dense.length * 2, this.denseMemories * this.cells));
      this.dense[at] = state + 1;
      return;
    }
    let pages = (this.pagesOf[memory] ??= new Int32Array((this.places >> SHIFT) + 1));
    const at = place >> SHIFT;
    if (at >= pages.length) {
      pages = longer(pages, at * 2);
      this.pagesOf[memory] = pages;
    }
    if (pages[at] === 0) {
      pages[at] = ++this.pages;
      if (this.pages * PAGE > this.states.length) this.states = longer(this.states, this.states.length * 2);
    }
    this.states[(pages[at]! - 1) * PAGE + (place & (PAGE - 1))] = state + 1;
  }
}
