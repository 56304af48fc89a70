import type { Condition } from "./condition.ts";
import { conditionText, parseCondition } from "./condition.ts";
import type { When } from "./when.ts";
import { wholeNumber } from "./words.ts";

export interface Check {
  readonly when: When;
  readonly what: Condition;
}

/** Reads the words of a check behind `check`, already parted at blanks; a fault says what was expected. */
export function parseCheck(words: readonly string[]): { readonly check: Check } | { readonly fault: string } {
  const [first = "", second = ""] = words;
  let when: When;
  let rest = words.slice(1);
  switch (first) {
    case "at":
    case "by": {
      const frame = wholeNumber(second);
      if (frame === null) return { fault: `expected a frame number after \`${first}\`, found "${second}"` };
      when = { kind: first, frame };
      rest = words.slice(2);
      break;
    }
    case "ever":
    case "end":
    case "always":
    case "never":
      when = { kind: first };
      break;
    default:
      return { fault: `expected one of at N, by N, ever, end, always, never, found "${first}"` };
  }
  const what = parseCondition(rest);
  return "fault" in what ? what : { check: { when, what: what.condition } };
}

/** The check as text, words parted by single blanks, without the word `check`. */
export function checkText(check: Check): string {
  const { when } = check;
  return `${when.kind}${"frame" in when ? ` ${when.frame}` : ""} ${conditionText(check.what)}`;
}
