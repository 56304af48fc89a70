import type { Compiled } from "../compiled/compiled.ts";
import type { SimState } from "../compiled/state.ts";
import type { World } from "../world/world.ts";
import { quoted } from "../base/quoted.ts";
import type { ConditionKind, Expected, Holds, ReferenceChange } from "./condition-kind.ts";
import { NOTHING_MORE, oneOf } from "./condition-kind.ts";
import { aligned } from "./conditions/aligned.ts";
import { cell } from "./conditions/cell.ts";
import { circuit } from "./conditions/circuit.ts";
import { event } from "./conditions/event.ts";
import { facing } from "./conditions/facing.ts";
import { holds } from "./conditions/holds.ts";
import { lives } from "./conditions/lives.ts";
import { meets } from "./conditions/meets.ts";
import { on } from "./conditions/on.ts";
import { open } from "./conditions/open.ts";
import { outside } from "./conditions/outside.ts";
import { overlap } from "./conditions/overlap.ts";
import { pixel } from "./conditions/pixel.ts";
import { room } from "./conditions/room.ts";
import { status } from "./conditions/status.ts";
import { still } from "./conditions/still.ts";
import { taken } from "./conditions/taken.ts";

/** Every kind of condition by the word that it begins with; what is offered for a frame comes in this order. */
const CONDITIONS = {
  room,
  cell,
  on,
  taken,
  open,
  holds,
  circuit,
  lives,
  meets,
  facing,
  still,
  status,
  event,
  aligned,
  overlap,
  outside,
  pixel,
};

/** Something that holds in a row of a run or does not: the WHAT of a check and of an `until` (formats.md section 2). */
export type Condition = (typeof CONDITIONS)[keyof typeof CONDITIONS] extends infer K
  ? K extends ConditionKind<infer C>
    ? C
    : never
  : never;

/** All kinds, in the order of the table. */
export const CONDITION_KINDS = Object.values(CONDITIONS) as readonly ConditionKind<Condition>[];

const KIND_BY_WORD: ReadonlyMap<string, ConditionKind<Condition>> = new Map(
  Object.entries(CONDITIONS) as [string, ConditionKind<Condition>][],
);

const kindOf = (condition: Condition): ConditionKind<Condition> => KIND_BY_WORD.get(condition.kind)!;

/** How each kind is written. */
export const CONDITION_FORMS: readonly string[] = CONDITION_KINDS.map(({ form }) => form);

/** Reads the words of a condition, already parted at blanks; or says in one sentence what was expected instead. */
export function parseCondition(
  words: readonly string[],
): { readonly condition: Condition } | { readonly fault: string } {
  const [word, ...rest] = words;
  const all = [...KIND_BY_WORD.keys()].join(", ");
  if (word === undefined) return { fault: `expected one of: ${all}` };
  const kind = KIND_BY_WORD.get(word);
  if (kind === undefined) return { fault: `${quoted(word)} is no check; expected one of: ${all}` };
  const condition = kind.parse(rest);
  return condition === null ? { fault: `expected \`${kind.form}\`, found ${quoted(words.join(" "))}` } : { condition };
}

/** The condition as text, words parted by single blanks. */
export function conditionText(condition: Condition): string {
  return kindOf(condition).text(condition);
}

/** What may stand behind these words of a condition; they are in order themselves. */
export function expectedInCondition(world: World, [word, ...rest]: readonly string[]): Expected {
  if (word === undefined) return oneOf("what", [...KIND_BY_WORD.keys()]);
  return KIND_BY_WORD.get(word)?.expected(world, rest) ?? NOTHING_MORE;
}

/** Says which id of a condition the world does not have, or null: such a check is a failed one (formats.md section 2). */
export function danglingIn(world: World, condition: Condition): string | null {
  return kindOf(condition).dangling(world, condition);
}

/** The condition of a changed world: the same value where nothing of it changed, null where it has lost what it was about. */
export function followCondition(condition: Condition, change: ReferenceChange): Condition | null {
  return kindOf(condition).follow(condition, change);
}

/** Makes the question that a condition asks of every row (formats.md section 2). */
export function compileCondition(c: Compiled, condition: Condition): Holds {
  return kindOf(condition).compile(c, condition);
}

/** What there was in a row, in the words of the condition that was asked: the `seen` of a failed check. */
export function seenText(c: Compiled, condition: Condition, s: SimState): string {
  return kindOf(condition).seen(c, condition, s);
}
