import { ESCAPED, LOST, WON } from "@keen-pebble/core/world";

/** What is said where a run ended, by its status. */
export const ENDINGS: Readonly<Record<number, string>> = {
  [WON]: "You reached the goal.",
  [LOST]: "No life is left.",
  [ESCAPED]: "You left the map.",
};
