/**
 * States that were met, each so many words, found again by an open-addressing table that compares all of them. Numbered
 * in the order in which they came. Grows by doubling up to a limit.
 */
export class StateTable {
  /** The words of all states, one state after the other. */
  words: Int32Array;
  count = 0;
  private slots: Int32Array;
  private room: number;

  /**
   * @param width words of a state
   * @param limit the most states that are taken in
   */
  constructor(
    private readonly width: number,
    readonly limit: number,
  ) {
    this.room = Math.min(limit, 1 << 12);
    this.words = new Int32Array(this.room * width);
    this.slots = new Int32Array(slotsFor(this.room));
  }

  /**
   * The number of the state with these words, which is a new one where it was not met yet.
   * @returns -1 where it would be one more than the limit
   */
  find(from: Int32Array, at: number): number {
    const { width, slots } = this;
    const mask = slots.length - 1;
    let slot = hashOf(from, at, width) & mask;
    for (; slots[slot] !== 0; slot = (slot + 1) & mask) {
      const state = slots[slot]! - 1;
      if (this.isSame(state * width, from, at)) return state;
    }
    if (this.count === this.limit) return -1;
    slots[slot] = this.count + 1;
    const to = this.count * width;
    for (let w = 0; w < width; w++) this.words[to + w] = from[at + w]!;
    this.count++;
    if (this.count === this.room) this.grow();
    return this.count - 1;
  }

  private isSame(state: number, from: Int32Array, at: number): boolean {
    for (let w = 0; w < this.width; w++) if (this.words[state + w] !== from[at + w]) return false;
    return true;
  }

  private grow(): void {
    const { width } = this;
    this.room = Math.min(this.limit, this.room * 2);
    if (this.room === this.count) return;
    this.words = longer(this.words, this.room * width);
    const slots = new Int32Array(slotsFor(this.room));
    const mask = slots.length - 1;
    for (let state = 0; state < this.count; state++) {
      let slot = hashOf(this.words, state * width, width) & mask;
      while (slots[slot] !== 0) slot = (slot + 1) & mask;
      slots[slot] = state + 1;
    }
    this.slots = slots;
  }
}

/** A power of two, at least twice as many as there are states. */
const slotsFor = (states: number): number => 1 << (33 - Math.clz32(states));

/** The same numbers with room for more. */
export function longer<A extends Int32Array | Uint8Array>(numbers: A, length: number): A {
  const grown = new (numbers.constructor as new (length: number) => A)(length);
  grown.set(numbers);
  return grown;
}

function hashOf(words: Int32Array, at: number, width: number): number {
  let hash = 0x811c9dc5;
  for (let w = 0; w < width; w++) {
    hash = Math.imul(hash ^ words[at + w]!, 0x9e3779b1);
    hash ^= hash >>> 15;
  }
  return hash ^ (hash >>> 13);
}
