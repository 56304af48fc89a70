import type { World } from "../world/world.ts";
import { parseCheck } from "./check.ts";
import type { Expected } from "./condition-kind.ts";
import { NOTHING_MORE, aNumber, oneOf } from "./condition-kind.ts";
import { expectedInCondition } from "./condition.ts";
import { WHENS } from "./when.ts";
import { decimal, wholeNumber } from "./words.ts";

/** What may stand after these words of a check; they must be in order themselves. */
function expectedAfter(world: World, words: readonly string[]): Expected {
  const [first] = words;
  if (first === undefined) return oneOf("when", WHENS);
  const taken = first === "at" || first === "by" ? 2 : 1;
  if (words.length < taken) return aNumber("a frame");
  return expectedInCondition(world, words.slice(taken));
}

/** Words that may stand where the text ends. */
export interface Completion {
  /** Where the word begins that they would take the place of. */
  readonly from: number;
  readonly words: readonly string[];
  /** What is expected there, as `a room` or `a frame`. */
  readonly name: string;
}

/** Completes the last word of a check as it is typed: the names that this world has (interface.md, pebble line). */
export function completeCheck(world: World, text: string): Completion {
  const from = text.lastIndexOf(" ") + 1;
  const begun = text.slice(from);
  const expected = expectedAfter(
    world,
    wordsOf(text.slice(0, from)).map(({ word }) => word),
  );
  const begins = expected.words.filter((word) => word.startsWith(begun));
  const holds = expected.words.filter((word) => begun !== "" && !word.startsWith(begun) && word.includes(begun));
  return { from, words: [...begins, ...holds], name: expected.name };
}

/** What is wrong with a check's wording, and from which character to which. */
export interface WordFault {
  readonly from: number;
  readonly to: number;
  readonly message: string;
}

/**
 * Finds the first word of a check that is not in order, names that this world does not have among them; null for a
 * check that is whole (formats.md section 2).
 */
export function checkFault(world: World, text: string): WordFault | null {
  const words = wordsOf(text);
  for (let i = 0; i < words.length; i++) {
    const { word, from } = words[i]!;
    const expected = expectedAfter(
      world,
      words.slice(0, i).map((each) => each.word),
    );
    if (fits(expected, word)) continue;
    const to = from + word.length;
    if (expected === NOTHING_MORE)
      return { from, to: text.length, message: `nothing more is expected here, found "${text.slice(from)}"` };
    return { from, to, message: `expected ${expected.name}${listOf(expected.words)}, found "${word}"` };
  }
  const expected = expectedAfter(
    world,
    words.map(({ word }) => word),
  );
  // Some may end where more might stand, as `holds` without a number: what the reader of logs takes is whole.
  const parsed = parseCheck(words.map(({ word }) => word));
  if ("check" in parsed) return null;
  // What the grammar above lets through to its end it takes too; should it not, its own sentence counts.
  return expected === NOTHING_MORE
    ? { from: 0, to: text.length, message: parsed.fault }
    : { from: text.length, to: text.length, message: `expected ${expected.name}${listOf(expected.words)}` };
}

function fits({ words, number: kind, min }: Expected, word: string): boolean {
  if (kind === "whole") {
    const number = wholeNumber(word);
    return number !== null && number >= min;
  }
  return kind === "decimal" ? decimal(word) !== null : words.includes(word);
}

const MOST_LISTED = 8;

function listOf(words: readonly string[]): string {
  if (words.length === 0) return "";
  return words.length <= MOST_LISTED ? `: ${words.join(", ")}` : `: ${words.slice(0, MOST_LISTED).join(", ")} ...`;
}

function wordsOf(text: string): { readonly word: string; readonly from: number }[] {
  return [...text.matchAll(/[^ ]+/g)].map((match) => ({ word: match[0], from: match.index }));
}
