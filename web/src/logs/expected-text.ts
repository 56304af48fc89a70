import type { Check } from "@keen-pebble/core/check";
import { parseCheck, conditionText } from "@keen-pebble/core/check";

/** What a check asks for, as a sentence: `open sluice-1, in some frame up to 240`. */
export function expectedText(text: string): string {
  if (text.startsWith("until ")) return `${text.slice("until ".length)}, within the line's frames`;
  const parsed = parseCheck(text.split(" "));
  return "fault" in parsed ? text : `${conditionText(parsed.check.what)}, ${whenText(parsed.check.when)}`;
}

function whenText(when: Check["when"]): string {
  switch (when.kind) {
    case "at":
      return `in frame ${when.frame}`;
    case "by":
      return `in some frame up to ${when.frame}`;
    case "ever":
      return "in some frame";
    case "end":
      return "in the last frame";
    case "always":
      return "in every frame";
    case "never":
      return "in no frame";
  }
}
