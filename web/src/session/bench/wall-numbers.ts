import type { Outline } from "@keen-pebble/core/edit";
import { straightWall } from "@keen-pebble/core/edit";
import type { Pair } from "@keen-pebble/core/world";

/** Px of a room may be typed up to here. */
const FAR = 100_000;

/**
 * Reads a wall given as numbers, in px of the room: `left top width height`, or corners `x,y x,y x,y` with as many
 * more; blanks, commas, semicolons and brackets may stand between them.
 */
export function readWallNumbers(text: string): { readonly outline: Outline } | { readonly fault: string } {
  const odd = /[^\s\d,;()[\]{}+.-]/.exec(text);
  if (odd !== null) return { fault: `character ${odd.index + 1}: expected numbers of px, found "${odd[0]}"` };
  const numbers: number[] = [];
  for (const { 0: word, index } of text.matchAll(/[^\s,;()[\]{}]+/g)) {
    const number = Number(word);
    if (!/^[+-]?\d+$/.test(word) || Math.abs(number) > FAR)
      return { fault: `character ${index + 1}: expected a whole number of px, found "${word}"` };
    numbers.push(number);
  }
  if (numbers.length === 4) {
    const [left, top, width, height] = numbers as [number, number, number, number];
    if (width < 1 || height < 1) return { fault: "expected left, top, width and height, both of the last at least 1" };
    return { outline: straightWall([left, top], [left + width, top + height]) };
  }
  if (numbers.length < 6 || numbers.length % 2 === 1)
    return {
      fault: `expected left, top, width, height, or x and y of 3 or more corners; found ${numbers.length} numbers`,
    };
  return {
    outline: Array.from({ length: numbers.length / 2 }, (_, i): Pair => [numbers[2 * i]!, numbers[2 * i + 1]!]),
  };
}
