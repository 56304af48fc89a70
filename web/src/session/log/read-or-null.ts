import type { InputLog } from "@keen-pebble/core/check";
import { readLog } from "@keen-pebble/core/check";
import { RefusedError } from "@keen-pebble/core/world";

/** The log in a text, or null where it is not in order. */
export function readOrNull(text: string): InputLog | null {
  try {
    return readLog(text);
  } catch (error) {
    if (error instanceof RefusedError) return null;
    throw error;
  }
}
