import { GAIT_MOVEMENTS } from "../../movement/gaits.ts";
import { uniformInt } from "pure-rand/distribution/uniformInt";
import { xoroshiro128plus } from "pure-rand/generator/xoroshiro128plus";
import { DOWN, LEFT, RIGHT, UP, USE } from "../../world/keys.ts";
import type { Compiled } from "../../compiled/compiled.ts";
import type { SimState } from "../../compiled/state.ts";

const WAYS = [LEFT, RIGHT, UP, DOWN] as const;
const OPPOSITE: Readonly<Record<number, number>> = { [LEFT]: RIGHT, [RIGHT]: LEFT, [UP]: DOWN, [DOWN]: UP };
const LONGEST_CELLS = 9;

/**
 * Presses keys as somebody does who tries a room out: one direction for some cells, at times two, a tap, a rest, the
 * opposite key by mistake, and `use` here and there. The same seed presses the same, on any machine.
 */
export class PlausibleKeys {
  private readonly random: ReturnType<typeof xoroshiro128plus>;
  /** Frames that a cell takes. */
  private readonly cell: number;
  private readonly uses: boolean;
  private keys = 0;
  private left = 0;
  private way: number = RIGHT;
  private blocked = 0;

  constructor(c: Compiled, seed: number) {
    this.random = xoroshiro128plus(seed);
    this.cell = GAIT_MOVEMENTS[c.rules.gait].framesOfCell(c);
    this.uses = c.fixtures.all.some((fixture) => fixture.opensOnUse);
  }

  /** The keys of the next frame after this state. */
  next(s: SimState): number {
    // Who stands at a wall soon tries another way; not at once, or nothing would ever be held against it.
    this.blocked = s.bumping ? this.blocked + 1 : 0;
    if (this.blocked > 14 && this.left > 4) this.left = this.upTo(4);
    if (this.left <= 0) this.choose();
    this.left--;
    return this.keys;
  }

  /** A whole number from 0 up to and without `most`. */
  private upTo(max: number): number {
    return uniformInt(this.random, 0, max - 1);
  }

  private choose(): void {
    const what = this.upTo(100);
    this.way = this.turn();
    if (what < 62) this.hold(this.way, this.cells());
    else if (what < 84) this.hold(this.way | this.sideOf(this.way), this.cells());
    else if (what < 92) this.hold(this.way, 1 + this.upTo(3));
    else if (what < 96) this.hold(0, 1 + this.upTo(12));
    else this.hold(this.way | OPPOSITE[this.way]!, 1 + this.upTo(8));
    if (this.uses && this.upTo(4) === 0) this.hold(this.keys | USE, 1 + this.upTo(3));
  }

  private hold(keys: number, frames: number): void {
    this.keys = keys;
    this.left = frames;
  }

  /** Seldom straight back: somebody who explores goes on or turns. */
  private turn(): number {
    const way = WAYS[this.upTo(4)]!;
    return way === OPPOSITE[this.way] && this.upTo(3) > 0 ? WAYS[this.upTo(4)]! : way;
  }

  private sideOf(way: number): number {
    const other = this.upTo(2);
    return way === LEFT || way === RIGHT ? [UP, DOWN][other]! : [LEFT, RIGHT][other]!;
  }

  /** Some cells' worth of frames, near ones oftener, and not always to the frame. */
  private cells(): number {
    const cells = 1 + this.upTo(1 + this.upTo(LONGEST_CELLS));
    return Math.max(1, cells * this.cell + this.upTo(5) - 2);
  }
}
