import { EVENT_NAMES, STATUS_NAMES } from "../simulation/state.ts";
import { FACINGS } from "../world/facing.ts";
import type { Fixture, World } from "../world/world.ts";
import { parseCheck } from "./check.ts";
import { WHAT_FORMS, decimal, wholeNumber } from "./what.ts";

/** What may stand at one place of a check: some words, or a number, or the check may end there. */
interface Expected {
  readonly words: readonly string[];
  readonly number: "whole" | "decimal" | null;
  /** The words before it are a whole check already. */
  readonly mayEnd: boolean;
  /** What it is, for a sentence: `a room`. */
  readonly name: string;
}

const WHENS = ["at", "by", "ever", "end", "always", "never"];
const NOTHING_MORE: Expected = { words: [], number: null, mayEnd: true, name: "the end" };

const some = (name: string, words: readonly string[], mayEnd = false): Expected => ({ words, number: null, mayEnd, name });
const number = (name: string, kind: "whole" | "decimal" = "whole", mayEnd = false): Expected => ({ words: [], number: kind, mayEnd, name });

/** What may stand after these words of a check; they must be in order themselves. */
function expectedAfter(world: World, words: readonly string[]): Expected {
  const [first] = words;
  if (first === undefined) return some("when", WHENS);
  const taken = first === "at" || first === "by" ? 2 : 1;
  if (words.length < taken) return number("a frame");
  return expectedInWhat(world, words.slice(taken));
}

function expectedInWhat(world: World, [kind, ...rest]: readonly string[]): Expected {
  const n = rest.length;
  const rooms = world.rooms.map(({ id }) => id);
  switch (kind) {
    case undefined:
      return some("what", Object.keys(WHAT_FORMS));
    case "room":
      return n === 0 ? some("a room", rooms) : NOTHING_MORE;
    case "cell":
      return n < 2 ? number(n === 0 ? "a column" : "a row") : n === 2 ? some("`in`", ["in"], true) : n === 3 ? some("a room", rooms) : NOTHING_MORE;
    case "on":
      return n === 0 ? some("a fixture", fixtures(world)) : NOTHING_MORE;
    case "taken":
      return n === 0 ? some("an item on the floor", fixtures(world, "item")) : NOTHING_MORE;
    case "open":
      return n === 0 ? some("a door", fixtures(world, "door")) : NOTHING_MORE;
    case "aligned":
      return n === 0 ? some("`strictly`", ["strictly"], true) : NOTHING_MORE;
    case "facing":
      return n === 0 ? some("a direction", FACINGS) : NOTHING_MORE;
    case "holds":
      return n === 0 ? some("an item", world.items.map(({ id }) => id)) : n === 1 ? number("how many", "whole", true) : NOTHING_MORE;
    case "circuit":
      return n === 0 ? some("a circuit", world.circuits) : n === 1 ? some("on or off", ["on", "off"]) : NOTHING_MORE;
    case "lives":
      return n === 0 ? number("how many") : NOTHING_MORE;
    case "status":
      return n === 0 ? some("a status", STATUS_NAMES) : NOTHING_MORE;
    case "event":
      return n === 0 ? some("an event", EVENT_NAMES) : n === 1 ? some("what it is of", subjects(world, rest[0]!), true) : NOTHING_MORE;
    case "pixel":
      return n < 2 ? number("px", "decimal") : NOTHING_MORE;
    default:
      return NOTHING_MORE;
  }
}

function fixtures(world: World, ...kinds: readonly Fixture["kind"][]): string[] {
  return world.rooms.flatMap((room) => room.fixtures).flatMap(({ id, kind }) => (kinds.length === 0 || kinds.includes(kind) ? [id] : []));
}

/** What an event may be of: rooms, or fixtures of the kinds that write it. */
function subjects(world: World, event: string): string[] {
  switch (event) {
    case "leave":
    case "enter":
      return world.rooms.map(({ id }) => id);
    case "take":
      return fixtures(world, "item");
    case "hurt":
      return fixtures(world, "hazard");
    case "checkpoint":
    case "switch":
    case "portal":
    case "marker":
      return fixtures(world, event);
    case "open":
    case "close":
    case "refused":
      return fixtures(world, "door");
    default:
      return [];
  }
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
  const expected = expectedAfter(world, wordsOf(text.slice(0, from)).map(({ word }) => word));
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
    const expected = expectedAfter(world, words.slice(0, i).map((each) => each.word));
    if (fits(expected, word)) continue;
    const to = from + word.length;
    if (expected === NOTHING_MORE) return { from, to: text.length, message: `nothing more is expected here, found "${text.slice(from)}"` };
    return { from, to, message: `expected ${expected.name}${listOf(expected.words)}, found "${word}"` };
  }
  const expected = expectedAfter(world, words.map(({ word }) => word));
  if (!expected.mayEnd && !endsWhole(words)) return { from: text.length, to: text.length, message: `expected ${expected.name}${listOf(expected.words)}` };
  // What the grammar above lets through, the reader of logs takes too; should it not, its own sentence counts.
  const parsed = parseCheck(words.map(({ word }) => word));
  return "fault" in parsed ? { from: 0, to: text.length, message: parsed.fault } : null;
}

/** `still`, `overlap` and `outside` need no more; an unfinished check of another kind is no whole one. */
function endsWhole(words: readonly { readonly word: string }[]): boolean {
  return "check" in parseCheck(words.map(({ word }) => word));
}

function fits({ words, number: kind }: Expected, word: string): boolean {
  if (kind === "whole") return wholeNumber(word) !== null;
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
