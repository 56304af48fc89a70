import type { CompiledRoom } from "../../ground/compiled-room.ts";
import { positionWord } from "./state-layout.ts";

/** The cells of all rooms numbered through, and after them places beyond the rooms' sides as they are met. */
export class Places {
  /** By place its word. */
  words: Int32Array;
  /** By room the number of its first cell. */
  readonly firstOf: Int32Array;
  private readonly beyond = new Map<number, number>();
  private count: number;

  constructor(private readonly rooms: readonly CompiledRoom[]) {
    this.firstOf = new Int32Array(rooms.length + 1);
    rooms.forEach(({ width, height }, room) => (this.firstOf[room + 1] = this.firstOf[room]! + width * height));
    this.count = this.firstOf[rooms.length]!;
    this.words = new Int32Array(this.count + 16);
    rooms.forEach(({ width, height }, room) => {
      let place = this.firstOf[room]!;
      for (let cy = 0; cy < height; cy++)
        for (let cx = 0; cx < width; cx++) this.words[place++] = positionWord(room, cx, cy);
    });
  }

  /** The number of a place. */
  of(room: number, cx: number, cy: number): number {
    const { width, height } = this.rooms[room]!;
    if (cx >= 0 && cy >= 0 && cx < width && cy < height) return this.firstOf[room]! + cy * width + cx;
    const word = positionWord(room, cx, cy);
    const known = this.beyond.get(word);
    if (known !== undefined) return known;
    if (this.count === this.words.length) {
      const longer = new Int32Array(this.words.length * 2);
      longer.set(this.words);
      this.words = longer;
    }
    this.words[this.count] = word;
    this.beyond.set(word, this.count);
    return this.count++;
  }

  /** How many places are cells of rooms: the first ones. */
  get cells(): number {
    return this.firstOf[this.rooms.length]!;
  }
}
