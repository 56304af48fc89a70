import { CoreError } from "../base/core-error.ts";
import type { Project } from "./project.ts";
import type { InputLog } from "../logs/input-log.ts";
import { readLog } from "../logs/read-log.ts";
import { logStartFault } from "../simulation/start-fault.ts";

/**
 * Logs that a change keeps from starting, each with the reason: those that start in the project before it and not in the
 * one after it. Whoever changes a world as a whole says so.
 */
export function logsThatCannotStart(before: Project, after: Project): string[] {
  return [...after.logs].flatMap(([id, text]) => {
    const [was, is] = [readOrNull(before.logs.get(id)), readOrNull(text)];
    if (is === null || (was !== null && logStartFault(before.world, was) !== null)) return [];
    const fault = logStartFault(after.world, is);
    return fault === null ? [] : [`${id} cannot start any more: ${fault.message}`];
  });
}

/** The header alone says how a log starts; a long one is not read for it. */
function readOrNull(text: string | undefined): InputLog | null {
  if (text === undefined) return null;
  try {
    return readLog(text.slice(0, text.indexOf("\n---\n") + 5));
  } catch (error) {
    if (error instanceof CoreError) return null;
    throw error;
  }
}
