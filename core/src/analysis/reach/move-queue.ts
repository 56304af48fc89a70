import { longer } from "./state-table.ts";

/** Numbers that wait for their turn by moves, the fewest first; of as many moves in the order in which they came. */
export class MoveQueue {
  /** By moves the first and the last entry, plus 1. */
  private firsts = new Int32Array(256);
  private lasts = new Int32Array(256);
  /** By entry the number and the entry after it, plus 1. */
  private numbers = new Int32Array(1024);
  private nexts = new Int32Array(1024);
  private count = 0;
  /** The moves of the number that was taken last. */
  moves = 0;
  private longest = 0;

  /** @param moves not fewer than those of the number that was taken last */
  add(number: number, moves: number): void {
    if (moves >= this.firsts.length) {
      this.firsts = longer(this.firsts, moves * 2);
      this.lasts = longer(this.lasts, moves * 2);
    }
    if (moves > this.longest) this.longest = moves;
    if (this.count === this.numbers.length) {
      this.numbers = longer(this.numbers, this.count * 2);
      this.nexts = longer(this.nexts, this.count * 2);
    }
    const entry = this.count++;
    this.numbers[entry] = number;
    const last = this.lasts[moves]!;
    if (last === 0) this.firsts[moves] = entry + 1;
    else this.nexts[last - 1] = entry + 1;
    this.lasts[moves] = entry + 1;
  }

  /** The next number, which is taken out; -1 where there is none. */
  take(): number {
    while (this.moves <= this.longest && this.firsts[this.moves] === 0) this.moves++;
    if (this.moves > this.longest) return -1;
    const entry = this.firsts[this.moves]! - 1;
    this.firsts[this.moves] = this.nexts[entry]!;
    if (this.nexts[entry] === 0) this.lasts[this.moves] = 0;
    return this.numbers[entry]!;
  }
}
