import type { Explanation } from "@keen-pebble/core/simulate";
import type { Rules } from "@keen-pebble/core/world";

/** What every card of a stage is given: the settings, and the shown frame's account once it is there. */
export interface CardProps {
  readonly rules: Rules;
  readonly explanation: Explanation | null;
}
